import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { toSignal } from '@angular/core/rxjs-interop';
import { FormControl, FormGroup, ReactiveFormsModule } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { map } from 'rxjs';
import { v7 } from 'uuid';
import { partName } from '@ruddy/core/chain';
import {
  COMPARISONS,
  type Comparison,
  NO_STATED_SETTINGS,
  type RunSettings,
  STATED_KINDS,
  type StatedKind,
  type StatedSettings,
} from '@ruddy/core/runs';
import { statedFigureBody } from '@ruddy/core/runs/contract';
import { PartsData } from '../parts/parts';
import { Acts, ask, valueOf } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { SetupsData } from '../setups/setups';
import { controlsOf, inPixels, RUN_FIELDS } from './run-form';
import { RunsData } from './runs';
import { TitleField } from './title-field';

const STATED_SETTINGS = Object.keys(NO_STATED_SETTINGS) as (keyof StatedSettings)[];
const { resolution, screenPath } = NO_STATED_SETTINGS;
const OTHER_PICTURE = { resolution, screenPath };
const SIDES = { 'at-least': 'At least', 'at-most': 'At most' } as const;
const FIELDS = {
  kind: { label: 'Kind of figure', input: 'choice', options: optionsOf(STATED_KINDS) },
  fps: { label: 'Frames/s', input: 'number' },
  side: { label: 'Bound', input: 'toggle', options: optionsOf(SIDES) },
  points: { label: 'Points', input: 'number' },
  amount: { label: 'How much', input: 'number' },
  how: { label: 'As', input: 'choice', options: optionsOf(COMPARISONS) },
  about: { label: 'About', input: 'flag' },
  slot: { label: 'In a desktop slot of another machine', input: 'flag' },
  note: { label: 'Where from', input: 'text', max: 300, placeholder: 'not set' },
} as const satisfies Record<string, FieldMeta>;
/** Which fields of the figure a kind has. */
const FIGURES: Readonly<
  Record<StatedKind, readonly ('fps' | 'side' | 'points' | 'amount' | 'how' | 'about')[]>
> = {
  frames: ['fps', 'about'],
  ratio: ['amount', 'how', 'about'],
  bound: ['side', 'fps'],
  held: [],
  points: ['points'],
  // The model takes a ratio with no word of where as rougher than "about".
  cards: ['amount', 'how'],
};
/** Stands for title and setup while the form is checked. */
const UNKNOWN = '00000000-0000-7000-8000-000000000000';
/** The most that a list of choices holds. */
const MOST = 500;

const flag = () => new FormControl(false, { nonNullable: true });
const figure = () => new FormControl<number | null>(null);
const id = () => new FormControl<string | null>(null);

