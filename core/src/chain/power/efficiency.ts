import type { Range } from '../../base';
import type { EFFICIENCY_MARKS } from '../../parts';

type Mark = keyof typeof EFFICIENCY_MARKS;
type Points = readonly [at20: number, at50: number, at100: number];

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
const BRICK = 0.88;

/**
 * What a supply draws from the wall, W, for a load in W. Between the points of its mark the efficiency runs straight; below 20 % the
 * watts lost stay as they are there; above the rating it stays at the last point.
 *
 * Worked example: Gold at 230 V, 550 W, load 275 W (half): 275 / 0.92 = 298.9 W.
 */
export function wallDrawW(loadW: number, ratedW: number, mark: Mark, mains: 115 | 230): number {
  if (mark === 'brick') return loadW / BRICK;
  const [p20, p50, p100] = EFFICIENCY[mains][mark].map((p) => p / 100) as [number, number, number];
  const f = loadW / ratedW;
  if (f < 0.2) return loadW + 0.2 * ratedW * (1 / p20 - 1);
  if (f <= 0.5) return loadW / (p20 + ((f - 0.2) / 0.3) * (p50 - p20));
  return loadW / (p50 + ((Math.min(f, 1) - 0.5) / 0.5) * (p100 - p50));
}

/** The same for an interval of loads: more load never draws less. */
export function wallDraw(load: Range, ratedW: number, mark: Mark, mains: 115 | 230): Range {
  return {
    lo: wallDrawW(load.lo, ratedW, mark, mains),
    hi: wallDrawW(load.hi, ratedW, mark, mains),
  };
}
