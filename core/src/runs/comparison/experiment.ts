import { minDetectableChange, mean, repeatsNeeded } from '../../base';
import { USUAL_SCATTER } from '../repeats/scatter';
import type { Dimension } from './facts';

export interface Factor {
  readonly dimension: Dimension;
  readonly levels: readonly string[];
  /** Minutes to go from one level to another: what a hand has to do. */
  readonly minutes: number;
}
export interface ExperimentRun {
  /** The level of each factor, in their order. */
  readonly cell: readonly string[];
  /** Which of its repeats this is, from 1. */
  readonly repeat: number;
  /** Factors that change before this step. */
  readonly change: readonly Dimension[];
  /** The first cell once more at the end: has anything drifted meanwhile? */
  readonly back: boolean;
}
export interface Plan {
  readonly steps: readonly ExperimentRun[];
  readonly swaps: number;
  readonly minutes: number;
}

/**
 * Minutes it usually takes to change each thing by hand. Common practice, no published source; a session may say otherwise.
 */
export const SWAP_MINUTES: Readonly<Record<Dimension, number>> = {
  title: 2,
  setup: 15,
  card: 15,
  resolution: 1,
  screenPath: 5,
  link: 15,
  host: 20,
  system: 30,
  driver: 15,
  powerMode: 1,
  lid: 1,
  deviceSet: 1,
  preset: 1,
  upscaling: 1,
  cable: 3,
};

/** All cells so that each differs from the one before in one factor only: the first factor changes least often (reflected order). */
function reflected(levels: readonly (readonly string[])[]): string[][] {
  const [first, ...rest] = levels;
  if (!first) return [[]];
  const inner = reflected(rest);
  return first.flatMap((level, i) =>
    (i % 2 === 0 ? inner : [...inner].reverse()).map((cell) => [level, ...cell]),
  );
}

/**
 * Order in which a session is measured: every cell `repeats` times, hardware swapped as seldom as possible, the first cell
 * once more at the end (A-B-A), so that drift shows. From cell to cell exactly one factor changes, which no order can
 * undercut, and the factor that takes longest only as often as it has levels to reach. Repeats of a cell stay together:
 * a swap takes longer than a repeat. Source: reflected code, F. Gray, US patent 2632058 (1953), here with any number of
 * levels.
 *
 * @param factors factors with their levels and minutes of a change
 * @param repeats runs of each cell, at least 1
 * @returns cells in order, number of runs and minutes
 */
export function planSession(factors: readonly Factor[], repeats: number): Plan {
  const dearFirst = [...factors].sort((a, b) => b.minutes - a.minutes);
  const places = dearFirst.map((f) => factors.indexOf(f));
  const cells = reflected(dearFirst.map((f) => f.levels)).map((cell) =>
    factors.map((_, i) => cell[places.indexOf(i)] as string),
  );
  const start = cells[0] ?? [];
  const order = [
    ...cells.flatMap((cell) =>
      Array.from({ length: repeats }, (_, i) => ({ cell, repeat: i + 1, back: false })),
    ),
    ...(cells.length > 1 ? [{ cell: start, repeat: repeats + 1, back: true }] : []),
  ];
  const steps = order.map((s, i): ExperimentRun => {
    const before = order[i - 1]?.cell;
    return {
      ...s,
      change: before
        ? factors.filter((_, k) => before[k] !== s.cell[k]).map((f) => f.dimension)
        : [],
    };
  });
  const cost = (d: Dimension) => factors.find((f) => f.dimension === d)?.minutes ?? 0;
  return {
    steps,
    swaps: steps.reduce((n, s) => n + s.change.length, 0),
    minutes: steps.reduce((m, s) => m + s.change.reduce((x, d) => x + cost(d), 0), 0),
  };
}

/**
 * Coefficient of variation of repeats, pooled over groups.
 *
 * @param groups repeats of one cell each, any unit, above 0
 * @returns standard deviation as a share of the mean; null without a group of at least two
 * @example scatterOf([[99, 101]]) // => 0.0141
 */
export function scatterOf(groups: readonly (readonly number[])[]): number | null {
  let squares = 0;
  let freedom = 0;
  for (const g of groups) {
    if (g.length < 2) continue;
    const middle = mean(g);
    squares += g.reduce((s, v) => s + (v / middle - 1) ** 2, 0);
    freedom += g.length - 1;
  }
  return freedom === 0 ? null : Math.sqrt(squares / freedom);
}

/** Upper bound on repeats of a cell. */
export const MAX_REPEATS = 50;

/**
 * Repeats of each cell that tell a difference apart.
 *
 * @param percent difference to show, %
 * @param scatter coefficient of variation of a run; null takes `USUAL_SCATTER`
 * @returns repeats, at least 3; null where `MAX_REPEATS` are not enough
 */
export function repeatsFor(percent: number, scatter: number | null): number | null {
  const needed = repeatsNeeded(scatter ?? USUAL_SCATTER, percent / 100, MAX_REPEATS);
  return needed === null ? null : Math.max(3, needed);
}

/**
 * Smallest difference that `MAX_REPEATS` repeats tell apart.
 *
 * @param scatter coefficient of variation of a run; null takes `USUAL_SCATTER`
 * @returns difference as a share, 0.05 is 5 %
 */
export function leastReachable(scatter: number | null): number {
  return minDetectableChange(scatter ?? USUAL_SCATTER, MAX_REPEATS);
}
