import { BIT, countOf } from './reasons';
import { REJECT_REASONS, type RejectReason } from './types';

/** The combination that misses by least: fewest limits, then the smallest sum of what it exceeds them by, as shares. */
export interface Miss {
  readonly index: number;
  readonly n: number;
  readonly over: number;
}
export interface LeftRow {
  readonly reason: RejectReason;
  /** Combinations that fail it, and those that fail nothing else: allowing it would admit them. */
  readonly n: number;
  readonly alone: number;
  readonly nearest: Miss | null;
}

/** One place for every set of reasons. */
const SETS = 1 << REJECT_REASONS.length;

/** What was left out and why: counts by the set of reasons, and the nearest miss of each set. */
export class LeftOut {
  // A set of reasons is its own place: a map would be too slow for something every combination comes by.
  readonly counts = new Float64Array(SETS);
  readonly over = new Float64Array(SETS).fill(Infinity);
  readonly #index = new Float64Array(SETS);

  /** The nearest so far that fails these reasons: one that misses by less. */
  near(fails: number, over: number, index: number): void {
    if (over >= (this.over[fails] as number)) return;
    this.over[fails] = over;
    this.#index[fails] = index;
  }

  /** Each set of reasons with its count and nearest miss. */
  #each(): { fails: number; count: number; miss: Miss }[] {
    const found: { fails: number; count: number; miss: Miss }[] = [];
    this.counts.forEach((count, fails) => {
      if (count === 0) return;
      const miss = {
        index: this.#index[fails] as number,
        n: countOf(fails),
        over: this.over[fails] as number,
      };
      found.push({ fails, count, miss });
    });
    return found;
  }

  total(): number {
    return this.counts.reduce((a, b) => a + b, 0);
  }

  nearest(among: (fails: number) => boolean = () => true): Miss | null {
    let best: Miss | null = null;
    for (const { fails, miss } of this.#each()) {
      if (!among(fails)) continue;
      const closer =
        best === null ||
        miss.n < best.n ||
        (miss.n === best.n &&
          (miss.over < best.over || (miss.over === best.over && miss.index < best.index)));
      if (closer) best = miss;
    }
    return best;
  }

  rows(): LeftRow[] {
    const sets = this.#each();
    return REJECT_REASONS.flatMap((reason): LeftRow[] => {
      let n = 0;
      let alone = 0;
      for (const { fails, count } of sets) {
        if (fails & BIT[reason]) n += count;
        if (fails === BIT[reason]) alone += count;
      }
      return n === 0
        ? []
        : [{ reason, n, alone, nearest: this.nearest((f) => (f & BIT[reason]) !== 0) }];
    });
  }
}
