import { mean, trend, type Trend } from '../../base';
import { compareRuns, type RunComparison } from './compare';
import { type Fact, FACT_IDS, FACTS, type RunFacts } from './facts';

/** What moves by itself over the months: versions. Everything else must stay for a run to be the same run. */
export const VERSIONS = [
  'driver',
  'build',
  'hostFirmware',
  'dockFirmware',
] as const satisfies readonly Fact[];

/** A run as it is followed over time; speeds in frames/s or the like, higher is better. */
export interface DatedRun {
  readonly id: string;
  readonly at: string;
  readonly facts: RunFacts;
  readonly speed: number;
}
export interface VersionStep {
  /** The day of the first run under these versions. */
  readonly from: string;
  readonly runs: readonly DatedRun[];
  /** Versions that changed against the step before. */
  readonly changed: readonly { readonly fact: Fact; readonly from: string; readonly to: string }[];
  /** Against the step before; null at the first. */
  readonly against: RunComparison | null;
}
export interface OverTime {
  readonly steps: readonly VersionStep[];
  /** Change of the speed in % a year, with its chance; null with fewer than three days. */
  readonly perYear: Trend | null;
}

/**
 * Key of runs that differ only in versions: title, parts and settings are equal.
 *
 * @param facts facts of a run
 * @returns the key
 */
export function sameButVersions(facts: RunFacts): string {
  return FACT_IDS.filter((f) => !(VERSIONS as readonly Fact[]).includes(f))
    .map((f) => facts[f])
    .join('\u0000');
}

const DAY_MS = 86_400_000;
const YEAR_DAYS = 365.25;

/**
 * Speed of one run over versions and days: a step for each set of versions, compared with the one before by Welch's test,
 * and the trend over the days. Source: H. B. Mann, Econometrica 13 (1945); P. K. Sen, JASA 63 (1968).
 *
 * @param runs runs of one key of `sameButVersions`, in any order
 * @returns steps by day, and the trend in % a year, null with fewer than three days
 */
export function overTime(runs: readonly DatedRun[]): OverTime {
  const sorted = [...runs].sort((a, b) => a.at.localeCompare(b.at) || a.id.localeCompare(b.id));
  const groups: DatedRun[][] = [];
  const key = (r: DatedRun) => VERSIONS.map((v) => r.facts[v]).join('\u0000');
  for (const r of sorted) {
    const last = groups[groups.length - 1];
    if (last?.[0] && key(last[0]) === key(r)) last.push(r);
    else groups.push([r]);
  }
  const steps = groups.map((list, i): VersionStep => {
    const now = list[0] as DatedRun;
    const before = groups[i - 1];
    const old = before?.[0];
    return {
      from: now.at,
      runs: list,
      changed: old
        ? VERSIONS.filter((v) => old.facts[v] !== now.facts[v]).map((fact) => ({
            fact,
            from: old.facts[fact],
            to: now.facts[fact],
          }))
        : [],
      against: before
        ? compareRuns(
            before.map((r) => r.speed),
            list.map((r) => r.speed),
          )
        : null,
    };
  });
  const first = sorted[0];
  const byDay = new Map<string, number[]>();
  for (const r of sorted)
    byDay.set(r.at.slice(0, 10), [...(byDay.get(r.at.slice(0, 10)) ?? []), r.speed]);
  const base = first ? first.speed : 1;
  const points = [...byDay].map(([day, list]) => ({
    x: Date.parse(day) / DAY_MS / YEAR_DAYS,
    y: (mean(list) / base) * 100,
  }));
  return { steps, perYear: trend(points) };
}

/**
 * Labels of the versions that changed in a step.
 *
 * @param step the step
 * @returns the labels; empty for the first step
 */
export function changedNames(step: VersionStep): string {
  return step.changed
    .map((c) => `${FACTS[c.fact]}: ${c.from || 'not set'} to ${c.to || 'not set'}`)
    .join('; ');
}

/** A synthetic test with its year, its speed here and on the same card in a desktop slot. */
export interface AgedTest {
  readonly title: string;
  readonly year: number;
  readonly here: readonly number[];
  readonly desktop: readonly number[];
}
export interface AgedRow {
  readonly title: string;
  readonly year: number;
  /** % of the desktop. */
  readonly percent: RunComparison;
}

/**
 * Synthetic tests by age, as % of the same card in a desktop: newer tests send less data a frame and lose less. Common
 * practice, no published source: 21, 15 and 8 % lost in three generations.
 *
 * @param tests speeds here and in a desktop, with the year of the test
 * @returns rows by year, and the trend in points of % a year, null with fewer than three tests
 */
export function byAge(tests: readonly AgedTest[]): { rows: AgedRow[]; perYear: Trend | null } {
  const rows = tests
    .filter((t) => t.here.length > 0 && t.desktop.length > 0)
    .map((t) => ({ title: t.title, year: t.year, percent: compareRuns(t.desktop, t.here) }))
    .sort((a, b) => a.year - b.year || a.title.localeCompare(b.title));
  return { rows, perYear: trend(rows.map((r) => ({ x: r.year, y: r.percent.of * 100 }))) };
}
