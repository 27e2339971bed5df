import { median, tQuantile } from '../../base';
import { repeatKey, type RunFacts } from '../comparison/facts';
import type { RunContext, RunKind, RunSettings } from '../schema';
import type { SensorsSeen } from '../statistics/sensors-seen';
import type { Slowing } from '../statistics/slowing';
import type { FrameStats } from '../statistics/summary';
import { PRIOR_FREEDOM, robustScatter, type Scatter } from './scatter';

/** What a run must tell to be told apart from its repeats. */
export interface RunToClass {
  readonly id: string;
  readonly setupId: string;
  readonly titleId: string;
  readonly kind: RunKind;
  readonly settings: RunSettings;
  readonly context: RunContext;
  readonly facts: RunFacts;
  readonly rig: { readonly host: string; readonly slot: boolean };
  readonly result: { readonly value: number; readonly unit: string } | null;
  readonly stats: FrameStats | null;
  readonly sensors: SensorsSeen | null;
}

/** A run that lies far from its repeats. */
export interface Outlier {
  /** Its speed over the median of its repeats: 0.7 is 30 % slower. */
  readonly of: number;
  /** Distance of the logarithms in standard deviations of the title's scatter. */
  readonly z: number;
  readonly scatter: Scatter;
}

/** Repeats that differ by more than repeats of their title do. */
export interface WideSpread {
  /** Slowest and fastest that count, in the unit of the runs. */
  readonly lo: number;
  readonly hi: number;
  /** Fastest over slowest that chance shows in 1 of 100 such groups. */
  readonly usual: number;
  readonly scatter: Scatter;
}

/** What a run is beside its figures. */
export interface RunClass {
  /** Ids of its repeats, itself among them. */
  readonly repeats: readonly string[];
  /** The card stood in a desktop slot: it says nothing of the link. */
  readonly slot: boolean;
  readonly deviceSet: RunSettings['deviceSet'];
  /** Frames were generated between those drawn. */
  readonly generated: boolean;
  /** A limit, frames/s, that held most of its repeats. */
  readonly capFps: number | null;
  /** It looks held to this rate, frames/s, and most of its repeats do not. */
  readonly heldAlone: number | null;
  readonly outlier: Outlier | null;
  /** It got slower as it ran, and a clock fell with it. */
  readonly throttled: Throttled | null;
  /** Its repeats differ too much to be of the same settings. */
  readonly spread: WideSpread | null;
  /** It counts among its repeats. */
  readonly counts: boolean;
}

/** A run that got slower while a clock fell: heat or a power limit. */
export interface Throttled extends Slowing {
  readonly sensor: 'card-mhz' | 'cpu-mhz';
  /** Clock of its last third over that of its first. */
  readonly clock: number;
}

/** Two-sided chance at which a run is taken for an outlier, and repeats for unlike. */
const OUTLIER_CHANCE = 0.002;
const SPREAD_CHANCE = 0.01;
/** A clock that fell to less than this share fell with the frames (judgement). */
const CLOCK_FELL = 0.95;
/** Fewer repeats than this show which one is off by nothing but a guess. */
const LEAST_FOR_OUTLIER = 3;

/**
 * Key of the runs that are repeats of one another: same setup, title, kind of run and facts.
 * @param r a run
 * @returns the key
 */
export function repeatsKey(
  r: Omit<RunToClass, 'stats' | 'sensors' | 'result' | 'settings'>,
): string {
  const slot = r.rig.slot ? `slot ${r.rig.host}` : '';
  return [r.setupId, r.titleId, r.kind, slot, repeatKey(r.facts)].join('\u0001');
}

/**
 * The speed a run is known by: frames/s, points, or one over the time it took.
 * @param r a run
 * @returns above 0; null for a run that has none
 */
export function speedOf(r: Pick<RunToClass, 'kind' | 'stats' | 'result'>): number | null {
  if (r.kind === 'frames') return r.stats?.averageFps ?? null;
  if (!r.result || !(r.result.value > 0)) return null;
  return r.kind === 'time' ? 1 / r.result.value : r.kind === 'score' ? r.result.value : null;
}

/** Where nobody said, frames are taken as drawn: `missingOf` asks. */
export const isGenerated = (s: Pick<RunSettings, 'generation'>) =>
  !/^(|off|none|no)$/i.test(s.generation.trim());

const heldFps = (r: RunToClass) => r.stats?.cap?.fps ?? null;

/** The rate most of the repeats are held to; where exactly half are, a limit that was set decides. */
function capOfMost(runs: readonly RunToClass[]): number | null {
  const withFrames = runs.filter((r) => r.stats !== null);
  const held = withFrames.flatMap((r) => heldFps(r) ?? []).sort((a, b) => a - b);
  const asked = runs.some((r) => (r.settings.capFps ?? 0) > 0);
  const enough =
    held.length * 2 > withFrames.length ||
    (asked && held.length > 0 && held.length * 2 === withFrames.length);
  return enough ? (held[held.length >> 1] as number) : null;
}

