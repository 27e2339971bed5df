import { type OrderId, wilson } from '../../base';
import type { OrderChoice } from './orders';

/** One try of an order on a host through a kind of link: did the card come up? */
export interface Tried {
  readonly order: OrderId;
  /** System build it was tried under; empty when nobody noted it. */
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
   * `only`: no other is safe on this link. `log`: it worked most surely under this build. `new-build`: the log speaks of other builds
   * only, so the question is open again. `no-build`: the build is not noted, so the log cannot be read. `safest`: nothing is logged.
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
 * Which order to use. The log decides: of the orders that worked at least once under this very system build, the one whose rate of
 * success is surest (the low end of Wilson's interval, so that 4 of 5 comes before 1 of 1); equals go to the safer one. Without a
 * success under this build it is the safest. `tried` are the tries of this host through this kind of link, oldest first.
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