/** State a figure of a title: evidence of the frame model beside runs. The other side of a comparison may be any setup, card or slot. */
@Component({
  selector: 'rb-stated-form',
  imports: [Field, MatButtonModule, ReactiveFormsModule, TitleField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './stated-form.html',
  styleUrl: './stated-form.scss',
})
export class StatedForm {
  readonly #data = inject(RunsData);
  readonly #acts = inject(Acts);
  readonly #parts = inject(PartsData);
  readonly #setups = inject(SetupsData);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly setupId = input.required<string>();
  /** Settings that the setup implies; what is set by hand stays. */
  readonly preset = input.required<RunSettings>();
  /** Name of the card of the setup. */
  readonly ownCard = input('');
  readonly titleStart = input('');
  readonly stored = output();
  readonly title = viewChild.required(TitleField);
  readonly fields = FIELDS;
  readonly runFields = RUN_FIELDS;
  readonly otherPicture = (['resolution', 'screenPath'] as const).map((key) => ({
    key,
    meta: { ...RUN_FIELDS[key], placeholder: 'the same' },
  }));
  readonly form = new FormGroup(
    {
      kind: new FormControl<StatedKind>('frames', { nonNullable: true }),
      rig: new FormGroup({ cardId: id(), slot: flag() }),
      settings: new FormGroup(controlsOf(NO_STATED_SETTINGS)),
      said: new FormGroup({
        fps: figure(),
        about: flag(),
        side: new FormControl<keyof typeof SIDES>('at-most', { nonNullable: true }),
        points: figure(),
        amount: figure(),
        how: new FormControl<Comparison>('faster', { nonNullable: true }),
        other: new FormGroup({
          rig: new FormGroup({ setupId: id(), cardId: id(), slot: flag() }),
          ...controlsOf(OTHER_PICTURE),
        }),
      }),
      note: new FormControl('', { nonNullable: true }),
    },
    { validators: zodForm(statedFigureBody, (raw: Raw) => bodyOf(raw, UNKNOWN, UNKNOWN)) },
  );
  readonly problem = signal<string | null>(null);
  readonly saving = signal(false);
  readonly #raw = toSignal(this.form.valueChanges.pipe(map(() => this.form.getRawValue())), {
    initialValue: this.form.getRawValue(),
  });
  readonly kind = computed(() => this.#raw().kind);
  readonly figures = computed(() => FIGURES[this.kind()]);
  readonly compares = computed(() => this.kind() === 'ratio' || this.kind() === 'cards');
  readonly comparison = computed(() => COMPARISONS[this.#raw().said.how]);
  /** A limit is asked for only where it held. */
  readonly settings = computed(() =>
    STATED_SETTINGS.filter((key) => key !== 'capFps' || this.kind() === 'held'),
  );
  readonly #known = ask(() => this.#setups.list({ limit: MOST }));
  readonly setupMeta = computed<FieldMeta>(() => ({
    label: 'Setup',
    input: 'choice',
    options: (valueOf(this.#known)?.items ?? []).map((s) => ({ value: s.id, label: s.name })),
  }));

  readonly #cards = ask(() => this.#parts.list({ kind: 'card', limit: MOST }));
  readonly cardMeta = computed(() => this.#cardField('Card', this.ownCard()));
  readonly otherCardMeta = computed(() => this.#cardField('Its card', 'its own'));

  constructor() {
    effect(() => {
      const { preset: implied, setupId } = { preset: this.preset(), setupId: this.setupId() };
      untracked(() => this.#imply(implied, setupId));
    });
  }

  #cardField(label: string, placeholder: string): FieldMeta {
    const options = (valueOf(this.#cards)?.items ?? []).map((p) => ({
      value: p.id,
      label: partName(p.spec),
    }));
    return { label, input: 'choice', placeholder, options };
  }

  /** Fills in what the setup implies and nobody set. */
  #imply(implied: RunSettings, setupId: string): void {
    const { settings, said } = this.form.controls;
    for (const key of STATED_SETTINGS) {
      const control = settings.controls[key] as FormControl<unknown>;
      if (control.pristine && key !== 'capFps') control.setValue(implied[key]);
    }
    const { rig } = said.controls.other.controls;
    if (rig.controls.setupId.pristine) rig.controls.setupId.setValue(setupId);
  }

  async save(): Promise<void> {
    this.problem.set(null);
    const ready = readyToSend(this.form, this.#el);
    if (this.title().name().trim() === '')
      return this.problem.set('Title: say of which title; nothing is saved yet');
    if (!ready) return;
    this.saving.set(true);
    try {
      const titleId = await this.title().resolve();
      const body = statedFigureBody.parse(bodyOf(this.form.getRawValue(), titleId, this.setupId()));
      this.#acts.send(this.form, this.#data.state(body), {
        line: this.problem,
        running: this.saving,
        done: 'Figure saved: it counts as evidence from now on.',
        then: () => this.#stored(),
      });
    } catch (e) {
      this.problem.set(`Not saved. ${(e as Error).message}`);
      this.saving.set(false);
    }
  }

  /** The next figure is often of the same rig: only the figure goes. */
  #stored(): void {
    const { fps, points, amount } = this.form.controls.said.controls;
    for (const control of [fps, points, amount]) control.reset(null);
    this.stored.emit();
  }
}

/** Values of the form as they are typed. */
interface Raw {
  readonly kind: StatedKind;
  readonly rig: { readonly cardId: string | null; readonly slot: boolean };
  readonly settings: StatedSettings;
  readonly said: {
    readonly fps: number | null;
    readonly about: boolean;
    readonly side: keyof typeof SIDES;
    readonly points: number | null;
    readonly amount: number | null;
    readonly how: Comparison;
    readonly other: Pick<RunSettings, 'resolution' | 'screenPath'> & {
      readonly rig: {
        readonly setupId: string | null;
        readonly cardId: string | null;
        readonly slot: boolean;
      };
    };
  };
  readonly note: string;
}

/** What is sent of the values of the form. */
function bodyOf(raw: Raw, titleId: string, setupId: string): unknown {
  const { kind, rig, settings, said, note } = raw;
  const picture = (resolution: string) => ({ resolution: inPixels(resolution) });
  const own = Object.fromEntries(FIGURES[kind].map((key) => [key, said[key]]));
  // What is left empty of the other side is as on this one.
  const other = {
    rig: said.other.rig,
    ...(kind === 'ratio' && {
      ...picture(said.other.resolution || settings.resolution),
      screenPath: said.other.screenPath ?? settings.screenPath,
    }),
  };
  return {
    id: v7(),
    titleId,
    rig: { ...rig, setupId },
    settings: { ...settings, ...picture(settings.resolution) },
    said: { kind, ...own, ...((kind === 'ratio' || kind === 'cards') && { other }) },
    note,
  };
}