function throttledOf(r: RunToClass): Throttled | null {
  const slowing = r.stats?.slowing;
  if (!slowing) return null;
  for (const sensor of ['card-mhz', 'cpu-mhz'] as const) {
    const thirds = r.sensors?.[sensor]?.thirds;
    if (thirds && thirds.last < CLOCK_FELL * thirds.first)
      return { ...slowing, sensor, clock: thirds.last / thirds.first };
  }
  return null;
}

/** Outliers among the speeds of repeats: always fewer than half of them. */
function outliersOf(
  speeds: ReadonlyMap<string, number>,
  scatter: Scatter,
): ReadonlyMap<string, Outlier> {
  if (speeds.size < LEAST_FOR_OUTLIER) return new Map();
  const center = median([...speeds.values()].map(Math.log));
  const limit = tQuantile(OUTLIER_CHANCE / 2, PRIOR_FREEDOM + scatter.freedom);
  const far = [...speeds]
    .map(([id, v]) => ({ id, off: Math.log(v) - center }))
    .filter(({ off }) => Math.abs(off) / scatter.cv > limit);
  if (far.length * 2 >= speeds.size) return new Map();
  return new Map(
    far.map(({ id, off }) => [id, { of: Math.exp(off), z: Math.abs(off) / scatter.cv, scatter }]),
  );
}

/** Do these speeds differ by more than the scatter explains? The chance is shared among all their pairs (Bonferroni). */
function spreadOf(speeds: readonly number[], scatter: Scatter): WideSpread | null {
  if (speeds.length < 2) return null;
  const pairs = (speeds.length * (speeds.length - 1)) / 2;
  const limit = tQuantile(SPREAD_CHANCE / pairs / 2, PRIOR_FREEDOM + scatter.freedom);
  const lo = Math.min(...speeds);
  const hi = Math.max(...speeds);
  const usual = Math.exp(limit * Math.SQRT2 * scatter.cv);
  return hi / lo > usual ? { lo, hi, usual, scatter } : null;
}

/** What a person said of a run comes before what its figures say. */
function countsOf(r: RunToClass, outlier: Outlier | null): boolean {
  return r.context.counts ? r.context.counts === 'yes' : outlier === null;
}

function classesOfGroup(
  group: readonly RunToClass[],
  others: readonly (readonly RunToClass[])[],
): [string, RunClass][] {
  const speedsOf = (runs: readonly RunToClass[]) => runs.flatMap((r) => speedOf(r) ?? []);
  const counted = group.filter((r) => r.context.counts !== 'no');
  const all = robustScatter([counted, ...others].map(speedsOf));
  const speeds = new Map(
    counted.flatMap((r) => {
      const v = speedOf(r);
      return v === null ? [] : [[r.id, v] as const];
    }),
  );
  const outliers = outliersOf(speeds, all);
  const kept = group.filter((r) => countsOf(r, outliers.get(r.id) ?? null));
  const spread = spreadOf(speedsOf(kept), robustScatter(others.map(speedsOf)));
  const inUnit = spread && group[0]?.kind === 'time' ? inverted(spread) : spread;
  const capFps = capOfMost(kept);
  const repeats = group.map((r) => r.id);
  return group.map((r) => {
    const outlier = outliers.get(r.id) ?? null;
    const fps = heldFps(r);
    return [
      r.id,
      {
        repeats,
        slot: r.rig.slot,
        deviceSet: r.settings.deviceSet,
        generated: isGenerated(r.settings),
        capFps,
        heldAlone: capFps === null ? fps : null,
        outlier,
        throttled: throttledOf(r),
        spread: inUnit,
        counts: countsOf(r, outlier),
      },
    ];
  });
}

/** Of times: the fastest is the shortest. */
const inverted = (s: WideSpread): WideSpread => ({ ...s, lo: 1 / s.hi, hi: 1 / s.lo });

/**
 * What each run is beside its figures: taken in a slot, by which graphics, with generated frames, held by a limit (as most of
 * its repeats are), far from its repeats, throttled, unlike its repeats. Everything that draws conclusions from runs asks here.
 * An outlier lies further from the median of its repeats than Student's t gives 2 in 1000 at the scatter of its title on
 * its setup; of two repeats neither is one. Repeats are unlike where two of them differ more than in 1 of 100 such groups
 * at the scatter of the title's other groups.
 * @param runs runs of any setups and titles; repeats of a run must be among them; not modified
 * @returns the class of each run, by its id
 */
export function classifyRuns(runs: readonly RunToClass[]): ReadonlyMap<string, RunClass> {
  const titles = new Map<string, Map<string, RunToClass[]>>();
  for (const r of runs) {
    const title = [r.setupId, r.titleId, r.kind].join('\u0001');
    const groups = titles.get(title) ?? new Map<string, RunToClass[]>();
    const key = repeatsKey(r);
    groups.set(key, [...(groups.get(key) ?? []), r]);
    titles.set(title, groups);
  }
  return new Map(
    [...titles.values()].flatMap((groups) =>
      [...groups].flatMap(([key, list]) =>
        classesOfGroup(
          list,
          [...groups].flatMap(([k, o]) => (k === key ? [] : [o])),
        ),
      ),
    ),
  );
}
