import {
  classifyRuns,
  type Fact,
  FACTS,
  type GridRun,
  type Measure,
  missingOf,
  type RunClass,
  repeatsKey,
} from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';

/** Runs that are repeats of one another, newest first, under a name that tells them from the others of the list. */
export interface RunGroup {
  readonly key: string;
  readonly runs: readonly RunEntry[];
  readonly title: string;
  /** What tells it from the other groups of its title. */
  readonly label: string;
  /** What each run is among its repeats, by its id. */
  readonly classes: ReadonlyMap<string, RunClass>;
}

/** What a list names runs by, the first that differ. */
const NAMING: readonly Fact[] = [
  'resolution',
  'screenPath',
  'card',
  'deviceSet',
  'lid',
  'powerMode',
  'driver',
  'preset',
  'upscaling',
  'generation',
  'cap',
  'rayTracing',
  'cable',
  'link',
  'host',
  'build',
  'dockFirmware',
];

/** The groups of a list. Its classes come from every run that is known of its titles, which may be more than the list. */
export function groupRuns(
  runs: readonly RunEntry[],
  classes: ReadonlyMap<string, RunClass> = classifyRuns(runs),
): RunGroup[] {
  const byKey = new Map<string, RunEntry[]>();
  for (const r of runs) {
    const key = repeatsKey(r);
    byKey.set(key, [...(byKey.get(key) ?? []), r]);
  }
  const groups = [...byKey].map(([key, list]) => ({
    key,
    runs: list,
    title: list[0]?.title ?? '',
  }));
  return groups.map((g) => {
    const first = g.runs[0] as RunEntry;
    const others = groups
      .filter((o) => o.title === g.title && o !== g)
      .map((o) => o.runs[0] as RunEntry);
    const telling = NAMING.filter((f) => others.some((o) => o.facts[f] !== first.facts[f]));
    const shown = telling.length > 0 ? telling : NAMING.slice(0, 2);
    const words = shown
      .slice(0, 3)
      .map((f) => first.facts[f] || `${FACTS[f].toLowerCase()} not set`);
    const norm = first.context.norm ? ['in a desktop slot'] : [];
    return { ...g, classes, label: [...norm, ...words.filter((w) => w !== '')].join(', ') };
  });
}

/** The values a run has for each measure. */
export function valuesOf(r: RunEntry): Partial<Record<Measure, number>> {
  if (r.kind === 'score' && r.result)
    return {
      score: r.result.value,
      ...(r.result.unit === 'frames/s' && { average: r.result.value }),
    };
  if (r.kind === 'time' && r.result) return { time: r.result.value };
  if (!r.stats) return {};
  const { averageFps, low1, minSecondFps } = r.stats;
  return {
    average: averageFps,
    low: low1.at,
    lowFrames: low1.frames,
    ...(minSecondFps !== null && { second: minSecondFps }),
  };
}

/** The value a run is known by: average, score or time; null for one that has none. */
export function mainValue(r: RunEntry): number | null {
  const { average, time, score } = valuesOf(r);
  return average ?? time ?? score ?? null;
}

/** The unit of the value a run is known by. */
export function unitOf(r: Pick<RunEntry, 'kind' | 'result'>): string {
  return r.kind === 'frames' ? 'frames/s' : (r.result?.unit ?? '');
}

/** The runs of a group that count. */
export function countedRuns(g: Pick<RunGroup, 'runs' | 'classes'>): RunEntry[] {
  return g.runs.filter((r) => g.classes.get(r.id)?.counts ?? true);
}

/** The same of each run of a group that counts and has one. */
export function mainValues(g: Pick<RunGroup, 'runs' | 'classes'>): number[] {
  return countedRuns(g).flatMap((r) => mainValue(r) ?? []);
}

/** A run as a comparison takes it. */
export function gridRun(r: RunEntry, classes: ReadonlyMap<string, RunClass>): GridRun {
  return {
    id: r.id,
    kind: r.kind,
    facts: r.facts,
    values: valuesOf(r),
    reason: r.reason,
    norm: r.context.norm,
    seconds: r.stats?.seconds ?? null,
    class: classes.get(r.id) ?? null,
    missing: missingOf(r.kind, r.settings, r.context),
  };
}

export const LETTERS = ['A', 'B', 'C', 'D', 'E', 'F'] as const;
/** How each of six looks: colour, dash and marker, besides its letter. */
export const LOOKS = [
  { color: 'var(--series-a)', dash: '', mark: 'M-4 0a4 4 0 1 0 8 0a4 4 0 1 0-8 0' },
  { color: 'var(--series-b)', dash: '8 4', mark: 'M-4-4h8v8h-8z' },
  { color: 'var(--series-c)', dash: '2 3', mark: 'M0-5 5 4H-5z' },
  { color: 'var(--series-d)', dash: '10 3 2 3', mark: 'M0-5 5 0 0 5-5 0z' },
  { color: 'var(--series-e)', dash: '4 4', mark: 'M-4-4 4 4M-4 4 4-4' },
  { color: 'var(--series-f)', dash: '14 4', mark: 'M-5-2h10v4h-10z' },
] as const;
