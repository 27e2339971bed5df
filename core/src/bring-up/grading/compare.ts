import type { Range } from '../../base';
import type { ReadOuts } from '../../plan';
import type { RouterReading, SpanReading } from '../schema/reading';

export type RowKey = 'router' | 'host' | 'virtual' | 'card' | 'inside';

/**
 * `as-expected`; `below`: slower or narrower than this chain should be; `above`: more than it can be, so the plan is wrong;
 * `idle`: slower, but read without load, so it proves nothing; `ignore`: an artefact; `not-read`; `not-known`: nothing expected.
 */
export type RowState =
  'as-expected' | 'below' | 'above' | 'idle' | 'ignore' | 'not-read' | 'not-known';

export interface CheckRow {
  readonly key: RowKey;
  readonly expected: {
    readonly gen: Range | null;
    readonly lanes: Range | null;
    readonly laneGbps: Range | null;
  };
  readonly seen: {
    readonly gen: number | null;
    readonly lanes: number | null;
    readonly laneGbps: number | null;
  };
  readonly state: RowState;
  /** What is below the expected, and what above: the rate, the width, or both. */
  readonly off: readonly ('rate' | 'width')[];
  readonly over: readonly ('rate' | 'width')[];
}

const NOTHING = { gen: null, lanes: null, laneGbps: null };

function side(value: number | null, r: Range | null): 'below' | 'above' | 'within' | null {
  if (value === null || r === null) return null;
  return value < r.lo ? 'below' : value > r.hi ? 'above' : 'within';
}

type Side = ReturnType<typeof side>;

function sides(rate: Side, width: Side, which: 'below' | 'above'): ('rate' | 'width')[] {
  return [
    ...(rate === which ? ['rate' as const] : []),
    ...(width === which ? ['width' as const] : []),
  ];
}

function stateOf(
  rate: ReturnType<typeof side>,
  width: ReturnType<typeof side>,
  underLoad: boolean,
): RowState {
  if (rate === null && width === null) return 'not-read';
  // Width does not rest, rate does: a narrow reading counts whatever the load, a slow one only under load.
  if (width === 'below' || (rate === 'below' && underLoad)) return 'below';
  if (rate === 'above' || width === 'above') return 'above';
  return rate === 'below' ? 'idle' : 'as-expected';
}

function spanRow(
  key: 'host' | 'card',
  pair: { gen: Range | null; lanes: Range | null },
  seen: SpanReading | null,
  underLoad: boolean,
): CheckRow {
  const expected = { ...NOTHING, gen: pair.gen, lanes: pair.lanes };
  const rate = side(seen?.gen ?? null, pair.gen);
  const width = side(seen?.lanes ?? null, pair.lanes);
  const read = seen !== null && (seen.gen !== null || seen.lanes !== null);
  const state = !read
    ? 'not-read'
    : pair.gen === null && pair.lanes === null
      ? 'not-known'
      : stateOf(rate, width, underLoad);
  const off = sides(rate, width, 'below');
  const over = sides(rate, width, 'above');
  return {
    key,
    expected,
    seen: { ...NOTHING, gen: seen?.gen ?? null, lanes: seen?.lanes ?? null },
    state,
    off,
    over,
  };
}

function routerRow(out: ReadOuts['router'], seen: RouterReading | null): CheckRow {
  const expected = { gen: null, laneGbps: out?.laneGbps ?? null, lanes: out?.lanes ?? null };
  const rate = side(seen?.laneGbps ?? null, expected.laneGbps);
  const width = side(seen?.lanes ?? null, expected.lanes);
  const read = seen !== null && (seen.laneGbps !== null || seen.lanes !== null);
  // A router keeps its rate when idle: what it shows always counts.
  const state = !read ? 'not-read' : out === null ? 'not-known' : stateOf(rate, width, true);
  const off = sides(rate, width, 'below');
  const over = sides(rate, width, 'above');
  return {
    key: 'router',
    expected,
    seen: { gen: null, laneGbps: seen?.laneGbps ?? null, lanes: seen?.lanes ?? null },
    state,
    off,
    over,
  };
}

export interface ObservedLink {
  readonly router: RouterReading | null;
  readonly host: SpanReading | null;
  readonly card: SpanReading | null;
  readonly inside: SpanReading | null;
  readonly virtual: boolean;
}

/**
 * Compares what the system reports of a link with what the chain should show, pair by pair from host to card.
 *
 * @param outs expected rate, width and generation of each pair, from `expectedReadings`
 * @param seen the link as the report has it
 * @param load whether the card was under load: an idle link may have slowed down by itself
 * @returns one row for each pair, in the order of the path; a pair without a value is `not-read`
 */
export function compareReading(
  outs: ReadOuts,
  seen: ObservedLink,
  load: 'load' | 'idle' | null,
): CheckRow[] {
  const underLoad = load === 'load';
  const rows: CheckRow[] = [];
  if (outs.router || seen.router) rows.push(routerRow(outs.router, seen.router));
  for (const p of outs.pairs) {
    if (p.kind === 'virtual')
      rows.push(ignored('virtual', p.gen, p.lanes, seen.virtual ? { gen: 1, lanes: 4 } : null));
    else if (p.kind === 'inside') rows.push(ignored('inside', p.gen, p.lanes, seen.inside));
    else if (p.to === 'socket') {
      if (p.certain || seen.host) rows.push(spanRow('host', p, seen.host, underLoad));
    } else rows.push(spanRow('card', p, seen.card, underLoad));
  }
  if (seen.inside && !rows.some((r) => r.key === 'inside'))
    rows.push(ignored('inside', null, null, seen.inside));
  if (seen.host && !rows.some((r) => r.key === 'host'))
    rows.push(spanRow('host', NOTHING, seen.host, underLoad));
  return rows;
}

function ignored(
  key: 'virtual' | 'inside',
  gen: Range | null,
  lanes: Range | null,
  seen: SpanReading | null,
): CheckRow {
  return {
    key,
    expected: { gen, lanes, laneGbps: null },
    seen: { ...NOTHING, gen: seen?.gen ?? null, lanes: seen?.lanes ?? null },
    state: 'ignore',
    off: [],
    over: [],
  };
}
