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
} from '@angular/core';
import { takeUntilDestroyed, toObservable } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { catchError, debounceTime, EMPTY } from 'rxjs';
import {
  type Dimension,
  type Mapping,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  planSession,
  type RunSettings,
  SCREEN_PATHS,
  settingsOfSetup,
} from '@ruddy/core/runs';
import type { RunEntry, SessionEntry } from '@ruddy/core/runs/contract';
import { ask, valueOf } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import { FileDrop } from '../platform/kit/file-drop';
import type { FieldMeta } from '../platform/kit/meta';
import { pluralize } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { SetupsData } from '../setups/setups';
import { DroppedFiles } from './dropped-files';
import { FileQuestions } from './file-questions';
import { type HalfSession, KeptSession } from './kept-session';
import { MappingForm } from './mapping-form';
import { type FileRow, RunFiles } from './run-files';
import { RunForm, type RunDraft } from './run-form';
import { RunsData } from './runs';
import { SessionRows, type SessionValues } from './session-rows';
import { SessionTable } from './session-table';
import { titleId } from './title-field';

const SETUPS = 500;

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

/** What the table of the session says of a run, so that the form below it does not ask again. */
const IN_TABLE = ['resolution', 'preset', 'screenPath', 'powerMode'] as const;
const KEEP_AFTER_MS = 500;

