import type { Range } from '../../base';
import type { EFFICIENCY_MARKS } from '../../parts';

type Mark = keyof typeof EFFICIENCY_MARKS;
type Points = readonly [at20: number, at50: number, at100: number];

/** Titanium alone promises something at 10 % of the rating, %: the same on both mains. From memory of the 80 PLUS programme. */
export const TITANIUM_AT_10 = 90;

/**
 * Least efficiency at 20, 50 and 100 % of the rating, from memory of the 80 PLUS programme: the 115 V internal and the 230 V tables.
 * Bricks carry no mark; 0.88 is a house estimate.
 */
export const EFFICIENCY: Record<115 | 230, Record<Exclude<Mark, 'brick'>, Points>> = {
  115: {
    white: [80, 80, 80],
    bronze: [82, 85, 82],
    silver: [85, 88, 85],
    gold: [87, 90, 87],
    platinum: [90, 92, 89],
    titanium: [92, 94, 90],
  },
  230: {
    white: [82, 85, 82],
    bronze: [85, 88, 85],
    silver: [87, 90, 87],
    gold: [90, 92, 89],
    platinum: [92, 94, 90],
    titanium: [94, 96, 94],
  },
};
interface EfficiencyPoint {
  readonly share: number;
  readonly percent: number;
}

function pointsOf(mark: Exclude<Mark, 'brick'>, [at20, at50, at100]: Points): EfficiencyPoint[] {
  return [
    ...(mark === 'titanium' ? [{ share: 0.1, percent: TITANIUM_AT_10 }] : []),
    { share: 0.2, percent: at20 },
    { share: 0.5, percent: at50 },
    { share: 1, percent: at100 },
  ];
}

type PointTable = Record<Exclude<Mark, 'brick'>, readonly EfficiencyPoint[]>;
const tableOf = (mains: 115 | 230) =>
  Object.fromEntries(
    Object.entries(EFFICIENCY[mains]).map(([mark, points]) => [
      mark,
      pointsOf(mark as Exclude<Mark, 'brick'>, points),
    ]),
  ) as unknown as PointTable;
/** Made once: a search asks for hundreds of thousands of them. */
const POINTS: Record<115 | 230, PointTable> = { 115: tableOf(115), 230: tableOf(230) };

const BRICK = 0.88;

/**
 * What a supply draws from the wall. Between the points of its mark the efficiency runs straight; below the first
 * point (10 % for Titanium, 20 % for the others) the watts lost stay as they are there; above the rating it stays
 * at the last point.
 *
 * Source: the 80 PLUS table of points, from memory.
 * @param loadW load in W, from 0
 * @param ratedW rating in W, above 0
 * @param mark the mark of its efficiency
 * @param mains volts of the table
 * @returns W
 * @example wallDrawW(275, 550, 'gold', 230) // => 298.9
 */
export function wallDrawW(loadW: number, ratedW: number, mark: Mark, mains: 115 | 230): number {
  if (mark === 'brick') return loadW / BRICK;
  const points = POINTS[mains][mark];
  const share = loadW / ratedW;
  const first = points[0] as EfficiencyPoint;
  if (share < first.share) return loadW + first.share * ratedW * (100 / first.percent - 1);
  return loadW / (between(points, Math.min(share, 1)) / 100);
}

/** The percentage at a share of the rating that lies within the points, straight between the two around it. */
function between(points: readonly EfficiencyPoint[], share: number): number {
  const after = points.findIndex((p) => p.share >= share);
  const b = points[after] as EfficiencyPoint;
  const a = points[after - 1] ?? b;
  return b === a
    ? b.percent
    : a.percent + ((share - a.share) / (b.share - a.share)) * (b.percent - a.percent);
}

/**
 * What a supply draws from the wall at an interval of loads: more load never draws less.
 * @param load load in W
 * @param ratedW rating in W, above 0
 * @param mark the mark of its efficiency
 * @param mains volts of the table
 * @returns W
 */
export function wallDraw(load: Range, ratedW: number, mark: Mark, mains: 115 | 230): Range {
  return {
    lo: wallDrawW(load.lo, ratedW, mark, mains),
    hi: wallDrawW(load.hi, ratedW, mark, mains),
  };
}
