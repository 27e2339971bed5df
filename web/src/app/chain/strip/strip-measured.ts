import { percent, rate } from '@ruddy/core/base/text';
import type { CheckRow, LinkCheck } from '@ruddy/core/bring-up';
import { GRADE_WORDS, ROW_WORDS } from '@ruddy/core/bring-up/text';
import { type Hop, pcieRawGbps } from '@ruddy/core/chain';

/** What was measured on a hop: the core inside the expected outline, and its words. */
export interface HopMeasure {
  /** Rate of the solid core, Gb/s to the card; null when nothing can be drawn. */
  readonly gbps: number | null;
  readonly line1: string;
  readonly line2: string;
  /** Said in the text of the strip. */
  readonly clause: string;
}

const NOT_YET = 'not measured yet';

function expected(h: Hop): string {
  return h.usable ? `expected ${rate(h.usable.down)} Gb/s` : 'expected not known';
}

function unread(h: Hop): HopMeasure {
  return { gbps: null, line1: expected(h), line2: NOT_YET, clause: `${expected(h)}, ${NOT_YET}` };
}

function ofCopy(h: Hop, check: LinkCheck): HopMeasure | null {
  const { copy } = check;
  if (!copy?.gbps) return null;
  const back = copy.direction === 'up';
  // The copy rate runs over every hop: where another one is the least, it is the chain's rate that is expected.
  const whole = copy.expected ? `expected ${rate(copy.expected)} Gb/s` : expected(h);
  const line1 = back ? `${whole} back` : whole === expected(h) ? whole : `${whole} over the chain`;
  const figure = `measured ${copy.gbps.toFixed(1)} Gb/s`;
  if (copy.grade === 'not-graded' || !copy.share)
    return {
      gbps: null,
      line1,
      line2: `${figure}, not graded`,
      clause: `${line1}, ${figure}, not graded`,
    };
  const grade =
    copy.grade === 'open' && copy.ends
      ? `${GRADE_WORDS[copy.ends.atHigh]} or ${GRADE_WORDS[copy.ends.atLow]}`
      : String(copy.grade);
  const words = `${figure} · ${percent(copy.share)} % · ${grade}`;
  return {
    // The ribbon is the way to the card: the way back is said, not drawn.
    gbps: back ? null : copy.gbps,
    line1,
    line2: words,
    clause: `${line1}, ${figure}, ${percent(copy.share)} %, ${grade}`,
  };
}

function ofSpan(h: Hop, row: CheckRow | undefined): HopMeasure | null {
  if (!row || row.state === 'not-read' || row.seen.gen === null || row.seen.lanes === null)
    return null;
  const seen = `×${row.seen.lanes} Gen${row.seen.gen}`;
  const share = h.usable && h.raw && h.raw.down.hi > 0 ? h.usable.down.hi / h.raw.down.hi : null;
  // A reading taken while idle proves nothing, so nothing solid is drawn from it.
  const counts = share !== null && row.state !== 'idle';
  const words = `${seen}, ${ROW_WORDS[row.state]}`;
  return {
    gbps: counts ? pcieRawGbps(row.seen.gen, row.seen.lanes) * share : null,
    line1: expected(h),
    line2: words,
    clause: `${expected(h)}, read ${words}`,
  };
}

function ofRouter(h: Hop, row: CheckRow | undefined): HopMeasure | null {
  if (!row || row.state === 'not-read' || row.seen.laneGbps === null) return null;
  const words = `router ${row.seen.laneGbps} Gb/s × ${row.seen.lanes ?? '?'}, ${ROW_WORDS[row.state]}`;
  return { gbps: null, line1: expected(h), line2: words, clause: `${expected(h)}, ${words}` };
}

/** What was measured on each hop, host side first; a hop nothing was read of says so. */
export function measuredHops(hops: readonly Hop[], check: LinkCheck | null): HopMeasure[] {
  const row = (key: CheckRow['key']) => check?.rows.find((r) => r.key === key);
  return hops.map((h) => {
    if (!check) return unread(h);
    // The copy rate runs over the whole chain: it stands on the tunnel, or on the one hop of a direct link.
    if (h.kind === 'tunnel') return ofCopy(h, check) ?? ofRouter(h, row('router')) ?? unread(h);
    if (hops.length === 1) return ofCopy(h, check) ?? ofSpan(h, row('card')) ?? unread(h);
    return ofSpan(h, row(h.to === 'card' ? 'card' : 'host')) ?? unread(h);
  });
}
