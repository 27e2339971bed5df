import type { FitCell, FitValues } from '../model/fit';
import { MS_PER_MB_GBPS, pictureMB } from '../model/model';
import { START } from '../model/start';
import { leastSquares, type Solved } from './solve';

/** Which stage is taken as the longer in each cell. */
export type StageAssignment = readonly ('host' | 'card' | 'link')[];
/** What stands outside the stages: fitted, or held at a value. */
export interface FixedParameters {
  /** Held at this, or fitted. */
  readonly trafficMB: number | null;
  readonly trips: number | null;
  readonly exponent: number | null;
  /** The toll is one constant for every link; slots have none. What a fit must beat. */
  readonly constant?: boolean;
}
export interface Solution {
  readonly values: FitValues;
  readonly free: readonly string[];
  readonly solved: Solved;
  /** Weighted squares of what the whole model leaves, with the longer stage of each cell taken anew. */
  readonly sse: number;
}

const anchorOf = (cells: readonly FitCell[]) =>
  Math.exp(cells.reduce((s, c) => s + Math.log(c.pixels), 0) / Math.max(1, cells.length));
const trafficMs = (c: FitCell, constant?: boolean) =>
  constant ? Number(!c.slot) : MS_PER_MB_GBPS / c.downGbps;
const backMs = (c: FitCell) => (c.panel ? (pictureMB(c.pixels) * MS_PER_MB_GBPS) / c.upGbps : 0);

/** The time a set of values gives a cell; of a host or card it does not know only the other stage. Null when it knows neither. */
export function cellMs(v: FitValues, c: FitCell, constant?: boolean): number | null {
  const host = v.hosts[c.host];
  const card = v.cards[c.card];
  const stages = [
    ...(host && host.lo === host.hi ? [host.mid] : []),
    ...(card && card.lo === card.hi ? [card.mid * (c.pixels / card.atPixels) ** v.exponent] : []),
    ...(v.streamedMB > 0 ? [v.streamedMB * trafficMs(c, constant)] : []),
  ];
  if (stages.length === 0) return null;
  return (
    Math.max(...stages) +
    v.trafficMB * trafficMs(c, constant) +
    (v.trips * c.latencyUs) / 1000 +
    v.kappa * backMs(c)
  );
}

interface Column {
  readonly name: string;
  readonly of: (c: FitCell, i: number) => number;
}

function columnsOf(
  cells: readonly FitCell[],
  layout: StageAssignment,
  held: FixedParameters,
  exponent: number,
  about: FitValues['cards'] | null,
) {
  const cardCells = new Map<string, FitCell[]>();
  cells.forEach((c, i) => {
    if (layout[i] === 'card') cardCells.set(c.card, [...(cardCells.get(c.card) ?? []), c]);
  });
  const anchors = new Map([...cardCells].map(([card, list]) => [card, anchorOf(list)]));
  const hosts = [...new Set(cells.filter((_, i) => layout[i] === 'host').map((c) => c.host))];
  const columns: Column[] = [
    ...hosts.map((h) => ({
      name: `host ${h}`,
      of: (c: FitCell, i: number) => Number(layout[i] === 'host' && c.host === h),
    })),
    ...[...anchors].map(([card, at]) => ({
      name: `card ${card}`,
      of: (c: FitCell, i: number) =>
        layout[i] === 'card' && c.card === card ? (c.pixels / at) ** exponent : 0,
    })),
    ...(held.trafficMB === null
      ? [{ name: 'traffic', of: (c: FitCell) => trafficMs(c, held.constant) }]
      : []),
    ...(layout.includes('link')
      ? [
          {
            name: 'streamed',
            of: (c: FitCell, i: number) => Number(layout[i] === 'link') * trafficMs(c),
          },
        ]
      : []),
    ...(held.trips === null ? [{ name: 'trips', of: (c: FitCell) => c.latencyUs / 1000 }] : []),
    ...(cells.some((c) => c.panel) && cells.some((c) => !c.panel)
      ? [{ name: 'kappa', of: backMs }]
      : []),
    ...(about
      ? [
          {
            name: 'exponent',
            of: (c: FitCell, i: number) => {
              const at = anchors.get(c.card) ?? 1;
              return layout[i] === 'card'
                ? (about[c.card]?.mid ?? 0) * (c.pixels / at) ** exponent * Math.log(c.pixels / at)
                : 0;
            },
          },
        ]
      : []),
  ];
  return { columns, anchors };
}

/** Weight of a cell: errors are shares of the time, and repeats make it surer. */
const weightOf = (c: FitCell) => Math.sqrt(c.n) / c.ms;