/** Captures in: files and folders, what is asked about them, the table of what each was, and one button that says what it stores. */
@Component({
  selector: 'rb-add-panel',
  imports: [Field, FileDrop, FileQuestions, MappingForm, MatButtonModule, RunForm, SessionTable],
  providers: [SessionRows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './add-panel.html',
  styleUrl: './add-panel.scss',
})
export class AddPanel {
  readonly files = inject(RunFiles);
  readonly rows = inject(SessionRows);
  readonly #data = inject(RunsData);
  readonly #setups = inject(SetupsData);
  readonly #kept = inject(KeptSession);
  readonly #clock = inject(ServerClock);
  readonly setupId = input.required<string>();
  /** What the setup tells of its runs. */
  readonly preset = input.required<RunSettings>();
  /** Runs of the setup, newest first: their words are met in the names of files. */
  readonly runs = input<readonly RunEntry[]>([]);
  readonly session = input<SessionEntry | null>(null);
  /** The cell of the session that is measured next. */
  readonly cell = input<number | null>(null);
  /** Ids of the runs that were stored. */
  readonly stored = output<readonly string[]>();
  /** The run that was added last, whose settings may hold for these. */
  readonly last = computed(() => this.runs().find((r) => r.kind === 'frames') ?? null);
  /** Date of the runs; null: as each file says. */
  readonly on = signal<string | null>(null);
  readonly day: FieldMeta = {
    label: 'Run on',
    input: 'day',
    placeholder: 'as each file says',
    check: (v) =>
      typeof v === 'string' && v > this.#clock.today() ? 'A run cannot be of tomorrow' : null,
  };
  readonly problem = signal<string | null>(null);
  readonly fieldProblem = signal<string | null>(null);
  readonly draft = signal<RunDraft>({
    settings: null as unknown as RunSettings,
    context: NO_RUN_CONTEXT,
    saw: '',
  });
  readonly counted = pluralize;
  readonly inTable = IN_TABLE;
  readonly #profiles = ask(() => this.#data.profiles());
  readonly #listed = ask(() => this.#setups.list({ limit: SETUPS }));
  /** Files of a session that was begun before and not stored. */
  readonly half = signal<HalfSession | null>(null);
  /** Setup of the page on which a session was begun that is gone on with here. */
  readonly #begunOn = signal<string | null>(null);
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
  /** Files that would be stored but for their title. */
  readonly untitled = computed(() =>
    this.rows.rows().filter((r) => this.files.storable(r.file) && r.values.title.trim() === ''),
  );
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
    else void this.#kept.read().then((half) => this.half.set(half));
    effect(() => {
      const settings = this.preset();
      untracked(() =>
        this.draft.update((d) => ({ ...d, settings: { ...settings, ...(d.settings ?? {}) } })),
      );
    });
    effect(() => this.#know());
    effect(() => this.#readPresets());
    // Files that were dropped before this panel was there, or while a cell was chosen, belong to that cell.
    effect(() => {
      const cell = this.cell();
      const n = this.files.rows().length;
      untracked(() => {
        if (cell !== null && n > 0)
          for (const r of this.files.rows()) if (r.cell === null) this.files.patch(r.id, { cell });
      });
    });
    effect(() => {
      const dimensions = this.session()?.factors.map((f) => f.dimension) ?? [];
      const planned = this.files
        .rows()
        .map((r) => [r.id, this.#cellValues(r, dimensions)] as const);
      untracked(() => this.rows.planned.set(new Map(planned)));
    });
    toObservable(computed(() => ({ files: this.files.rows(), said: this.rows.said() })))
      .pipe(debounceTime(KEEP_AFTER_MS), takeUntilDestroyed())
      .subscribe(() => void this.#keepHalf());
  }

  /** What is known here, to meet words of file names with. */
  #know(): void {
    const runs = this.runs();
    const one = (list: readonly string[]) => [...new Set(list)].filter((v) => v !== '');
    const named = runs.filter((r) => (r.source?.program ?? '') !== '');
    this.rows.setupId.set(this.#begunOn() ?? this.setupId());
    this.rows.known.set({
      titles: (valueOf(this.#profiles) ?? []).filter((p) => p.kind === 'title').map((p) => p.name),
      presets: one(runs.map((r) => r.settings.preset)),
      powerModes: one(runs.map((r) => r.settings.powerMode)),
      programs: new Map(named.map((r) => [r.source?.program ?? '', r.title] as const)),
      setups: (valueOf(this.#listed)?.items ?? []).map((s) => ({
        id: s.id,
        name: s.name,
        words: [s.name, s.chain.host, s.chain.link, s.chain.dock, s.chain.card].join(' '),
      })),
    });
  }

  /** What the setups of the table tell of their runs, read once each. */
  #readPresets(): void {
    const own = this.setupId();
    const preset = this.preset();
    const asked = new Set(this.rows.rows().map((r) => r.values.setupId));
    untracked(() => {
      // A map that is as it was would make the rows anew, and this with them.
      if (this.rows.presets().get(own) !== preset)
        this.rows.presets.update((m) => new Map(m).set(own, preset));
      for (const id of asked) {
        if (id === '' || this.rows.presets().has(id)) continue;
        this.rows.presets.update((m) => new Map(m).set(id, NO_RUN_SETTINGS));
        // Without the setup, its rows only lack what it would tell.
        this.#setups
          .one(id)
          .pipe(catchError(() => EMPTY))
          .subscribe((s) => {
            const told = settingsOfSetup(s.settings, s.docked.docked.powerMode);
            this.rows.presets.update((m) => new Map(m).set(id, told));
          });
      }
    });
  }

  #levelsOf(r: FileRow): readonly string[] {
    return r.cell === null ? [] : (this.cells()[r.cell]?.levels ?? []);
  }

  /** What the cell of a file says of its run. */
  #cellValues(r: FileRow, dimensions: readonly Dimension[]): Partial<SessionValues> {
    const session = this.session();
    if (!session) return {};
    const levels = this.#levelsOf(r);
    const { resolution, preset, screenPath, powerMode } = settingsOf(dimensions, levels);
    const title = levels[dimensions.indexOf('title')] ?? session.title;
    const found = { title, resolution, preset, screenPath, powerMode };
    return Object.fromEntries(Object.entries(found).filter(([, v]) => v !== undefined));
  }

  /** Look at the columns of a file again. */
  again(r: FileRow): void {
    this.files.again(r.id);
  }

  confirm(id: string, mapping: Mapping): void {
    void this.files.confirm(id, mapping);
  }

  /** Set as for the run before: settings and how it was captured, not what was seen. */
  asLast(r: RunEntry): void {
    this.draft.update((d) => ({ ...d, settings: r.settings, context: r.context }));
    const { resolution, preset, screenPath, powerMode } = r.settings;
    this.rows.sayAs({ title: r.title, resolution, preset, screenPath, powerMode });
  }

  /** Files on their way are kept until they are stored or left out. */
  async #keepHalf(): Promise<void> {
    const open = this.files.rows().filter((r) => r.state !== 'stored' && r.state !== 'refused');
    // What nobody has gone on with or discarded yet stays, beside the files that came now.
    const half = this.half();
    const setupId = this.rows.setupId();
    const here = half && half.setupId !== setupId ? { setupId } : {};
    if (open.length > 0)
      await this.#kept.keep({
        setupId: half?.setupId ?? setupId,
        at: this.#clock.now(),
        files: [...(half?.files ?? []), ...open.map((r) => r.file)],
        said: [
          ...(half?.said ?? []),
          ...open.map((r) => ({ ...here, ...this.rows.said().get(r.id) })),
        ],
      });
    else if (half === null && this.files.rows().length > 0) await this.#kept.drop();
  }

  /** Goes on with the session that was begun before. */
  async goOn(half: HalfSession): Promise<void> {
    this.half.set(null);
    this.#begunOn.set(half.setupId);
    const before = new Set(this.files.rows().map((r) => r.id));
    const added = this.files.add(half.files);
    const ids = this.files.rows().flatMap((r) => (before.has(r.id) ? [] : [r.id]));
    this.rows.restore(ids, half.said);
    await added;
  }

  async discard(): Promise<void> {
    this.half.set(null);
    await this.#kept.drop();
  }

  async store(): Promise<void> {
    this.problem.set(null);
    const untitled = this.untitled();
    if (untitled.length > 0)
      return this.problem.set(
        `Title: say what was run in ${untitled[0]?.file.file.name ?? ''}${untitled.length > 1 ? ` and ${untitled.length - 1} more` : ''}; nothing is saved yet`,
      );
    try {
      const rows = new Map(this.rows.rows().map((r) => [r.file.id, r.values]));
      const titles = await this.#titleIds(
        this.files
          .rows()
          .flatMap((r) => (this.files.storable(r) ? [rows.get(r.id)?.title ?? ''] : [])),
      );
      const dimensions = this.session()?.factors.map((f) => f.dimension) ?? [];
      const { settings, context, saw } = this.draft();
      const on = this.on() === null ? undefined : `${this.on()}T12:00:00Z`;
      const ids = await this.files.store(this.#clock.now(), (r) => {
        const { title, setupId, ...said } = rows.get(r.id) as SessionValues;
        return {
          setupId,
          titleId: titles.get(title.trim()) ?? '',
          context,
          saw,
          happenedAt: on,
          settings: { ...settings, ...settingsOf(dimensions, this.#levelsOf(r)), ...said },
        };
      });
      if (ids.length > 0) this.stored.emit(ids);
    } catch (e) {
      this.problem.set(`Not saved: ${(e as Error).message}`);
    }
  }

  /** Ids of the titles of a session; new ones are made. */
  async #titleIds(titles: readonly string[]): Promise<ReadonlyMap<string, string>> {
    const known = valueOf(this.#profiles) ?? [];
    const ids = new Map<string, string>();
    for (const name of new Set(titles.map((t) => t.trim())))
      ids.set(name, await titleId(this.#data, known, { name, kind: 'title' }));
    return ids;
  }
}
