import {
  ChangeDetectionStrategy,
  Component,
  computed,
  input,
  linkedSignal,
  output,
} from '@angular/core';
import {
  CAPTURE_METHODS,
  DEVICE_SETS,
  DISTURBANCE,
  missingOf,
  type RunContext,
  type RunKind,
  type RunSettings,
  SCREEN_PATHS,
  SETTING_LABELS,
} from '@ruddy/core/runs';
import { optionsOf } from '../platform/kit/meta';
import { Choice } from '../platform/shared/choice';
import { readNumber } from '../platform/shared/format';

/** What is said of a run, as it is being typed. */
export interface RunDraft {
  readonly settings: RunSettings;
  readonly context: RunContext;
  readonly saw: string;
}

/** Settings that are typed, with what is usual. The last holds for work, too. */
const TYPED = [
  {
    key: 'resolution',
    label: SETTING_LABELS.resolution,
    list: ['1280x800', '1920x1080', '2560x1440', '3840x2160'],
  },
  { key: 'preset', label: SETTING_LABELS.preset, list: [] },
  {
    key: 'upscaling',
    label: SETTING_LABELS.upscaling,
    list: ['none', 'quality', 'balanced', 'performance'],
  },
  { key: 'generation', label: SETTING_LABELS.generation, list: ['off', 'on, one between'] },
  { key: 'capFps', label: `${SETTING_LABELS.capFps}, frames/s; 0: none`, list: [] },
  { key: 'powerMode', label: SETTING_LABELS.powerMode, list: ['Performance', 'Balanced', 'Quiet'] },
] as const;
/** What the slot of a desktop is, where it is not as wide or as fast as the card. */
const SLOT_FIELDS = [
  { key: 'slotGen', label: 'Generation of the slot', most: 5 },
  { key: 'slotLanes', label: 'Lanes of the slot', most: 16 },
] as const;
type Typed = (typeof TYPED)[number]['key'];

/** How a run was set and taken, and what was seen. In: the draft. Out: the draft with each change. What nobody said is named. */
@Component({
  selector: 'rb-run-form',
  imports: [Choice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run-form.html',
  styleUrl: './run-form.scss',
})
export class RunForm {
  readonly draft = input.required<RunDraft>();
  /** What stands now: a change that follows another at once must not begin from the one before it. */
  readonly now = linkedSignal(() => this.draft());
  readonly kind = input<RunKind>('frames');
  readonly changed = output<RunDraft>();
  readonly problem = output<string | null>();
  readonly labels = SETTING_LABELS;
  readonly fields = computed(() =>
    this.kind() === 'time' || this.kind() === 'none' ? TYPED.slice(-1) : TYPED,
  );
  readonly paths = optionsOf(SCREEN_PATHS);
  readonly methods = optionsOf(CAPTURE_METHODS);
  readonly disturbance = optionsOf(DISTURBANCE);
  readonly devices = optionsOf(DEVICE_SETS);
  readonly lids = optionsOf({ open: 'Open', closed: 'Closed' });
  readonly onOff = optionsOf({ on: 'On', off: 'Off' });
  readonly yesNo = optionsOf({ yes: 'Yes', no: 'No' });
  readonly slotFields = SLOT_FIELDS;
  readonly missing = computed(() =>
    missingOf(this.kind(), this.now().settings, this.now().context),
  );

  set<K extends keyof RunSettings>(key: K, value: unknown): void {
    this.#change({ settings: { ...this.now().settings, [key]: value as RunSettings[K] } });
  }

  context<K extends keyof RunContext>(key: K, value: unknown): void {
    this.#change({ context: { ...this.now().context, [key]: value as RunContext[K] } });
  }

  saw(value: string): void {
    this.#change({ saw: value });
  }

  #change(part: Partial<RunDraft>): void {
    this.now.update((d) => ({ ...d, ...part }));
    this.changed.emit(this.now());
  }

  typed(key: Typed, value: string): void {
    if (key === 'resolution') this.resolution(value);
    else if (key === 'capFps') this.number('capFps', value);
    else this.set(key, value.trim());
  }

  resolution(value: string): void {
    const v = value.trim().replace(/\s*[×xX*]\s*/, 'x');
    const ok = /^(\d{3,5}x\d{3,5})?$/.test(v);
    this.problem.emit(ok ? null : `Resolution: "${value}" is not like 2560x1440`);
    if (ok) this.set('resolution', v);
  }

  slot(key: (typeof SLOT_FIELDS)[number]['key'], value: string): void {
    const field = SLOT_FIELDS.find((f) => f.key === key);
    const read = readNumber(value);
    const whole =
      read.ok &&
      (read.value === null ||
        (Number.isInteger(read.value) && read.value >= 1 && read.value <= (field?.most ?? 16)));
    this.problem.emit(
      whole ? null : `${field?.label ?? ''}: a whole number from 1 to ${field?.most ?? 16}`,
    );
    if (whole && read.ok) this.context(key, read.value);
  }

  number(key: 'capFps' | 'captureLoadPercent', value: string): void {
    const read = readNumber(value);
    const most = key === 'capFps' ? 1000 : 100;
    const name = key === 'capFps' ? 'Limit on frames' : 'Load of the capture';
    const why = !read.ok
      ? `${name}: ${read.why}`
      : read.value !== null && (read.value < 0 || read.value > most)
        ? `${name}: 0 to ${most}`
        : null;
    this.problem.emit(why);
    if (why !== null || !read.ok) return;
    if (key === 'capFps') this.set('capFps', read.value);
    else this.context('captureLoadPercent', read.value);
  }
}
