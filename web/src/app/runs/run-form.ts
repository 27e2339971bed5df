import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  linkedSignal,
  output,
  untracked,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup } from '@angular/forms';
import * as z from 'zod';
import {
  CAPTURE_METHODS,
  DEVICE_SETS,
  DISTURBANCE,
  missingOf,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  type RunContext,
  runContextSchema,
  type RunKind,
  type RunSettings,
  runSettingsSchema,
  SCREEN_PATHS,
  SETTING_LABELS,
} from '@ruddy/core/runs';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { problemOf, zodForm } from '../platform/kit/problems';

/** Settings and context of a run, and what was seen, as they are being entered. */
export interface RunDraft {
  readonly settings: RunSettings;
  readonly context: RunContext;
  readonly saw: string;
}

const draftSchema = z.strictObject({
  settings: runSettingsSchema,
  context: runContextSchema,
  saw: z.string().max(2000),
});

const text = (label: string, usual: readonly string[] = []): FieldMeta => ({
  label,
  input: usual.length > 0 ? 'suggest' : 'text',
  max: 60,
  placeholder: 'not set',
  options: usual.map((value) => ({ value, label: value })),
});
const choice = (label: string, words: Readonly<Record<string, string>>): FieldMeta => ({
  label,
  input: 'choice',
  placeholder: 'not set',
  options: optionsOf(words),
});
const number = (label: string, unit: string, placeholder: string, help?: string): FieldMeta => ({
  label,
  input: 'number',
  placeholder,
  ...(unit && { unit }),
  ...(help && { help }),
});

/** Fields of the settings, with what is usual. */
export const RUN_FIELDS: Readonly<Record<keyof RunSettings, FieldMeta>> = {
  resolution: text(SETTING_LABELS.resolution, ['1280x800', '1920x1080', '2560x1440', '3840x2160']),
  preset: text(SETTING_LABELS.preset),
  upscaling: text(SETTING_LABELS.upscaling, ['none', 'quality', 'balanced', 'performance']),
  generation: text(SETTING_LABELS.generation, ['off', 'on, one between']),
  capFps: number(SETTING_LABELS.capFps, 'frames/s', 'not set', '0: no limit'),
  powerMode: text(SETTING_LABELS.powerMode, ['Performance', 'Balanced', 'Quiet']),
  screenPath: choice(SETTING_LABELS.screenPath, SCREEN_PATHS),
  rayTracing: choice(SETTING_LABELS.rayTracing, { on: 'On', off: 'Off' }),
  lid: choice(SETTING_LABELS.lid, { open: 'Open', closed: 'Closed' }),
  deviceSet: choice(SETTING_LABELS.deviceSet, DEVICE_SETS),
};
const OF_FRAMES: readonly (keyof RunSettings)[] = [
  'resolution',
  'preset',
  'upscaling',
  'generation',
  'capFps',
  'powerMode',
  'screenPath',
  'rayTracing',
  'lid',
];
/** Which settings a kind of run has. */
const ASKED: Readonly<Record<RunKind, readonly (keyof RunSettings)[]>> = {
  frames: OF_FRAMES,
  score: [...OF_FRAMES, 'deviceSet'],
  time: ['powerMode', 'lid', 'deviceSet'],
  none: ['powerMode', 'screenPath', 'rayTracing', 'lid'],
};
const CAPTURE: Partial<Record<keyof RunContext, FieldMeta>> = {
  method: choice('Captured by', CAPTURE_METHODS),
  disturbs: choice('Did capturing disturb it?', DISTURBANCE),
  captureLoadPercent: number('Load of the capture', '%', 'not known'),
};
/** The slot of a desktop, where it is not as wide or as fast as the card. */
const SLOT: Partial<Record<keyof RunContext, FieldMeta>> = {
  sameProcessor: choice('Driven by the same processor', { yes: 'Yes', no: 'No' }),
  slotGen: number('Slot generation', '', 'as the card'),
  slotLanes: number('Slot lanes', '', 'as the card'),
};

