import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DOCUMENT,
  inject,
  input,
  signal,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { Router, RouterLink } from '@angular/router';
import { filter, interval } from 'rxjs';
import {
  classifyRuns,
  type Dimension,
  type ExperimentRun,
  FACTS,
  sessionState,
} from '@ruddy/core/runs';
import type { SessionBody, SessionEntry } from '@ruddy/core/runs/contract';
import { RunsData } from '../runs';
import { SetupsData } from '../../setups/setups';
import { DroppedFiles } from '../dropped-files';
import { pluralize, day, orEmpty } from '../../platform/shared/format';
import { SessionForm } from './session-form';
import { Cell } from '../../platform/kit/cell';
import type { ShortColumn } from '../../platform/kit/columns';
import { Field } from '../../platform/kit/field';
import { FileDrop } from '../../platform/kit/file-drop';
import type { FieldMeta } from '../../platform/kit/meta';
import { Rows } from '../../platform/kit/rows';
import { Acts, ask, State, valueOf } from '../../platform/kit/ask';

/** While a session is run, what is measured is read again this often. */
const READ_AGAIN_MS = 20_000;

interface CellRow {
  /** Null for the first cell measured again. */
  readonly index: number | null;
  readonly name: string;
  readonly change: string;
  readonly measured: string;
}

