import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { ActivatedRoute, Router, RouterLink } from '@angular/router';
import { firstValueFrom } from 'rxjs';
import { v7 } from 'uuid';
import { mean } from '@ruddy/core/base';
import { partName } from '@ruddy/core/chain';
import { figureText } from '@ruddy/core/base/text';
import { type RunContext, settingsOfSetup, unlike } from '@ruddy/core/runs';
import type { Channel, RunEntry, SaidBody, SessionEntry } from '@ruddy/core/runs/contract';
import { linkCostSentence, unlikeText } from '@ruddy/core/runs/text';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { SetupEditor } from '../setups/setup-editor';
import { ComparisonList } from '../setups/comparison-list';
import { Preview } from '../setups/preview';
import { pluralize, day, orEmpty } from '../platform/shared/format';
import { renderWhenIdle } from '../platform/shared/render-when-idle';
import { Keys } from '../platform/shell/keys';
import { AddPanel } from './add-panel';
import { CaptureWork } from './capture-work';
import { FiguresTable } from './figures-table';
import { ForecastSection } from './forecast-section';
import { FrameBars } from './frame-bars';
import { LimitsPanel } from './limits-panel';
import { MonthsSection } from './months-section';
import { OthersSection } from './others-section';
import { RunStore } from './run-store';
import { keepRun } from './run-download';
import { RunFiles } from './run-files';
import { RunForm, type RunDraft, saidOfAll } from './run-form';
import { countedRuns, LETTERS, mainValues, type RunGroup, unitOf } from './run-groups';
import { shownSentence } from './runs-sentence';
import { repeatLines, RepeatsPanel } from './repeats-panel';
import { ScenesPanel } from './scenes-panel';
import { SensorView } from './sensor-view';
import { SpreadView } from './spread-view';
import { TitleSection } from './title-section';
import { runFactsOf } from './run-facts';
import { ModelStore } from './model-store';
import { TitleRuns } from './title-runs';
import { OverheadSection } from './overhead-section';
import { TraceView } from './trace-view';
import { StatedForm } from './stated-form';
import { StatedList } from './stated-list';
import { StatedStore } from './stated-store';
import { TypedPanel } from './typed-panel';
import { Acts } from '../platform/kit/ask';

