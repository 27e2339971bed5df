import type { Sensor } from '../capture/types';
import { repeatKey, type RunFacts } from './facts';
import type { RunContext, RunKind, RunSettings } from '../schema';
import type { FrameStats } from '../statistics/summary';
import { pixelsOf } from '../resolutions';
import type { RigFacts } from '../rig';

/** What a sensor showed over a run, its cut left out: mean, the value 95 of 100 stay below, and the most. */
export interface SensorSeen {
  readonly mean: number;
  readonly p95: number;
  readonly most: number;
}
export type SensorsSeen = Readonly<Partial<Record<Sensor, SensorSeen>>>;

/** A run as the frame model reads it. */
export interface RunSeen {
  readonly id: string;
  readonly setupId: string;
  readonly titleId: string;
  readonly title: string;
  readonly kind: RunKind;
  readonly settings: RunSettings;
  readonly context: RunContext;
  readonly facts: RunFacts;
  readonly rig: RigFacts;
  readonly result: { readonly value: number; readonly unit: string } | null;
  readonly stats: FrameStats | null;
  readonly sensors: SensorsSeen | null;
  readonly happenedAt: string;
}

/** Runs that are repeats of one another. */
export interface RunGroup {
  readonly key: string;
  readonly first: RunSeen;
  readonly runs: readonly RunSeen[];
  /** Mean time of a frame, ms, of each run. */
  readonly ms: readonly number[];
  readonly pixels: number;
  readonly panel: boolean;
  /** A limit held the frames: they tell nothing of the rig. */
  readonly capped: boolean;
  /** Every second frame was made up, so that rates are not those of frames drawn. */
  readonly generated: boolean;
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

/** Where nobody said, frames are taken as drawn: `missingOf` asks. */
export const isGenerated = (s: RunSettings) => !/^(|off|none|no)$/i.test(s.generation.trim());
const isCapped = (r: RunSeen) => (r.stats?.cap ?? null) !== null;

/**
 * Groups of repeats: runs with a frame time and a resolution, in the order they come.
 * @param runs runs of any setups and titles; not modified
 * @returns groups of runs that are repeats of one another
 */
export function groupRuns(runs: readonly RunSeen[]): RunGroup[] {
  const byKey = new Map<string, RunSeen[]>();
  for (const r of runs) {
    if (meanMsOf(r) === null || pixelsOf(r.settings.resolution) === null) continue;
    const key = [r.setupId, r.titleId, r.rig.slot ? r.rig.host : '', repeatKey(r.facts)].join(
      '\u0001',
    );
    byKey.set(key, [...(byKey.get(key) ?? []), r]);
  }
  return [...byKey].map(([key, list]) => {
    const first = list[0] as RunSeen;
    return {
      key,
      first,
      runs: list,
      ms: list.map((r) => meanMsOf(r) as number),
      pixels: pixelsOf(first.settings.resolution) as number,
      panel: first.settings.screenPath === 'panel',
      capped: list.some(isCapped),
      generated: isGenerated(first.settings),
    };
  });
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
