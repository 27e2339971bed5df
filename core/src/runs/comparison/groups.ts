import {
  classifyRuns,
  repeatsKey,
  type RunClass,
  type RunToClass,
  type Throttled,
} from '../repeats/classify';
import type { RunSettings } from '../schema';
import { pixelsOf } from '../resolutions';
import type { RigFacts } from '../rig';

/** A run as the frame model reads it. */
export interface RunSeen extends RunToClass {
  readonly title: string;
  readonly rig: RigFacts;
  readonly happenedAt: string;
}

/** Runs that are repeats of one another. */
export interface RunGroup {
  readonly key: string;
  readonly first: RunSeen;
  /** Those that count. */
  readonly runs: readonly RunSeen[];
  /** Those that do not: far from the others, or left out by a person. */
  readonly apart: readonly RunSeen[];
  /** Mean time of a frame, ms, of each run. */
  readonly ms: readonly number[];
  readonly pixels: number;
  readonly panel: boolean;
  /** A limit, frames/s, that held most of them: they tell nothing of the rig. */
  readonly capFps: number | null;
  /** Every second frame was made up, so that rates are not those of frames drawn. */
  readonly generated: boolean;
  readonly throttled: Throttled | null;
}

/**
 * Mean time of a frame: of a capture, or of a score in frames/s.
 * @param r a run
 * @returns ms; null for anything else
 */
export function meanMsOf(r: Pick<RunSeen, 'kind' | 'stats' | 'result'>): number | null {
  if (r.kind === 'frames') return r.stats?.meanMs ?? null;
  return r.kind === 'score' && r.result?.unit === 'frames/s' ? 1000 / r.result.value : null;
}

/**
 * Groups of repeats: runs with a frame time and a resolution, in the order they come. A group that a person left out whole is none.
 * @param runs runs of any setups and titles; not modified
 * @param classes what each run is, by its id
 * @returns groups of runs that are repeats of one another
 */
export function groupRuns(
  runs: readonly RunSeen[],
  classes: ReadonlyMap<string, RunClass> = classifyRuns(runs),
): RunGroup[] {
  const byKey = new Map<string, RunSeen[]>();
  for (const r of runs) {
    if (meanMsOf(r) === null || pixelsOf(r.settings.resolution) === null) continue;
    const key = repeatsKey(r);
    byKey.set(key, [...(byKey.get(key) ?? []), r]);
  }
  return [...byKey].flatMap(([key, list]) => groupOf(key, list, classes) ?? []);
}

function groupOf(
  key: string,
  list: readonly RunSeen[],
  classes: ReadonlyMap<string, RunClass>,
): RunGroup | null {
  const counts = (r: RunSeen) => classes.get(r.id)?.counts ?? true;
  const runs = list.filter(counts);
  const first = runs[0];
  if (!first) return null;
  const its = classes.get(first.id);
  return {
    key,
    first,
    runs,
    apart: list.filter((r) => !counts(r)),
    ms: runs.map((r) => meanMsOf(r) as number),
    pixels: pixelsOf(first.settings.resolution) as number,
    panel: first.settings.screenPath === 'panel',
    capFps: its?.capFps ?? null,
    generated: its?.generated ?? false,
    throttled: runs.flatMap((r) => classes.get(r.id)?.throttled ?? [])[0] ?? null,
  };
}

/** What must be the same for two groups to be of the same scene, whatever they ran on. */
const SCENE = ['preset', 'upscaling', 'generation', 'rayTracing'] as const;

/**
 * The look of a title: its quality settings.
 * @param s settings of a run
 * @returns a text that is the same for runs that look alike
 */
export function lookOf(s: RunSettings): string {
  return SCENE.map((k) => s[k] ?? '').join('\u0001');
}

/**
 * Do two groups show the same scene: title and everything that makes its picture?
 * @param a a group
 * @param b another
 * @returns true where they differ only in what they ran on
 */
export function sameScene(a: RunGroup, b: RunGroup): boolean {
  return (
    a.first.titleId === b.first.titleId &&
    a.pixels === b.pixels &&
    lookOf(a.first.settings) === lookOf(b.first.settings)
  );
}