/** What a draft says of all repeats; whether one counts among them is said of each by itself. */
export function saidOfAll({ settings, context }: Pick<RunDraft, 'settings' | 'context'>) {
  const all: Partial<RunContext> = { ...context };
  delete all.counts;
  return { settings, context: all };
}

/** "2560 × 1440" is stored as 2560x1440. */
export function inPixels(typed: string): string {
  const at = typed.search(/[×xX*]/);
  return at < 0 ? typed.trim() : `${typed.slice(0, at).trim()}x${typed.slice(at + 1).trim()}`;
}

type Controls<T> = { [K in keyof T]: FormControl<T[K]> };
export const controlsOf = <T extends object>(start: T) =>
  Object.fromEntries(
    Object.entries(start).map(([k, v]) => [k, new FormControl<unknown>(v, { nonNullable: true })]),
  ) as unknown as Controls<T>;

/** How a run was set and taken, and what was seen. In: the draft. Out: the draft with each change, and what is wrong with it. Settings that are not set are named. */
@Component({
  selector: 'rb-run-form',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './run-form.html',
  styleUrl: './run-form.scss',
})
export class RunForm {
  readonly draft = input.required<RunDraft>();
  readonly now = linkedSignal(() => this.draft());
  readonly kind = input<RunKind>('frames');
  /** Settings that are said elsewhere. */
  readonly without = input<readonly (keyof RunSettings)[]>([]);
  readonly changed = output<RunDraft>();
  readonly problem = output<string | null>();
  readonly form = new FormGroup(
    {
      settings: new FormGroup(controlsOf(NO_RUN_SETTINGS)),
      context: new FormGroup(controlsOf(NO_RUN_CONTEXT)),
      saw: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(draftSchema, (raw: RunDraft) => this.#read(raw)) },
  );
  readonly shown = computed(() =>
    ASKED[this.kind()]
      .filter((key) => !this.without().includes(key))
      .map((key) => ({
        key,
        meta: RUN_FIELDS[key],
        control: this.form.controls.settings.controls[key],
      })),
  );
  readonly capture = this.#ofContext(CAPTURE);
  readonly slot = this.#ofContext(SLOT);
  readonly norm: FieldMeta = {
    label: 'Desktop baseline: the same card in a desktop slot',
    input: 'flag',
  };
  readonly saw: FieldMeta = { label: 'Seen, but not in the figures', input: 'area', max: 2000 };
  readonly missing = computed(() => {
    const elsewhere = this.without().map((key) => SETTING_LABELS[key]);
    return missingOf(this.kind(), this.now().settings, this.now().context).filter(
      (label) => !elsewhere.includes(label),
    );
  });
  #sent: RunDraft | null = null;

  constructor() {
    effect(() => {
      const draft = this.draft();
      untracked(() => {
        // What comes back as it was sent must not change a text that is being typed.
        if (draft !== this.#sent) this.form.reset(draft, { emitEvent: false });
      });
    });
    this.form.valueChanges.pipe(takeUntilDestroyed()).subscribe(() => this.#edited());
  }

  #ofContext(metas: Partial<Record<keyof RunContext, FieldMeta>>) {
    return (Object.entries(metas) as [keyof RunContext, FieldMeta][]).map(([key, meta]) => ({
      key,
      meta,
      control: this.form.controls.context.controls[key],
    }));
  }

  #read(raw: RunDraft): RunDraft {
    const { settings } = raw;
    return { ...raw, settings: { ...settings, resolution: inPixels(settings.resolution) } };
  }

  #edited(): void {
    const wrong = [
      ...Object.values(this.form.controls.settings.controls),
      ...Object.values(this.form.controls.context.controls),
      this.form.controls.saw,
    ].map((c) => problemOf(c));
    const why = wrong.find((w) => w !== null) ?? null;
    this.problem.emit(why);
    if (why !== null) return;
    this.#sent = this.#read(this.form.getRawValue());
    this.now.set(this.#sent);
    this.changed.emit(this.#sent);
  }
}
