import { type OrderId, wilson } from '../../base';
import type { OrderChoice } from './orders';

/** One try of an order on a host through a kind of link: did the card come up? */
export interface Tried {
  readonly order: OrderId;
  /** System build of the attempt; empty when not noted. */
  readonly build: string;
  readonly worked: boolean;
}

export interface OrderCount {
  readonly order: OrderId;
  readonly worked: number;
  readonly n: number;
}

export interface OrderAdvice {
  readonly order: OrderId;
  /**
   * `log`: the order with the surest success under this build. `new-build`: the log has other builds only.
   * `no-build`: the build is not noted, so the log does not apply. `safest`: nothing is logged.
   */
  readonly why: 'log' | 'new-build' | 'no-build' | 'safest';
  /** Tries under this build, safest order first. */
  readonly here: readonly OrderCount[];
  /** Tries under the build that was logged last among the others. */
  readonly before: { readonly build: string; readonly counts: readonly OrderCount[] } | null;
}

function count(list: readonly Tried[], orders: readonly OrderChoice[]): OrderCount[] {
  return orders.flatMap(({ id }) => {
    const mine = list.filter((t) => t.order === id);
    return mine.length === 0
      ? []
      : [{ order: id, worked: mine.filter((t) => t.worked).length, n: mine.length }];
  });
}

/**
 * Power order to recommend. Of the orders that worked at least once under this system build, the one with the highest low
 * end of Wilson's interval, so that 4 of 5 comes before 1 of 1; equals go to the safer one. Without a success under this
 * build it is the safest. Source: E. B. Wilson, JASA 22 (1927), 209-212.
 *
 * @param choices orders with whether this chain may use them, safest first
 * @param tried attempts of this host through this kind of link, oldest first
 * @param build system build in use
 * @returns the order, the reason, and counts under this build and the one logged before it
 */
export function adviseOrder(
  choices: readonly OrderChoice[],
  tried: readonly Tried[],
  build: string,
): OrderAdvice {
  const allowed = choices.filter((c) => c.state !== 'shut');
  const safest = allowed[0]?.id ?? 'all-off';
  const here = count(build === '' ? [] : tried.filter((t) => t.build === build), choices);
  const other = tried.filter((t) => t.build !== build || build === '');
  const last = other[other.length - 1]?.build;
  const before =
    last === undefined
      ? null
      : {
          build: last,
          counts: count(
            other.filter((t) => t.build === last),
            choices,
          ),
        };
  const say = (order: OrderId, why: OrderAdvice['why']): OrderAdvice => ({
    order,
    why,
    here,
    before,
  });
  const surest = allowed
    .flatMap((c, rank) => {
      const found = here.find((h) => h.order === c.id);
      return found && found.worked > 0
        ? [{ id: c.id, rank, low: wilson(found.worked, found.n).lo }]
        : [];
    })
    .sort((a, b) => b.low - a.low || a.rank - b.rank)[0];
  if (surest) return say(surest.id, 'log');
  if (before === null) return say(safest, 'safest');
  return say(safest, build === '' ? 'no-build' : 'new-build');
}