/** Sessions: runs planned to answer one question, in the order that swaps hardware least; what is measured, what is left, what was not held. */
@Component({
  imports: [
    Cell,
    Field,
    FileDrop,
    MatButtonModule,
    MatProgressBarModule,
    RouterLink,
    Rows,
    SessionForm,
    State,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sessions-page.html',
  styleUrl: './compare-runs-page.scss',
})
export class SessionsPage {
  readonly #data = inject(RunsData);
  readonly #router = inject(Router);
  readonly #dropped = inject(DroppedFiles);
  readonly id = input('', { transform: orEmpty });
  readonly setup = input('', { transform: orEmpty });
  readonly #setups = inject(SetupsData);
  readonly #acts = inject(Acts);
  readonly list = ask(() => this.#data.sessions());
  readonly sessions = computed(() => valueOf(this.list) ?? null);
  readonly measured = ask(() => this.#data.all({}));
  readonly runs = computed(() => valueOf(this.measured) ?? []);
  readonly named = ask(() => this.#setups.list({}));
  readonly setups = computed(() => valueOf(this.named)?.items ?? []);
  readonly planning = signal(false);
  readonly #document = inject(DOCUMENT);
  readonly facts = FACTS;
  readonly day = day;
  readonly counted = pluralize;

  readonly listed = computed(() =>
    (this.sessions() ?? []).filter(
      (s) => this.setup() === '' || s.setupIds.length === 0 || s.setupIds.includes(this.setup()),
    ),
  );
  readonly open = computed(
    () =>
      this.sessions()?.find((s) => s.id === this.id()) ??
      (this.setup() ? undefined : this.sessions()?.[0]) ??
      this.listed()[0] ??
      null,
  );
  /** Null until the runs are read: a cell is not called open, nor given files, before it is known what is measured. */
  readonly state = computed(() => {
    const s = this.open();
    const measured = valueOf(this.measured);
    if (!s || !measured) return null;
    const classes = classifyRuns(measured);
    const own = measured.filter(
      (r) =>
        (s.setupIds.length === 0 || s.setupIds.includes(r.setupId)) &&
        (s.title === '' || r.title === s.title) &&
        r.kind !== 'none' &&
        !r.context.norm &&
        (classes.get(r.id)?.counts ?? true),
    );
    return sessionState(s.factors, s.repeats, own, s.createdAt);
  });
  /** What varies, what is held, and what the repeats are good for, in one line. */
  readonly terms = computed(() => {
    const s = this.open();
    if (!s) return '';
    const varies = s.factors
      .map((f) => `${FACTS[f.dimension].toLowerCase()} (${f.levels.join(', ')})`)
      .join('; ');
    return `${s.title ? `${s.title}. ` : ''}Varies: ${varies}. Everything else is held. ${pluralize(s.repeats, 'repeat')} a cell tell ${s.percent} % apart.`;
  });
  readonly notSaid = computed(() => {
    const list = this.state()?.notSaid ?? [];
    return list.length === 0
      ? ''
      : `Nobody said: ${list.map((f) => FACTS[f].toLowerCase()).join(', ')}. Whether it was held is not known.`;
  });
  readonly left = computed(() => this.state()?.cells.reduce((n, c) => n + c.left, 0) ?? 0);
  /** Runs of the session that are measured, of how many, and in %. */
  readonly progress = computed(() => {
    const of = (this.state()?.cells.length ?? 0) * (this.open()?.repeats ?? 0);
    const done = of - this.left();
    return { done, of, percent: of === 0 ? 0 : (100 * done) / of };
  });
  /** Where a phone goes on with the session; empty where only this machine reaches the server. */
  readonly phone = computed(() => {
    const { hostname, origin } = this.#document.location;
    const own = /^(localhost|127\.|\[::1\])/.test(hostname);
    return own ? '' : `${origin}/compare/sessions?id=${this.open()?.id ?? ''}`;
  });
  readonly places = computed(() => {
    const own = this.open()?.setupIds ?? [];
    return own.length > 0 ? this.setups().filter((s) => own.includes(s.id)) : this.setups();
  });
  readonly sessionMeta = computed<FieldMeta>(() => ({
    label: 'Session',
    input: 'choice',
    options: this.listed().map((s) => ({ value: s.id, label: `${s.name}, ${day(s.createdAt)}` })),
  }));
  readonly placeMeta = computed<FieldMeta>(() => ({
    label: 'Measured on',
    input: 'choice',
    options: this.places().map((p) => ({ value: p.id, label: p.name })),
  }));
  readonly cellColumns: readonly ShortColumn<CellRow>[] = [
    { key: 'name', name: 'Cell, in order', text: (c) => c.name },
    { key: 'change', name: 'Change before it', text: (c) => c.change },
    { key: 'measured', name: 'Measured', figure: true, text: (c) => c.measured },
    { key: 'do', name: 'Actions', silent: true },
  ];
  /** Cells in their order, and the first once more at the end. */
  readonly cellRows = computed((): readonly CellRow[] => {
    const st = this.state();
    const s = this.open();
    if (!st || !s) return [];
    const cells = st.cells.map((c, index) => ({
      index,
      name: c.name,
      change: index === 0 ? 'begin here' : this.change(this.firstOf(index).change, c.levels),
      measured: `${c.runs.length} of ${s.repeats}`,
    }));
    const first = st.cells[0];
    if (!first || st.cells.length < 2) return cells;
    const again = {
      index: null,
      name: `${first.name}, once more`,
      change: `${this.change(this.backChange(), first.levels)}: has anything drifted?`,
      measured: st.backDone ? 'done' : 'to do',
    };
    return [...cells, again];
  });
  readonly isNext = (c: CellRow): boolean =>
    c.index !== null && c.index === (this.state()?.next ?? null);
  readonly place = signal('');
  readonly placeNow = computed(() => this.place() || this.places()[0]?.id || '');
  readonly sentence = computed(() => {
    const list = this.sessions();
    const s = this.open();
    const st = this.state();
    if (!list)
      return this.list.error()
        ? 'The sessions could not be read; 0 are shown.'
        : 'Reading the sessions …';
    if (s && !st)
      return this.measured.error()
        ? `“${s.name}”: what is measured could not be read.`
        : `“${s.name}”: reading what is measured …`;
    if (!s || !st)
      return 'No session yet: 0 planned. Ask a question, and the runs it takes are put in order.';
    const next = st.next === null ? null : st.cells[st.next];
    if (next)
      return `Next: ${next.name}, ${pluralize(next.left, 'run')} of ${s.repeats}. ${pluralize(this.left(), 'run')} left in “${s.name}”.`;
    return `“${s.name}”: all ${pluralize(st.cells.length, 'cell')} measured. ${st.notHeld.length === 0 ? 'What should be held was held.' : `Not held: ${st.notHeld.map((n) => FACTS[n.fact].toLowerCase()).join(', ')}.`}`;
  });
  /** Where the measured runs stand side by side. */
  readonly compareQuery = computed(() => {
    const s = this.open();
    const st = this.state();
    const ids = st?.cells.flatMap((c) => c.runs) ?? [];
    return {
      of: ids.join(','),
      columns: s?.factors[0]?.dimension ?? null,
      rows: s?.factors[1]?.dimension ?? 'title',
    };
  });

  constructor() {
    // Runs that another device adds meanwhile show without being asked for.
    interval(READ_AGAIN_MS)
      .pipe(
        filter(() => !this.#document.hidden && this.open() !== null && this.left() > 0),
        takeUntilDestroyed(),
      )
      .subscribe(() => this.measured.reload());
  }

  plan(body: SessionBody): void {
    this.#acts.run(this.#data.addSession(body), {
      failed: 'Not planned.',
      then: (sessions) => {
        this.list.set(sessions);
        this.planning.set(false);
        this.show(body.id);
      },
    });
  }

  show(id: string): void {
    void this.#router.navigate([], { queryParams: { id }, queryParamsHandling: 'merge' });
  }

  drop(s: SessionEntry): void {
    this.#acts.run(this.#data.dropSession(s.id), {
      done: 'Plan removed; its runs stay.',
      failed: 'Not removed.',
      then: (sessions) => {
        this.list.set(sessions);
        this.show('');
      },
    });
  }

  change(dimensions: readonly Dimension[], levels: readonly string[]): string {
    return dimensions
      .map((d) => {
        const i = this.open()?.factors.findIndex((f) => f.dimension === d) ?? -1;
        return `${FACTS[d]} to ${levels[i] ?? ''}`;
      })
      .join(', ');
  }

  /** The step that begins a cell. */
  firstOf(cell: number): ExperimentRun {
    const levels = this.state()?.cells[cell]?.levels ?? [];
    return this.state()?.plan.steps.find((s) => s.cell.join() === levels.join()) as ExperimentRun;
  }

  backChange(): readonly Dimension[] {
    return this.state()?.plan.steps.at(-1)?.change ?? [];
  }

  /** The page where files of a cell are added. */
  addQuery(cell: number | null) {
    return { add: 'files', session: this.open()?.id ?? null, cell };
  }

  /** Files dropped here go to the cell that is next; there each can be moved to another. */
  take(files: readonly File[]): void {
    if (!this.placeNow()) return;
    this.#dropped.put(files);
    void this.#router.navigate(['/setups', this.placeNow(), 'runs'], {
      queryParams: this.addQuery(this.state()?.next ?? 0),
    });
  }
}
