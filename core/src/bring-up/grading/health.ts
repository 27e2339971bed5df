import { type HouseRules, median, RuleBook, trend } from '../../base';

/** One stored reading as the health of a link looks at it. */
export interface HealthPoint {
  readonly id: string;
  /** ISO instant. */
  readonly at: string;
  /** The cable it was read through: the piece's label where it is known. */
  readonly cable: string;
  /** Copy rates as shares of what was expected then, host to card and back. */
  readonly down: number | null;
  readonly up: number | null;
  readonly routerGbps: number | null;
  readonly lanes: number | null;
  readonly gen: number | null;
  readonly correctedPerHour: number | null;
  readonly fatal: number | null;
  readonly downs: number | null;
  readonly windowMB: number | null;
  readonly minutes: number | null;
  readonly overall: string;
}

export const HEALTH_MEASURES = [
  'down',
  'up',
  'routerGbps',
  'lanes',
  'gen',
  'correctedPerHour',
  'windowMB',
] as const;
export type HealthMeasure = (typeof HEALTH_MEASURES)[number];

/** `too-few`: fewer than four readings. `none`: no trend told apart from chance. */
export type TrendDirection = 'rises' | 'falls' | 'none' | 'too-few';

export interface MeasureTrend {
  readonly measure: HealthMeasure;
  readonly cable: string;
  readonly n: number;
  readonly first: number;
  readonly last: number;
  readonly way: TrendDirection;
  /** Change in thirty days, by the median slope. */
  readonly per30Days: number;
  /** Chance of so strong a trend where there is none, 0 to 1. */
  readonly p: number;
}

const DAY_MS = 86_400_000;
/** With three readings the strongest trend still has a chance of one in three. */
const FEWEST = 4;

/**
 * Trend of every measure for each cable: readings through different cables are never one series.
 * Source: H. B. Mann, Econometrica 13 (1945); P. K. Sen, JASA 63 (1968).
 *
 * @param points readings with day, cable and measures, in any order
 * @param house the workshop's rules, with the least number of readings
 * @returns one trend for each measure and cable; `too-few` below the least number of readings
 */
export function healthTrends(points: readonly HealthPoint[], house: HouseRules): MeasureTrend[] {
  const line = new RuleBook(house).get('health.toldApartPercent') / 100;
  const sorted = [...points].sort((a, b) => a.at.localeCompare(b.at));
  return [...new Set(sorted.map((p) => p.cable))].flatMap((cable) =>
    HEALTH_MEASURES.flatMap((measure): MeasureTrend[] => {
      const list = sorted.flatMap((p) => {
        const y = p[measure];
        return p.cable === cable && y !== null ? [{ x: Date.parse(p.at) / DAY_MS, y }] : [];
      });
      const first = list[0];
      const last = list[list.length - 1];
      if (!first || !last || list.length < 2) return [];
      const t = trend(list);
      const told = t !== null && list.length >= FEWEST;
      const way: TrendDirection = !told
        ? 'too-few'
        : t.p >= line || t.s === 0
          ? 'none'
          : t.s > 0
            ? 'rises'
            : 'falls';
      const seen = { measure, cable, n: list.length, first: first.y, last: last.y };
      return [{ ...seen, way, per30Days: (t?.slope ?? 0) * 30, p: t?.p ?? 1 }];
    }),
  );
}

export interface CableHealth {
  readonly cable: string;
  readonly n: number;
  readonly firstAt: string;
  readonly lastAt: string;
  /** Medians over its readings. */
  readonly down: number | null;
  readonly up: number | null;
  readonly correctedPerHour: number | null;
  /** Sums over its readings. */
  readonly fatal: number | null;
  readonly downs: number | null;
  readonly minutes: number;
}

function middle(values: readonly (number | null)[]): number | null {
  const known = values.filter((v) => v !== null);
  return known.length === 0 ? null : median(known);
}

function sum(values: readonly (number | null)[]): number | null {
  const known = values.filter((v) => v !== null);
  return known.length === 0 ? null : known.reduce((a, b) => a + b, 0);
}

/**
 * Cables side by side.
 *
 * @param points readings with day, cable and measures, in any order
 * @returns one line a cable: the best copy rate to the card first, those without one last
 */
export function healthByCable(points: readonly HealthPoint[]): CableHealth[] {
  const cables = [...new Set(points.map((p) => p.cable))].map((cable): CableHealth => {
    const mine = points.filter((p) => p.cable === cable);
    const days = mine.map((p) => p.at).sort();
    return {
      cable,
      n: mine.length,
      firstAt: days[0] ?? '',
      lastAt: days[days.length - 1] ?? '',
      down: middle(mine.map((p) => p.down)),
      up: middle(mine.map((p) => p.up)),
      correctedPerHour: middle(mine.map((p) => p.correctedPerHour)),
      fatal: sum(mine.map((p) => p.fatal)),
      downs: sum(mine.map((p) => p.downs)),
      minutes: sum(mine.map((p) => p.minutes)) ?? 0,
    };
  });
  return cables.sort((a, b) => (b.down ?? -1) - (a.down ?? -1));
}