const VIEWS = {
  trace: 'Trace',
  dots: 'Distribution',
  curve: 'Percentiles',
  sensors: 'Sensors',
  table: 'Figures',
} as const;
type View = keyof typeof VIEWS;
const FOLDED = 6;
/** Runs of one setup: captures in, what they show and hide, one held against another. What is looked at stands in the address. */
@Component({
  imports: [
    AddPanel,
    TypedPanel,
    StatedForm,
    StatedList,
    TraceView,
    SpreadView,
    SensorView,
    FiguresTable,
    FrameBars,
    ScenesPanel,
    RepeatsPanel,
    RunForm,
    LimitsPanel,
    OverheadSection,
    ForecastSection,
    TitleSection,
    MonthsSection,
    OthersSection,
    MatButtonModule,
    MatCheckboxModule,
    RouterLink,
  ],
  providers: [CaptureWork, RunStore, RunFiles, TitleRuns, StatedStore, ModelStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './runs-page.html',
  styleUrl: './runs-page.scss',
})
export class RunsPage {
  readonly #acts = inject(Acts);
  readonly #data = inject(RunsData);
  readonly #router = inject(Router);
  readonly #route = inject(ActivatedRoute);
  readonly #editor = inject(SetupEditor);
  readonly #trial = inject(Preview);
  readonly store = inject(RunStore);
  readonly files = inject(RunFiles);
  readonly stated = inject(StatedStore);
  readonly titleRuns = inject(TitleRuns);
  readonly model = inject(ModelStore);
  readonly comparisonList = inject(ComparisonList);
  /** From the address: runs that are drawn, the view, the panel, the session and its cell. */
  readonly show = input('', { transform: orEmpty });
  readonly view = input('', { transform: orEmpty });
  readonly add = input('', { transform: orEmpty });
  readonly session = input('', { transform: orEmpty });
  readonly cell = input('', { transform: orEmpty });
  readonly zoom = input('', { transform: orEmpty });

  readonly views = Object.entries(VIEWS) as [View, string][];
  readonly letters = LETTERS.length;
  readonly counted = pluralize;
  readonly day = day;
  readonly all = signal(false);
  readonly said = signal<string | null>(null);
  /** Runs that were just stored together. */
  readonly saved = signal<readonly string[]>([]);
  readonly problem = signal<string | null>(null);
  readonly editing = signal<RunDraft | null>(null);
  readonly fieldProblem = signal<string | null>(null);
  readonly sessions = signal<readonly SessionEntry[] | null>(null);
  readonly years = signal<ReadonlyMap<string, number>>(new Map());

  readonly setup = computed(() => this.#editor.fields());
  readonly ownCard = computed(() => partName(this.#trial.shown()?.chain.card));
  readonly setupId = computed(() => this.#editor.stored()?.id);
  readonly viewNow = computed((): View => (this.view() in VIEWS ? (this.view() as View) : 'trace'));
  readonly planned = computed(() => this.sessions()?.find((s) => s.id === this.session()) ?? null);
  /** The cell that files belong to; none of a session that does not exist. */
  readonly cellNow = computed(() => {
    const gone = this.sessions() !== null && this.planned() === null;
    return !gone && /^\d+$/.test(this.cell()) ? Number(this.cell()) : null;
  });
  readonly groups = computed(() => this.store.groups());
  readonly listed = computed(() =>
    this.all()
      ? this.groups()
      : this.groups().filter((g, i) => i < FOLDED || this.letterOf(g) !== null),
  );
  readonly shown = computed(() => this.store.shown());
  readonly first = computed(() => this.shown()[0] ?? null);
  /** What stands under the picture and what limits: once those are there, or cannot be. */
  readonly below = renderWhenIdle(() => {
    const run = this.first()?.run;
    const drawn =
      run?.kind !== 'frames' || this.store.opened().has(run.id) || this.store.problem() !== null;
    const weighed =
      this.titleRuns.problem() !== null || (this.titleRuns.all() !== null && !this.model.working());
    return run !== undefined && drawn && weighed;
  }, 6);
  readonly lanes = computed(() => this.store.lanes().get(this.first()?.run.id ?? '') ?? []);
  readonly fileName = computed(() => (this.setup()?.name ?? 'runs').replace(/[^A-Za-z0-9]+/g, '-'));
  readonly preset = computed(() => {
    const setup = this.setup();
    return setup ? settingsOfSetup(setup.settings, setup.docked.docked.powerMode) : null;
  });
  readonly wallW = computed(() => {
    const walls =
      this.#trial.shown()?.evaluation.predicted.body.power.feeders.flatMap((f) => f.wall ?? []) ??
      [];
    if (walls.length === 0) return null;
    const lo = walls.reduce((a, w) => a + w.lo, 0);
    const hi = walls.reduce((a, w) => a + w.hi, 0);
    return lo === hi ? figureText(lo) : `${figureText(lo)} to ${figureText(hi)}`;
  });
  /** How the first of the runs was made, fact by fact. */
  readonly told = computed(() => runFactsOf(this.first()?.run ?? null));
  /** There is something to tell of the repeats of the first. */
  readonly repeatsTold = computed(() => {
    const s = this.first();
    if (!s) return false;
    const { runs, classes } = s.group;
    return (
      repeatLines(runs, classes).length > 0 || (classes.get(s.run.id)?.spread ?? null) !== null
    );
  });
  /** What the other runs that are drawn are unlike the first in, each on a line. */
  readonly unlike = computed(() => {
    const [a, ...others] = this.shown();
    return a
      ? others.map((o) => ({
          letter: o.letter,
          list: unlike(a.run.facts, o.run.facts, []).map(unlikeText),
        }))
      : [];
  });
  readonly barOverhead = computed(() => {
    const overhead = this.model.overhead();
    return overhead && { link: overhead.ms.mid, back: overhead.panelMs?.mid ?? 0 };
  });
  readonly sentence = computed(() => {
    const runs = this.store.runs();
    if (!runs)
      return this.store.problem()
        ? 'The runs could not be read; 0 are shown.'
        : 'Reading the runs …';
    const overhead = this.model.overhead();
    const cell = this.titleRuns.group();
    const alone = this.shown().length === 1;
    // Of a single run nearly all of it is what titles usually cost: what was measured is told first then.
    if (overhead && cell && alone && this.titleRuns.measured()) {
      const fps = 1000 / mean(cell.ms);
      return linkCostSentence(overhead, { fps, resolution: cell.first.settings.resolution });
    }
    return shownSentence(this.shown(), runs.length, this.groups().length);
  });

  constructor() {
    effect(() => {
      const id = this.setupId();
      if (id)
        untracked(() => {
          void this.store.load(id);
          this.stated.load(id);
        });
    });
    effect(() => {
      const asked = this.show();
      this.store.runs();
      untracked(() => this.#choose(asked));
    });
    effect(() => {
      const view = this.viewNow();
      const first = this.first();
      if (view === 'sensors' && first) untracked(() => void this.store.openLanes(first.run));
    });
    this.readYears();
    this.#acts.read(this.#data.sessions(), {
      line: this.problem,
      failed: 'Sessions:',
      then: (list) => this.sessions.set(list),
    });
    this.#bindKeys(inject(Keys));
  }

  /** Shows the runs of the address; without any, the first that has frames. */
  #choose(asked: string): void {
    const runs = this.store.runs();
    const known = asked.split(',').filter((id) => runs?.some((r) => r.id === id));
    const groups = this.groups();
    const first = groups.find((g) => g.runs[0]?.kind === 'frames') ?? groups[0];
    const start = asked === '' ? first?.runs[0]?.id : undefined;
    this.store.chosen.set(known.length > 0 ? known.slice(0, LETTERS.length) : start ? [start] : []);
    for (const s of this.store.shown()) void this.store.open(s.run);
  }

  readYears(): void {
    this.#acts.read(this.#data.profiles(), {
      line: this.problem,
      failed: 'Titles:',
      then: (list) => {
        const known = list.flatMap((p) => (p.year === null ? [] : [[p.id, p.year] as const]));
        this.years.set(new Map(known));
      },
    });
  }

  #bindKeys(keys: Keys): void {
    keys.bind([
      { key: 'a', what: 'Add captures', run: () => this.go({ add: 'files' }) },
      {
        key: 'x',
        what: 'Add the shown runs to the comparison, or remove them',
        run: () => this.first() && this.aside(this.first()!.group),
      },
      {
        key: 'v',
        what: 'Compare what is in the comparison list',
        run: () => void this.#router.navigateByUrl('/compare/runs'),
      },
      { key: 't', what: 'Figures as a table', run: () => this.go({ view: 'table' }) },
      ...this.views.slice(0, 4).map(([id, name], i) => ({
        key: String(i + 1),
        what: name,
        run: () => this.go({ view: id }),
      })),
    ]);
  }

  go(queryParams: Record<string, string | null>, replaceUrl = false): void {
    void this.#router.navigate([], {
      relativeTo: this.#route,
      queryParams,
      queryParamsHandling: 'merge',
      replaceUrl,
    });
  }

  readonly letterOf = (g: RunGroup): string | null =>
    this.shown().find((s) => s.group.key === g.key)?.letter ?? null;

  /** The newest run of a group that counts. */
  #newest(g: RunGroup): string {
    return (countedRuns(g)[0] ?? g.runs[0]!).id;
  }

  /** Look at a group alone; where it is drawn over others, it comes first of them. */
  look(g: RunGroup): void {
    const drawn = this.shown();
    const own = drawn.find((s) => s.group.key === g.key);
    const others = drawn.filter((s) => s !== own).map((s) => s.run.id);
    const show = own && others.length > 0 ? [own.run.id, ...others] : [this.#newest(g)];
    this.go({ show: show.join(',') });
  }

  /** Draw a group over what is looked at, or no longer. */
  overlay(g: RunGroup, on: boolean): void {
    const others = this.shown().filter((s) => s.group.key !== g.key);
    const ids = others.map((s) => s.run.id);
    this.go({ show: (on ? [...ids, this.#newest(g)] : ids).join(',') || null });
  }

  /** Draw another repeat of a group that is looked at. */
  repeat(g: RunGroup, run: RunEntry): void {
    this.go({
      show: this.shown()
        .map((s) => (s.group.key === g.key ? run.id : s.run.id))
        .join(','),
    });
  }

  value(g: RunGroup): string {
    const first = g.runs[0]!;
    if (first.kind === 'none') return 'could not be run';
    const left = g.runs.length - countedRuns(g).length;
    return `${figureText(mean(mainValues(g)))} ${unitOf(first)}${left > 0 ? `, ${left} left out` : ''}`;
  }

  countsWord(counts: boolean | null): RunContext['counts'] {
    return counts === null ? null : counts ? 'yes' : 'no';
  }

  isCompared(g: RunGroup): boolean {
    return g.runs.every((r) => this.comparisonList.runs.has(r.id));
  }

  aside(g: RunGroup): void {
    if (this.isCompared(g)) this.comparisonList.runs.remove(g.runs.map((r) => r.id));
    else
      this.comparisonList.runs.add(
        g.runs.map((r) => ({ id: r.id, name: `${g.title}, ${g.label}` })),
      );
  }

  stored(n: number, ids: readonly string[] = []): void {
    this.saved.set(ids);
    this.said.set(`${pluralize(n, 'run')} saved.`);
    void this.store.reload();
  }

  edit(r: RunEntry): void {
    const { settings, context, saw } = r;
    this.editing.set(this.editing() ? null : { settings, context, saw });
  }

  /** Say something more of every repeat of the run that is looked at, or of it alone. */
  async say(runs: readonly RunEntry[], what: Omit<SaidBody, 'id'>): Promise<void> {
    this.problem.set(null);
    try {
      for (const r of runs)
        this.store.replace(await firstValueFrom(this.#data.say(r.id, { id: v7(), ...what })));
      this.said.set(`Kept for ${pluralize(runs.length, 'run')}.`);
    } catch (e) {
      this.problem.set(`Not kept: ${(e as ApiError).message}`);
    }
  }

  async keep(group: RunGroup, run: RunEntry): Promise<void> {
    const d = this.editing();
    if (!d || this.fieldProblem()) return;
    await this.say(group.runs, saidOfAll(d));
    if (d.saw !== run.saw) await this.say([run], { saw: d.saw });
    if (!this.problem()) this.editing.set(null);
  }

  moved(run: RunEntry, starts: Partial<Record<Channel, number>>): void {
    this.store.lanes.update((m) =>
      new Map(m).set(
        run.id,
        (m.get(run.id) ?? []).map((l) => ({ ...l, t0Ms: starts[l.sensor] ?? l.t0Ms })),
      ),
    );
    void this.say([run], { starts });
  }

  file(run: RunEntry, format: 'csv' | 'json'): void {
    const name = `${this.fileName()}-${run.title.replace(/[^A-Za-z0-9]+/g, '-')}-${run.happenedAt.slice(0, 10)}`;
    void keepRun(this.store, run, format, name);
  }
}
