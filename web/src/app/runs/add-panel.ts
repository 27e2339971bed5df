import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { figureText } from '@ruddy/core/base/text';
import {
  type Alignment,
  type Dimension,
  type Mapping,
  NO_RUN_CONTEXT,
  planSession,
  type RunSettings,
  SCREEN_PATHS,
} from '@ruddy/core/runs';
import type { RunEntry, SessionEntry } from '@ruddy/core/runs/contract';
import { badRowText } from '@ruddy/core/runs/text';
import { pluralize } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { DroppedFiles } from './dropped-files';
import { MappingForm } from './mapping-form';
import { framesOf, isLog, lanesOf, RunFiles, type FileRow } from './run-files';
import { RunForm, type RunDraft } from './run-form';
import { TitleField } from './title-field';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { EncodingChoice } from '../platform/kit/encoding-choice';
import { FileDrop } from '../platform/kit/file-drop';
import { Fold } from '../platform/kit/fold';

/** Levels of a session that are settings of a run; the others come from the setup. */
function settingsOf(
  dimensions: readonly Dimension[],
  levels: readonly string[],
): Partial<RunSettings> {
  const screen = Object.entries(SCREEN_PATHS);
  return Object.fromEntries(
    dimensions.flatMap((d, i): [string, string | null][] => {
      const level = levels[i] ?? '';
      if (d === 'screenPath') return [[d, screen.find(([, w]) => w === level)?.[0] ?? null]];
      if (d === 'lid') return [[d, level === 'open' || level === 'closed' ? level : null]];
      return d === 'resolution' || d === 'powerMode' || d === 'preset' || d === 'upscaling'
        ? [[d, level]]
        : [];
    }),
  );
}

