import { USUAL_SCATTER } from '../comparison/experiment';
import type { FitCell } from '../model/fit';
import { type FixedParameters, type Solution, solveLayout, type StageAssignment } from './design';

export interface SolvedAssignment {
  readonly layout: StageAssignment;
  readonly solution: Solution;
}

/** Where a host and card meet: below a size the host is the longer stage, from it on the card. */
interface Meeting {
  readonly cells: readonly number[];
  readonly sizes: readonly number[];
}

function meetings(cells: readonly FitCell[]): Meeting[] {
  const byPair = new Map<string, number[]>();
  cells.forEach((c, i) => {
    const key = `${c.host}\u0001${c.card}`;
    byPair.set(key, [...(byPair.get(key) ?? []), i]);
  });
  return [...byPair.values()].map((list) => ({
    cells: list,
    sizes: [...new Set(list.map((i) => (cells[i] as FitCell).pixels))].sort((a, b) => a - b),
  }));
}

/** Rates that at least two cards ran behind: only there can the link itself be told from a stage. */
function sharedLinks(cells: readonly FitCell[]): number[] {
  const cards = new Map<number, Set<string>>();
  for (const c of cells)
    if (!c.slot) cards.set(c.downGbps, (cards.get(c.downGbps) ?? new Set()).add(c.card));
  return [...cards].flatMap(([rate, set]) => (set.size > 1 ? [rate] : []));
}

/** A streamed share shows only where two cards come out alike behind one link. */
function streamsOfTwo(cells: readonly FitCell[], layout: StageAssignment): boolean {
  const held = cells.filter((_, i) => layout[i] === 'link');
  return held.length === 0 || new Set(held.map((c) => c.card)).size > 1;
}

/** How much better a layout with a streamed share must fit to be believed: beyond chance at the usual scatter of a run. */
const STREAM_PRICE = 3.84 * USUAL_SCATTER ** 2;

/** What is stated of the hosts and cards of a fit, by name. */
export interface Indices {
  readonly hosts: Readonly<Record<string, number>>;
  readonly cards: Readonly<Record<string, number>>;
}
export const NO_INDICES: Indices = { hosts: {}, cards: {} };
/** Stage times follow the indices within this, as a share. */
const INDEX_SCATTER = 0.15;

/**
 * How far the stage times of a layout are from what the indices of hosts and cards lead to expect, in squares of standard deviations. It
 * decides only where the runs leave two layouts open.
 */
function oddity(s: Solution, indices: Indices): number {
  const { hosts, cards, exponent } = s.values;
  const of = (times: readonly number[]) => {
    const middle = times.reduce((a, b) => a + b, 0) / Math.max(1, times.length);
    return times.reduce((sum, t) => sum + ((t - middle) / INDEX_SCATTER) ** 2, 0);
  };
  const host = Object.entries(hosts).flatMap(([n, v]) =>
    indices.hosts[n] ? [Math.log(v.mid * indices.hosts[n])] : [],
  );
  const card = Object.entries(cards).flatMap(([n, v]) =>
    indices.cards[n] ? [Math.log(v.mid * indices.cards[n]) - exponent * Math.log(v.atPixels)] : [],
  );
  return of(host) + of(card);
}

const MAX_ROUNDS = 6;

/**
 * Which stage is the longer in each cell, and the values that follow. The longer stage makes the model bend, so one least-squares fit is
 * not enough: for each host and card the size at which the card takes over is moved until nothing fits better, from three starts (the
 * host everywhere, the card everywhere, halfway). Out: every layout that was tried and could be solved, best first.
 */
export function searchLayouts(
  cells: readonly FitCell[],
  held: FixedParameters,
  indices: Indices = NO_INDICES,
  starts: readonly number[] = [0, 1, 0.5],
): SolvedAssignment[] {
  const priceOf = (f: SolvedAssignment) =>
    f.solution.sse +
    (f.layout.includes('link') ? STREAM_PRICE : 0) +
    (held.constant ? 0 : USUAL_SCATTER ** 2 * oddity(f.solution, indices));
  const all = meetings(cells);
  const seen = new Map<string, SolvedAssignment | null>();
  const links = held.constant ? [] : sharedLinks(cells);
  const layoutOf = (cuts: readonly number[]): StageAssignment => {
    const layout: ('host' | 'card' | 'link')[] = cells.map(() => 'card');
    all.forEach((m, k) => {
      for (const i of m.cells)
        if (m.sizes.indexOf((cells[i] as FitCell).pixels) < (cuts[k] as number)) layout[i] = 'host';
    });
    // What is flat on a link that several cards ran behind may be held by the link as well as by the host.
    links.forEach((rate, k) => {
      if (cuts[all.length + k] === 1)
        cells.forEach((c, i) => {
          if (c.downGbps === rate && layout[i] === 'host') layout[i] = 'link';
        });
    });
    return layout;
  };
  const tried = (cuts: readonly number[]): SolvedAssignment | null => {
    const key = cuts.join();
    const known = seen.get(key);
    if (known !== undefined) return known;
    const layout = layoutOf(cuts);
    const solution = solveLayout(cells, layout, held);
    const possible =
      solution &&
      streamsOfTwo(cells, layout) &&
      Object.values(solution.values.hosts).every((h) => h.mid > 0);
    const found =
      possible && Object.values(solution.values.cards).every((c) => c.mid > 0)
        ? { layout, solution }
        : null;
    seen.set(key, found);
    return found;
  };
  const worth = (cuts: readonly number[]) => {
    const found = tried(cuts);
    return found ? priceOf(found) : Infinity;
  };
  for (const share of starts) {
    let cuts = [...all.map((m) => Math.round(share * m.sizes.length)), ...links.map(() => 0)];
    for (let round = 0; round < MAX_ROUNDS; round++) {
      let moved = false;
      const most = [...all.map((m) => m.sizes.length), ...links.map(() => 1)];
      most.forEach((last, k) => {
        for (let cut = 0; cut <= last; cut++) {
          const next = cuts.with(k, cut);
          if (worth(next) < worth(cuts) * (1 - 1e-9)) {
            cuts = next;
            moved = true;
          }
        }
      });
      if (!moved) break;
    }
  }
  return [...seen.values()].filter((f) => f !== null).sort((a, b) => priceOf(a) - priceOf(b));
}
