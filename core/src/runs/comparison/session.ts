import { type Factor, type Plan, planSession } from './experiment';
import { type Fact, FACT_IDS, type RunFacts, unlike } from './facts';

export interface SessionRun {
  readonly id: string;
  readonly facts: RunFacts;
  readonly happenedAt: string;
}
export interface SessionCell {
  readonly name: string;
  readonly levels: readonly string[];
  readonly runs: readonly string[];
  /** How many of its repeats are still to be measured. */
  readonly left: number;
}
export interface Session {
  readonly plan: Plan;
  readonly cells: readonly SessionCell[];
  /** The cell that is measured next, in the order that swaps least; null: all are measured. */
  readonly next: number | null;
  /** The first cell was measured once more after all others: has anything drifted? */
  readonly backDone: boolean;
  /** What should have been held and was not, with the values seen. */
  readonly notHeld: readonly { readonly fact: Fact; readonly values: readonly string[] }[];
  /** Facts unknown of every run, so that it cannot be told whether they were held. */
  readonly notSaid: readonly Fact[];
}

/**
 * State of a planned session. A run belongs to the cell whose levels are its facts; runs from before the plan belong to
 * none. A fact that is no factor must be held: those that vary are listed.
 *
 * @param factors factors of the session with their levels
 * @param repeats runs of each cell
 * @param runs runs with their facts, in any order
 * @param plannedAt time of the plan, ISO 8601
 * @returns runs of each cell, the next cell, and facts that varied or are unknown
 */
export function sessionState(
  factors: readonly Factor[],
  repeats: number,
  runs: readonly SessionRun[],
  plannedAt: string,
): Session {
  const plan = planSession(factors, repeats);
  const seen = new Map<string, readonly string[]>();
  for (const s of plan.steps) seen.set(s.cell.join('\u0000'), s.cell);
  const mine = runs.filter((r) => r.happenedAt >= plannedAt);
  const belongs = (r: SessionRun, levels: readonly string[]) =>
    factors.every((f, i) => r.facts[f.dimension] === levels[i]);
  const cells = [...seen.values()].map((levels): SessionCell => {
    const found = mine.filter((r) => belongs(r, levels)).map((r) => r.id);
    return {
      name: levels.join(', '),
      levels,
      runs: found,
      left: Math.max(0, repeats - found.length),
    };
  });
  const counted = mine.filter((r) => cells.some((c) => c.runs.includes(r.id)));
  const varied: readonly Fact[] = factors.map((f) => f.dimension);
  const [first, ...others] = counted;
  const apart = new Set(
    first ? others.flatMap((r) => unlike(first.facts, r.facts, varied).map((u) => u.fact)) : [],
  );
  const newest = [...counted].sort((a, b) => b.happenedAt.localeCompare(a.happenedAt))[0];
  const open = cells.findIndex((c) => c.left > 0);
  return {
    plan,
    cells,
    next: open < 0 ? null : open,
    backDone:
      open < 0 &&
      cells.length > 1 &&
      newest !== undefined &&
      (cells[0]?.runs.includes(newest.id) ?? false) &&
      (cells[0]?.runs.length ?? 0) > repeats,
    notHeld: [...apart].map((fact) => ({
      fact,
      values: [...new Set(counted.map((r) => r.facts[fact]))],
    })),
    notSaid:
      counted.length > 0
        ? FACT_IDS.filter((f) => !varied.includes(f) && counted.every((r) => r.facts[f] === ''))
        : [],
  };
}