/**
 * The best values for one layout and one exponent; with the cards of the last step in `about` a step of the exponent, too. Null where
 * the runs do not tell the columns apart.
 */
function solveAt(
  cells: readonly FitCell[],
  layout: StageAssignment,
  held: FixedParameters,
  exponent: number,
  about: FitValues['cards'] | null = null,
): Solution | null {
  const { columns, anchors } = columnsOf(cells, layout, held, exponent, about);
  const fixed = (c: FitCell) =>
    (held.trafficMB ?? 0) * trafficMs(c, held.constant) +
    ((held.trips ?? 0) * c.latencyUs) / 1000 +
    (columns.some((x) => x.name === 'kappa') ? 0 : START.kappa.mid * backMs(c));
  const solved = leastSquares(
    cells.map((c, i) => columns.map((x) => x.of(c, i) * weightOf(c))),
    cells.map((c) => (c.ms - fixed(c)) * weightOf(c)),
  );
  if (solved.x === null) return null;
  const value = (name: string) => solved.x[columns.findIndex((x) => x.name === name)];
  const point = (mid: number) => ({ mid, lo: mid, hi: mid });
  const named = (kind: string) =>
    columns.filter((x) => x.name.startsWith(`${kind} `)).map((x) => x.name.slice(kind.length + 1));
  const values: FitValues = {
    hosts: Object.fromEntries(named('host').map((h) => [h, point(value(`host ${h}`) ?? 0)])),
    cards: Object.fromEntries(
      named('card').map((k) => [
        k,
        { ...point(value(`card ${k}`) ?? 0), atPixels: anchors.get(k) ?? 1 },
      ]),
    ),
    trafficMB: value('traffic') ?? held.trafficMB ?? 0,
    streamedMB: value('streamed') ?? 0,
    trips: value('trips') ?? held.trips ?? 0,
    kappa: value('kappa') ?? START.kappa.mid,
    exponent,
  };
  const sse = cells.reduce((s, c) => {
    const ms = cellMs(values, c, held.constant);
    return s + (ms === null ? Infinity : ((ms - c.ms) * weightOf(c)) ** 2);
  }, 0);
  return { values, free: columns.map((x) => x.name), solved, sse };
}

const EXPONENTS = { lo: 0.4, hi: 1.3 } as const;
const MAX_STEPS = 12;
const NEAR_ENOUGH = 1e-4;

/** Does the layout show one card at two sizes it is the longest stage at, so that its exponent can be fitted? */
function showsExponent(cells: readonly FitCell[], layout: StageAssignment): boolean {
  const byCard = new Map<string, number[]>();
  cells.forEach((c, i) => {
    if (layout[i] === 'card') byCard.set(c.card, [...(byCard.get(c.card) ?? []), c.pixels]);
  });
  return [...byCard.values()].some((p) => Math.max(...p) / Math.min(...p) >= 1.3);
}

/** Gauss and Newton's steps for the exponent: everything else is linear. Null where it does not settle inside its limits. */
function withExponent(
  cells: readonly FitCell[],
  layout: StageAssignment,
  held: FixedParameters,
): Solution | null {
  let last = solveAt(cells, layout, held, START.exponent.mid);
  for (let i = 0; last && i < MAX_STEPS; i++) {
    const step: Solution | null = solveAt(
      cells,
      layout,
      held,
      last.values.exponent,
      last.values.cards,
    );
    const by = step ? (step.solved.x[step.free.indexOf('exponent')] ?? 0) : 0;
    if (step && Math.abs(by) < NEAR_ENOUGH) return step;
    const next = last.values.exponent + Math.max(-0.2, Math.min(0.2, by));
    if (!step || next < EXPONENTS.lo || next > EXPONENTS.hi) return null;
    last = solveAt(cells, layout, held, next);
  }
  return null;
}

/**
 * The best values for one layout. The exponent is fitted where the layout shows it. A traffic that comes out below nothing is held at
 * nothing, trips likewise.
 */
export function solveLayout(
  cells: readonly FitCell[],
  layout: StageAssignment,
  held: FixedParameters,
): Solution | null {
  const best = (h: FixedParameters): Solution | null =>
    (h.exponent === null && showsExponent(cells, layout) ? withExponent(cells, layout, h) : null) ??
    solveAt(cells, layout, h, h.exponent ?? START.exponent.mid);
  const first = best(held);
  if (first && first.values.trips < 0) return best({ ...held, trips: 0 });
  if (first && first.values.trafficMB < 0) return best({ ...held, trafficMB: 0 });
  return first;
}
