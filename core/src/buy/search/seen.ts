import type { Chain } from '../../chain';
import { type MatchKey, matchOf } from '../../compatibility';
import type { CardSpec } from '../../parts';
import { contradicted, failures, successes } from '../../plan';
import { BIT } from './reasons';
import type { EvidenceProximity, ScoutInput, SeenKey } from './types';

/** Of a card on one way to one dock: whether the log has it, whether it worked there, and whether it goes against "works". */
export const SEEN = { seen: 1, worked: 2, against: 4 } as const;

/** What the log says of the combinations of a search. */
export class LogFlags {
  readonly #byKey = new Map<string, SeenKey>();
  readonly #keys: readonly string[][];
  readonly #rows = new Map<number, Uint8Array | null>();

  constructor(
    readonly input: ScoutInput,
    readonly chainOf: (route: number, dock: number, card: CardSpec | null) => Chain,
  ) {
    for (const s of input.seen) this.#byKey.set(s.key, s);
    this.#keys = input.seen.map((s) => JSON.parse(s.key) as string[]);
  }

  /** For each card what was seen on this way to this dock; null where nothing was. */
  row(route: number, dock: number): Uint8Array | null {
    if (this.#byKey.size === 0) return null;
    const key = route * 1_000_000 + dock;
    const known = this.#rows.get(key);
    if (known !== undefined) return known;
    const made = this.#make(route, dock);
    this.#rows.set(key, made);
    return made;
  }

  #make(route: number, dock: number): Uint8Array | null {
    const { cards } = this.input;
    const any = matchOf(this.chainOf(route, dock, cards[0]?.spec ?? null)).key;
    if (any === null) return null;
    const head = JSON.stringify((JSON.parse(any) as string[]).slice(0, 5));
    if (!this.#keys.some((k) => JSON.stringify(k.slice(0, 5)) === head)) return null;
    return Uint8Array.from(cards, (c) => {
      const s = this.of(matchOf(this.chainOf(route, dock, c.spec)));
      if (!s) return 0;
      const counts = { worked: successes(s.tally), failed: failures(s.tally) };
      return (
        SEEN.seen |
        (counts.worked > counts.failed ? SEEN.worked : 0) |
        (contradicted('works', counts) ? SEEN.against : 0)
      );
    });
  }

  of(match: MatchKey): SeenKey | null {
    return (match.key === null ? undefined : this.#byKey.get(match.key)) ?? null;
  }

  /**
   * How near to something measured: the log has exactly this chain; it has one with the same dock or card family on the same host or
   * kind of port, or the frames come from stages that were measured; or all of it is predicted.
   */
  grade(match: MatchKey, measuredFrames: boolean): EvidenceProximity {
    if (this.of(match)) return 'here';
    const near = this.input.near.some(
      (u) =>
        ((u.dock !== null && u.dock === match.dock) ||
          (u.family !== null && u.family === match.family)) &&
        ((u.host !== null && u.host === match.host) || (u.link !== null && u.link === match.link)),
    );
    return near || measuredFrames ? 'near' : 'predicted';
  }
}

/**
 * Reason bit of a combination that is not proven: not in the log as working, or contradicted there.
 *
 * @param seen log flags of the combination
 * @returns the bit `unproven`, or 0
 */
export function unprovenBit(seen: number): number {
  return seen & SEEN.worked && !(seen & SEEN.against) ? 0 : BIT.unproven;
}