/** Captures in: files, what becomes of each, how they were set, and one button that says what it stores. */
@Component({
  selector: 'rb-add-panel',
  imports: [
    Field,
    EncodingChoice,
    FileDrop,
    Fold,
    MappingForm,
    MatButtonModule,
    MatProgressBarModule,
    RunForm,
    TitleField,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './add-panel.html',
  styleUrl: './add-panel.scss',
})
export class AddPanel {
  readonly files = inject(RunFiles);
  readonly #clock = inject(ServerClock);
  readonly setupId = input.required<string>();
  /** What the setup tells of its runs. */
  readonly preset = input.required<RunSettings>();
  /** The run that was added last, whose settings may hold for these. */
  readonly last = input<RunEntry | null>(null);
  readonly session = input<SessionEntry | null>(null);
  /** The cell of the session that is measured next. */
  readonly cell = input<number | null>(null);
  readonly stored = output<number>();
  readonly title = viewChild.required(TitleField);
  /** Date of the runs; null: as each file says. */
  readonly on = signal<string | null>(null);
  readonly day: FieldMeta = {
    label: 'Run on',
    input: 'day',
    placeholder: 'as each file says',
    check: (v) =>
      typeof v === 'string' && v > this.#clock.today() ? 'A run cannot be of tomorrow' : null,
  };
  readonly rest: FieldMeta = { label: 'Save the rest without them', input: 'flag' };
  readonly problem = signal<string | null>(null);
  readonly fieldProblem = signal<string | null>(null);
  readonly draft = signal<RunDraft>({
    settings: null as unknown as RunSettings,
    context: NO_RUN_CONTEXT,
    saw: '',
  });
  readonly counted = pluralize;
  readonly framesOf = framesOf;
  readonly isLog = isLog;
  readonly cells = computed(() => {
    const s = this.session();
    if (!s) return [];
    const seen = new Set<string>();
    return planSession(s.factors, 1).steps.flatMap((step) => {
      const name = step.cell.join(', ');
      if (step.back || seen.has(name)) return [];
      seen.add(name);
      return [{ name, levels: step.cell }];
    });
  });
  readonly cellMetas = computed<ReadonlyMap<string, FieldMeta>>(() => {
    const options = this.cells().map((c, value) => ({ value, label: c.name }));
    return new Map(
      this.files.rows().map((r) => {
        const label = `Cell of ${r.file.name}`;
        return [r.id, { label, input: 'choice', placeholder: 'none', options }];
      }),
    );
  });
  readonly besideMeta = computed<FieldMeta>(() => ({
    label: 'Recorded with',
    input: 'choice',
    placeholder: 'no file',
    options: this.files.captures().map((c) => ({ value: c.id, label: c.file.name })),
  }));
  readonly startTitle = computed(() => {
    const s = this.session();
    const at = s?.factors.findIndex((f) => f.dimension === 'title') ?? -1;
    return at >= 0 ? (this.cells()[this.cell() ?? 0]?.levels[at] ?? '') : (s?.title ?? '');
  });
  readonly canStore = computed(
    () =>
      this.files.ready() > 0 &&
      !this.files.busy() &&
      this.fieldProblem() === null &&
      // The settings of a cell come with its session.
      (this.cell() === null || this.session() !== null),
  );

  constructor() {
    const dropped = inject(DroppedFiles).take();
    if (dropped.length > 0) void this.files.add(dropped);
    effect(() => {
      const settings = this.preset();
      untracked(() =>
        this.draft.update((d) => ({ ...d, settings: { ...settings, ...(d.settings ?? {}) } })),
      );
    });
    // Files that were dropped before this panel was there, or while a cell was chosen, belong to that cell.
    effect(() => {
      const cell = this.cell();
      const n = this.files.rows().length;
      untracked(() => {
        if (cell !== null && n > 0)
          for (const r of this.files.rows()) if (r.cell === null) this.files.patch(r.id, { cell });
      });
    });
  }

  /** What a file holds, in words. */
  holds(r: FileRow): string {
    const frames = framesOf(r).map(
      (s) =>
        `${s.program ? `${s.program}: ` : ''}${pluralize(s.frames.length, 'frame')}, ${figureText(s.stats?.seconds ?? 0)} s, ${figureText(s.stats?.averageFps ?? 0)} frames/s${s.shown ? ', shown ones apart' : ''}${s.lanes.length > 0 ? `, ${pluralize(s.lanes.length, 'sensor')}` : ''}`,
    );
    return [
      ...frames,
      ...(isLog(r) ? [`a log of ${pluralize(lanesOf(r).length, 'sensor')}`] : []),
    ].join('; ');
  }

  fate(r: FileRow): string {
    switch (r.state) {
      case 'looking':
        return 'Looking at it …';
      case 'confirm':
        return 'Map columns';
      case 'reading':
        return `Reading: ${Math.round(r.share * 100)} %`;
      case 'read':
        if (isLog(r))
          return r.beside === null
            ? 'Recorded with no file: not saved'
            : 'Saved with the frames it was recorded with';
        if ((r.read?.badCount ?? 0) > 0 && !r.rest)
          return `${pluralize(r.read?.badCount ?? 0, 'row')} cannot be read: not saved`;
        return pluralize(framesOf(r).length, 'run to save', 'runs to save');
      case 'storing':
        return 'Saving …';
      case 'stored':
        return r.runs > 0 ? `${pluralize(r.runs, 'run')} saved` : 'Saved';
      case 'stopped':
      case 'refused':
        return 'Not saved';
    }
  }

  bad(r: FileRow): string[] {
    return (r.read?.bad ?? []).slice(0, 50).map((b) => badRowText(b, r.layout?.header ?? null));
  }

  fits(a: Alignment | null): string {
    if (!a) return 'Nothing to find the place by: move it by hand.';
    const r = `correlation ${a.r.toFixed(2)}`;
    return a.clear
      ? `Found by cross-correlation, ${r}.`
      : `No clear place, ${r} at best: left as recorded, move it by hand.`;
  }

  confirm(id: string, mapping: Mapping): void {
    void this.files.confirm(id, mapping);
  }

  /** Set as for the run before: settings and how it was captured, not what was seen. */
  asLast(r: RunEntry): void {
    this.draft.update((d) => ({ ...d, settings: r.settings, context: r.context }));
  }

  move(r: FileRow, byMs: number): void {
    this.files.patch(r.id, { offsetMs: r.offsetMs + byMs });
  }

  async store(): Promise<void> {
    this.problem.set(null);
    const dimensions = this.session()?.factors.map((f) => f.dimension) ?? [];
    const levelsOf = (r: FileRow) => (r.cell === null ? [] : (this.cells()[r.cell]?.levels ?? []));
    const titleOf = (r: FileRow) =>
      levelsOf(r)[dimensions.indexOf('title')] ?? this.title().name().trim();
    const files = this.files.rows().filter((r) => this.files.storable(r));
    if (files.some((r) => titleOf(r) === ''))
      return this.problem.set('Title: say what was run; nothing is saved yet');
    try {
      const ids = new Map<string, string>();
      for (const name of new Set(files.map(titleOf)))
        ids.set(name, await this.title().resolve(name));
      const { settings, context, saw } = this.draft();
      const on = this.on() === null ? undefined : `${this.on()}T12:00:00Z`;
      const n = await this.files.store(this.setupId(), this.#clock.now(), (r) => ({
        titleId: ids.get(titleOf(r)) ?? '',
        context,
        saw,
        happenedAt: on,
        settings: { ...settings, ...settingsOf(dimensions, levelsOf(r)) },
      }));
      if (n > 0) this.stored.emit(n);
    } catch (e) {
      this.problem.set(`Not saved: ${(e as Error).message}`);
    }
  }
}
