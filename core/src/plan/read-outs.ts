import { exact, type Range, rising, type RuleBook } from '../base';
import type { Both, Hop, LinkFacts, Slot, TwoWay, Completion } from '../chain';
import type { CardSpec } from '../parts';

/** What the link's own router shows: rate of a lane and how many, as the kernel writes them ("20.0 Gb/s", 2). */
export interface RouterRead {
  readonly laneGbps: Range;
  readonly lanes: Range;
}

/** One bridge pair of the bus listing. */
export interface ReadOut {
  /** Real spans count; a virtual pair and what lies inside the card are to be ignored. */
  readonly kind: 'real' | 'virtual' | 'inside';
  readonly from: Slot;
  readonly to: Slot;
  readonly gen: Range | null;
  readonly lanes: Range | null;
  /** False when it depends on something not known whether this pair is there. */
  readonly certain: boolean;
}

export interface ReadOuts {
  /** What the span before the card should show; absent when not known or broken. */
  readonly gen?: Range;
  readonly lanes?: Range;
  /** Copy rates that the chain can carry. */
  readonly copy: Both | null;
  /** Copy rates from which a reading counts as healthy, both ways. */
  readonly healthyFrom: TwoWay<Range> | null;
  readonly router: RouterRead | null;
  readonly pairs: readonly ReadOut[];
}

/**
 * A virtual pair always shows the same: 2.5 GT/s with four lanes at both ends, whatever the tunnel carries.
 * Source: Linux kernel, drivers/thunderbolt and the messages of drivers/pci, from memory.
 */
export const VIRTUAL_PAIR = { gen: 1, lanes: 4 } as const;

/** Rate of a lane for a transport, as the kernel rounds it. Source: Linux kernel ABI sysfs-bus-thunderbolt, from memory. */
function laneGbps(transport: number): number {
  if (transport > 39.9 && transport < 41) return 20;
  if (transport > 41) return 40;
  return transport > 21 ? 20 : 10;
}

function laneCount(transport: number): number {
  return transport <= 10.5 ? 1 : 2;
}

function router(hop: Hop | undefined): RouterRead | null {
  if (
    !hop ||
    hop.kind !== 'tunnel' ||
    hop.state !== 'ok' ||
    !hop.transport ||
    hop.transport.lo === 0
  )
    return null;
  return { laneGbps: rising(hop.transport, laneGbps), lanes: rising(hop.transport, laneCount) };
}

/** What a function behind a switch on the card shows, whatever its link does. From memory of what cards show. */
function inside(card: CardSpec | null): ReadOut[] {
  const choice = card?.innerSwitch;
  if (typeof choice !== 'string' || choice === 'none') return [];
  const shown =
    choice === 'full' ? { gen: exact(4), lanes: exact(16) } : { gen: exact(1), lanes: exact(1) };
  return [{ kind: 'inside', from: 'card', to: 'card', ...shown, certain: true }];
}

/**
 * What a system should show of a chain under load.
 * @param all completions
 * @param link over all of them
 * @param rules house rules
 * @returns the router, every bridge pair in order, and the copy rates in Gb/s
 */
export function readOuts(
  all: readonly Completion[],
  link: Omit<LinkFacts, 'shapes'>,
  rules: RuleBook,
): ReadOuts {
  const share = rules.get('grade.healthyPercent') / 100;
  const part = (r: Range): Range => ({ lo: r.lo * share, hi: r.hi * share });
  const last = link.hops[link.hops.length - 1];
  const card = all[0]?.facts.card ?? null;
  const shown =
    last?.state === 'ok'
      ? { gen: last.gen ?? null, lanes: last.lanes ?? null }
      : { gen: null, lanes: null };
  const before: ReadOut[] =
    link.kind === 'tunnel' ? [...hostPair(all, link.hops[0]), virtualPair()] : [];
  const end: ReadOut = {
    kind: 'real',
    from: link.kind === 'tunnel' ? 'dock' : 'host',
    to: 'card',
    ...shown,
    certain: true,
  };
  return {
    ...(shown.gen && { gen: shown.gen }),
    ...(shown.lanes && { lanes: shown.lanes }),
    copy: link.usable,
    healthyFrom: link.usable && { down: part(link.usable.down), up: part(link.usable.up) },
    router: router(link.hops[1]),
    pairs: [...before, ...(card ? [end, ...inside(card)] : [])],
  };
}

function virtualPair(): ReadOut {
  const { gen, lanes } = VIRTUAL_PAIR;
  return {
    kind: 'virtual',
    from: 'socket',
    to: 'dock',
    gen: exact(gen),
    lanes: exact(lanes),
    certain: true,
  };
}

/** Only a separate controller has a real span of its own; a built-in one shows nothing between itself and the processor. */
function hostPair(all: readonly Completion[], hop: Hop | undefined): ReadOut[] {
  const kinds = new Set(all.map((w) => w.facts.socket?.controller ?? null));
  if (!hop || !kinds.has('separate'))
    return kinds.has(null) && hop?.gen ? [pairOf(hop, false)] : [];
  return [pairOf(hop, kinds.size === 1)];
}

function pairOf(hop: Hop, certain: boolean): ReadOut {
  return {
    kind: 'real',
    from: 'host',
    to: 'socket',
    gen: hop.gen ?? null,
    lanes: hop.lanes ?? null,
    certain,
  };
}
