import { exact, isExact, minOf, type Range } from '../../base';
import type { AttrPath } from '../schema/chain';
import { ofSlot, type PacketRule, usableDown } from './hops';
import type { HopShape, Limit, Bottleneck, PossibleBottleneck } from './types';

function chainDown(
  shapes: readonly HopShape[],
  p: PacketRule,
  lifted: (l: Limit) => boolean,
): Range {
  return minOf(...shapes.map((s) => usableDown(s, p, lifted)));
}

/** JSON has no infinity: an unlimited remainder is written as null. */
function finite(r: Range): Range | null {
  return Number.isFinite(r.hi) ? r : null;
}

function raises(before: Range, after: Range): boolean {
  return after.lo > before.lo + 1e-9 || after.hi > before.hi + 1e-9;
}

const NONE = () => false;

/** The limits that bind on a hop: those that alone hold it, or, in a tie, all that share the least value. */
function binding(shape: HopShape, p: PacketRule): Limit[] {
  const now = usableDown(shape, p, NONE);
  const alone = shape.limits.filter((l) =>
    raises(
      now,
      usableDown(shape, p, (x) => x === l),
    ),
  );
  if (alone.length > 0) return alone;
  const kinds = [...new Set(shape.limits.map((l) => l.kind))];
  const tied = kinds.filter((k) =>
    raises(
      now,
      usableDown(shape, p, (x) => x.kind === k),
    ),
  );
  return shape.limits.filter((l) => {
    const least = Math.min(...shape.limits.filter((x) => x.kind === l.kind).map((x) => x.value.hi));
    return tied.includes(l.kind) && (l.kind === 'takes' || l.value.hi === least);
  });
}

/** The shapes in the completion in which one part is at its worst and every other at its best. */
function worstFor(part: Limit['slot'], shapes: readonly HopShape[]): HopShape[] {
  return shapes.map((s) => ({
    ...s,
    limits: s.limits.map((l) => {
      // What others take from a hop limits it the more the higher it is.
      const low = (l.slot === part) === (l.kind !== 'takes');
      return { ...l, value: exact(low ? l.value.lo : l.value.hi) };
    }),
  }));
}

/**
 * The part that may hold the chain down most. A part's limits do not depend on those of the others, so its least share lies in the
 * completion in which it is at its worst and they are at their best.
 */
function mayHold(shapes: readonly HopShape[], p: PacketRule): PossibleBottleneck | undefined {
  const parts = [
    ...new Set(shapes.flatMap((s) => s.limits.filter((l) => !isExact(l.value)).map((l) => l.slot))),
  ];
  const known = [...new Set(shapes.flatMap((s) => s.limits.map((l) => l.slot)))];
  if (parts.length === 0) return undefined;
  const found = known.flatMap((part): PossibleBottleneck[] => {
    const at = worstFor(part, shapes);
    const usable = chainDown(at, p, NONE).lo;
    const rest = chainDown(at, p, ofSlot(part)).lo;
    const open = shapes.flatMap((s) => s.limits).filter((l) => l.open && !isExact(l.value));
    // Its own figures settle it; where they are known, those of the others do.
    const own = open.filter(ofSlot(part));
    const attrs = [...new Set((own.length > 0 ? own : open).map((l) => l.attr))];
    return Number.isFinite(rest) && usable > 0 ? [{ part, attrs, usable, rest }] : [];
  });
  return found.sort((a, b) => a.usable / a.rest - b.usable / b.rest)[0];
}

/**
 * The bottleneck: the hop with the least usable rate towards the card; of equal ones that nearest the host. It is
 * certain when its high end is no more than every other hop's low end; otherwise every hop that may be it is named.
 * @param shapes the hops with their limits, host side first
 * @param p the packet rule
 * @returns the hop, and `rest`: Gb/s of the chain with the limits of the part that sets it lifted
 * @throws {RangeError} if there is no hop
 */
export function findBottleneck(shapes: readonly HopShape[], p: PacketRule): Bottleneck {
  const may = mayHold(shapes, p);
  return { ...leastHop(shapes, p), ...(may && { may }) };
}

function leastHop(shapes: readonly HopShape[], p: PacketRule): Bottleneck {
  const each = shapes.map((s) => usableDown(s, p, NONE));
  const leastHi = Math.min(...each.map((r) => r.hi));
  const first = each.findIndex((r) => r.hi === leastHi);
  const certain = each.every((r, i) => i === first || leastHi <= r.lo);
  const hops = certain
    ? [first]
    : each.flatMap((r, i) => (r.lo < leastHi || i === first ? [i] : []));
  const now = minOf(...each);
  const shape = shapes[first];
  if (!shape || shape.brokenBy)
    return { hops, certain, part: shape?.brokenBy ?? null, setBy: [], rest: finite(now) };

  const binds = binding(shape, p);
  const parts = [...new Set(binds.map((l) => l.slot))];
  const setBy: AttrPath[] = binds.map((l) => l.attr);
  const lifted = parts.map((part) => ({ part, rest: chainDown(shapes, p, ofSlot(part)) }));
  const raising = lifted.filter((l) => raises(now, l.rest)).sort((a, b) => b.rest.hi - a.rest.hi);
  const best = raising[0];
  // With open numbers one part may set the low end and another the high end: then none is named alone.
  if (best && raising.length > 1 && !isExact(now))
    return { hops, certain, part: null, setBy, rest: finite({ lo: now.lo, hi: best.rest.hi }) };
  if (best)
    return {
      hops,
      certain,
      part: best.part,
      setBy: binds.filter((l) => l.slot === best.part).map((l) => l.attr),
      rest: finite(best.rest),
    };
  return {
    hops,
    certain,
    part: parts.length === 1 ? (parts[0] ?? null) : null,
    setBy,
    rest: finite(now),
  };
}
