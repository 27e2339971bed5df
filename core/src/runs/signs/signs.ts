import { mean, middleOf } from '../../base';
import { lookOf, type RunGroup } from '../comparison/groups';
import { otherSizes, sensorMean } from './observed';

/** One sign in the runs, with its number. The texts are made of code and figures. */
export type RunSign =
  | { readonly code: 'memory-clock'; readonly mhz: number; readonly usual: number }
  | {
      readonly code: 'flat-sizes';
      readonly ratio: number;
      readonly pixels: number;
      readonly from: string;
      readonly to: string;
    }
  | {
      readonly code: 'grows';
      readonly ratio: number;
      readonly pixels: number;
      readonly from: string;
      readonly to: string;
    }
  | { readonly code: 'flat-cards'; readonly ratio: number; readonly other: string }
  | {
      readonly code: 'lows-flat';
      readonly averages: number;
      readonly lows: number;
      readonly other: string;
    }
  | { readonly code: 'card-load'; readonly percent: number; readonly low: boolean }
  | {
      readonly code: 'card-watts';
      readonly watts: number;
      readonly of: number;
      readonly low: boolean;
    }
  | { readonly code: 'processor-hot'; readonly c: number };

/** Frames are flat when they differ by less than this while the picture grows by at least that. Common practice, no published source. */
export const FLAT = { frames: 1.05, pixels: 1.7 } as const;
/** A card waits for something below these. Common practice, no published source. */
const WAITS = { loadPercent: 90, wattsShare: 0.75 } as const;
/** A memory clock below this share of the usual one is a power state. */
const MEMORY_CLOCK = 0.7;
/** From here on a processor of a thin host holds itself back (common practice, no published source). */
const HOT_C = 95;

/** The memory clock a card usually runs at: as its part states it, or the highest seen of it. */
function usualMemory(c: RunGroup, groups: readonly RunGroup[]): number | null {
  const stated = c.first.rig.memoryMHz;
  if (stated) return middleOf(stated);
  const seen = groups
    .filter((o) => o.first.rig.card === c.first.rig.card)
    .flatMap((o) => sensorMean(o, 'memory-mhz') ?? []);
  return seen.length > 0 ? Math.max(...seen) : null;
}

/**
 * The memory clock of a group where it is held below the usual one.
 * @param c the group
 * @param groups every group that is known
 * @returns MHz seen and usual; null where it is not held, or nobody knows
 */
export function heldMemory(
  c: RunGroup,
  groups: readonly RunGroup[],
): { mhz: number; usual: number } | null {
  const mhz = sensorMean(c, 'memory-mhz');
  const usual = usualMemory(c, groups);
  return mhz !== null && usual !== null && mhz < MEMORY_CLOCK * usual ? { mhz, usual } : null;
}

/**
 * Groups of the same scene on the same host and link with another card.
 * @param c the group
 * @param groups every group that is known
 * @returns groups
 */
export function otherCards(c: RunGroup, groups: readonly RunGroup[]): RunGroup[] {
  return groups.filter(
    (o) =>
      o.first.titleId === c.first.titleId &&
      o.pixels === c.pixels &&
      o.panel === c.panel &&
      lookOf(o.first.settings) === lookOf(c.first.settings) &&
      o.first.rig.host === c.first.rig.host &&
      o.first.rig.card !== c.first.rig.card &&
      o.first.facts.link === c.first.facts.link &&
      o.capFps === null &&
      !o.generated,
  );
}

function sizesLine(c: RunGroup, groups: readonly RunGroup[]): RunSign | null {
  const all = [c, ...otherSizes(c, groups)].sort((a, b) => a.pixels - b.pixels);
  const low = all[0] as RunGroup;
  const high = all[all.length - 1] as RunGroup;
  const pixels = high.pixels / low.pixels;
  if (pixels < FLAT.pixels) return null;
  const ratio = mean(high.ms) / mean(low.ms);
  const ends = {
    ratio,
    pixels,
    from: low.first.settings.resolution,
    to: high.first.settings.resolution,
  };
  return ratio < FLAT.frames ? { code: 'flat-sizes', ...ends } : { code: 'grows', ...ends };
}

const lowOf = (c: RunGroup) => {
  const lows = c.runs.flatMap((r) => r.stats?.low1.at ?? []);
  return lows.length > 0 ? mean(lows) : null;
};

function cardLines(c: RunGroup, groups: readonly RunGroup[]): RunSign[] {
  const others = otherCards(c, groups);
  const fps = 1000 / mean(c.ms);
  return others.flatMap((o): RunSign[] => {
    const theirs = 1000 / mean(o.ms);
    const averages = Math.max(fps, theirs) / Math.min(fps, theirs);
    const other = o.first.rig.card;
    if (averages < FLAT.frames) return [{ code: 'flat-cards', ratio: averages, other }];
    const mine = lowOf(c);
    const its = lowOf(o);
    if (mine === null || its === null) return [];
    const lows = fps > theirs ? mine / its : its / mine;
    return averages >= 1.15 && lows < FLAT.frames
      ? [{ code: 'lows-flat', averages, lows, other }]
      : [];
  });
}

/**
 * What can be seen in the runs themselves, each with its number; the power state of the memory first, because it makes every other sign
 * mean something else.
 * @param c the runs that are looked at
 * @param groups every group of runs that is known
 * @returns the signs
 */
export function signsOf(c: RunGroup, groups: readonly RunGroup[]): RunSign[] {
  const held = heldMemory(c, groups);
  const load = sensorMean(c, 'card-load');
  const watts = sensorMean(c, 'card-w');
  const hot = sensorMean(c, 'cpu-c');
  const board = c.first.rig.boardW;
  const lines: (RunSign | null)[] = [
    held && { code: 'memory-clock', ...held },
    sizesLine(c, groups),
    ...cardLines(c, groups),
    load === null ? null : { code: 'card-load', percent: load, low: load < WAITS.loadPercent },
    watts === null || !board
      ? null
      : {
          code: 'card-watts',
          watts,
          of: middleOf(board),
          low: watts < WAITS.wattsShare * middleOf(board),
        },
    hot !== null && hot >= HOT_C ? { code: 'processor-hot', c: hot } : null,
  ];
  return lines.filter((l) => l !== null);
}
