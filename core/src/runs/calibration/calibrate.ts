import { mean, middleOf, type Range, tQuantile } from '../../base';
import { scatterOf, USUAL_SCATTER } from '../comparison/experiment';
import { lookOf, type RunGroup } from '../model/cells';
import type { Fit, FitCell, FitValues, Stage } from '../model/fit';
import { REFERENCE_PIXELS } from '../model/model';
import { hostInMode, middleRig } from '../model/rig';
import { START } from '../model/start';
import {
  cellMs,
  type FixedParameters,
  type Solution,
  solveLayout,
  type StageAssignment,
} from './design';
import { type Indices, searchLayouts, type SolvedAssignment } from './search';
import { termsOf } from './terms';

/** The rules a fit was made by; stored with it. */
export const FIT_VERSION = 1;
const FEWEST_CELLS = 3;
/** Rates closer together than this are one rate: traffic cannot be told from the stages. */
const RATES_APART = 1.2;
/** Layouts that fit no worse than chance would have it are kept as well: the 95 % point of chi-squared with one degree of freedom. */
const AS_GOOD = 3.84;
const MAX_OTHERS = 16;

/** A cell as the fit takes it; null for those that tell nothing of stages: held by a limit, generated, without a known rate. */
export function fitCell(c: RunGroup): FitCell | null {
  const rig = middleRig(c.first.rig);
  const { host, card } = c.first.rig;
  if (
    c.capped ||
    c.generated ||
    !rig ||
    host === '' ||
    card === '' ||
    c.first.settings.deviceSet === 'inside'
  )
    return null;
  return {
    host: c.first.rig.slot ? host : hostInMode(host, c.first.settings.powerMode),
    card,
    pixels: c.pixels,
    panel: c.panel,
    slot: c.first.rig.slot,
    downGbps: rig.downGbps,
    upGbps: rig.upGbps,
    latencyUs: rig.latencyUs,
    ms: mean(c.ms),
    n: c.ms.length,
  };
}

/** The look most cells are of; of two as many the one of the newest run. */
export function commonLook(cells: readonly RunGroup[]): string | null {
  const counts = new Map<string, number>();
  for (const c of cells)
    counts.set(lookOf(c.first.settings), (counts.get(lookOf(c.first.settings)) ?? 0) + 1);
  return (
    [...counts].reduce<[string, number] | null>((a, b) => (a && a[1] >= b[1] ? a : b), null)?.[0] ??
    null
  );
}

function stageBound(
  v: FitValues,
  cells: readonly FitCell[],
  kind: 'host' | 'card',
  name: string,
): Stage {
  const bare = { ...v, hosts: {}, cards: {} };
  const left = cells
    .filter((c) => c[kind] === name)
    .map((c) => {
      const over = cellMs({ ...bare, hosts: { [c.host]: { mid: 0, lo: 0, hi: 0 } } }, c) ?? 0;
      const anchor = kind === 'card' ? (REFERENCE_PIXELS / c.pixels) ** v.exponent : 1;
      return Math.max(0, c.ms - over) * anchor;
    });
  const hi = Math.min(...left);
  return { mid: hi / 2, lo: 0, hi };
}

/** Stages that are nowhere the longer one are known only to be no longer than that. */
function withBounds(v: FitValues, cells: readonly FitCell[]): FitValues {
  const hosts: Record<string, Stage> = { ...v.hosts };
  const cards: Record<string, Stage & { atPixels: number }> = { ...v.cards };
  for (const c of cells) {
    hosts[c.host] ??= stageBound(v, cells, 'host', c.host);
    cards[c.card] ??= { ...stageBound(v, cells, 'card', c.card), atPixels: REFERENCE_PIXELS };
  }
  return { ...v, hosts, cards };
}

/** Error of each cell predicted from all the others, as a share; null where the others say nothing of its host and card. */
function leaveOut(
  cells: readonly FitCell[],
  layout: StageAssignment,
  held: FixedParameters,
): (number | null)[] {
  return cells.map((c, i) => {
    const rest = solveLayout(
      cells.filter((_, k) => k !== i),
      layout.filter((_, k) => k !== i),
      held,
    );
    const ms = rest && cellMs(rest.values, c, held.constant);
    const stages = {
      host: rest?.values.hosts[c.host],
      card: rest?.values.cards[c.card],
      link: rest?.values.streamedMB,
    };
    const asked = stages[layout[i] as keyof typeof stages];
    return ms !== null && asked ? ms / c.ms - 1 : null;
  });
}

const rms = (list: readonly number[]) =>
  list.length === 0 ? null : Math.sqrt(mean(list.map((v) => v * v)));

/** Is there more than one rate, and do these runs tell traffic from the stages? */
function heldFor(cells: readonly FitCell[]): FixedParameters {
  const rates = cells.map((c) => c.downGbps);
  const apart = Math.max(...rates) / Math.min(...rates) >= RATES_APART;
  const links = new Set(cells.map((c) => `${c.downGbps.toPrecision(3)} ${c.latencyUs}`)).size;
  return {
    trafficMB: apart ? null : START.trafficMB.mid,
    trips: apart && links >= 3 ? null : 0,
    exponent: null,
  };
}

/** Trips count as told apart when they lie outside chance and are no more than any program makes. */
function tripsStand(s: Solution, cells: number): boolean {
  const i = s.free.indexOf('trips');
  const df = cells - s.free.length;
  if (i < 0 || df < 1) return false;
  const se = Math.sqrt((s.solved.sse / df) * (s.solved.inverse[i]?.[i] ?? 0));
  return s.values.trips > tQuantile(0.025, df) * se && s.values.trips <= 3 * START.trips.hi;
}

function bestOf(
  cells: readonly FitCell[],
  held: FixedParameters,
  indices: Indices,
): { found: SolvedAssignment[]; held: FixedParameters } {
  const chain: FixedParameters[] = [
    held,
    { ...held, trips: 0 },
    { ...held, trips: 0, trafficMB: START.trafficMB.mid },
  ];
  for (const h of chain) {
    const found = searchLayouts(cells, h, indices);
    const top = found[0];
    if (top && (h.trips !== null || tripsStand(top.solution, cells.length)))
      return { found, held: h };
  }
  return { found: [], held };
}

/**
 * Calibrate a title from its runs: stage times of each host and card, traffic, round trips, the way back and how drawing grows with the
 * pixels, as far as the runs tell them apart. Least squares on shares of the time, repeats as one cell weighted by their number. In:
 * cells of one title and one look. A fit that predicts cells left out worse than one constant toll is refused.
 * Common practice, no published source for the model; the method is ordinary least squares.
 */
export function calibrate(all: readonly RunGroup[]): Fit | null {
  const look = commonLook(all);
  const chosen = all.flatMap((c) => {
    const f = lookOf(c.first.settings) === look ? fitCell(c) : null;
    return f ? [{ c, f }] : [];
  });
  const cells = chosen.map((x) => x.f);
  if (look === null || cells.length === 0) return null;
  const runs = chosen.reduce((n, x) => n + x.f.n, 0);
  const indices = (
    of: (x: (typeof chosen)[number]) => readonly [name: string, index: Range | null],
  ) =>
    Object.fromEntries(
      chosen.flatMap((x) => {
        const [name, index] = of(x);
        return index ? [[name, middleOf(index)] as const] : [];
      }),
    );
  const head = {
    version: FIT_VERSION,
    look,
    runs,
    cells: cells.length,
    rates: new Set(cells.map((c) => c.downGbps.toPrecision(2))).size,
    hostIndex: indices(({ c, f }) => [f.host, c.first.rig.hostIndex]),
    cardIndex: indices(({ c, f }) => [f.card, c.first.rig.cardIndex]),
  };
  const { found, held } = bestOf(cells, heldFor(cells), {
    hosts: head.hostIndex,
    cards: head.cardIndex,
  });
  const top = found[0];
  if (!top) {
    const nothing: FitValues = {
      hosts: {},
      cards: {},
      trafficMB: 0,
      streamedMB: 0,
      trips: 0,
      exponent: START.exponent.mid,
      kappa: START.kappa.mid,
    };
    const left = { n: 0, of: cells.length, rms: null, constantRms: null };
    return {
      ...head,
      terms: [],
      main: nothing,
      others: [],
      free: [],
      covariance: [],
      sd: 0,
      df: 0,
      residuals: [],
      left,
      refused: cells.length < FEWEST_CELLS ? 'too-few' : 'solver',
    };
  }
  const { solution, layout } = top;
  const df = Math.max(0, cells.length - solution.free.length);
  const scatter = scatterOf(chosen.map((x) => x.c.ms)) ?? USUAL_SCATTER;
  const sd = Math.max(df > 0 ? Math.sqrt(solution.sse / df) : 0, scatter);
  const own = leaveOut(cells, layout, held);
  const constantHeld: FixedParameters = {
    trafficMB: null,
    trips: 0,
    exponent: null,
    constant: true,
  };
  // Behind one rate the toll is one constant anyway, and held at what is usual: there is nothing to beat.
  const constantBest = held.trafficMB === null ? searchLayouts(cells, constantHeld)[0] : undefined;
  const constant = constantBest ? leaveOut(cells, constantBest.layout, constantHeld) : [];
  const both = cells.flatMap((_, i) => {
    const a = own[i] ?? null;
    const b = constant[i] ?? null;
    return a !== null && b !== null ? [{ a, b }] : [];
  });
  const left = {
    n: own.filter((v) => v !== null).length,
    of: cells.length,
    rms: rms(own.filter((v) => v !== null)),
    constantRms: both.length > 0 ? rms(both.map((x) => x.b)) : null,
  };
  const ownThere = rms(both.map((x) => x.a));
  const worse =
    left.constantRms !== null &&
    ownThere !== null &&
    ownThere > left.constantRms * 1.0001 &&
    ownThere > scatter;
  const main = withBounds(solution.values, cells);
  return {
    ...head,
    terms: termsOf(main, solution, held, sd, df),
    main,
    others: othersOf(cells, found, held, scatter),
    free: solution.free,
    covariance: solution.solved.inverse.map((row) => row.map((v) => v * sd * sd)),
    sd,
    df,
    left,
    residuals: cells.map((c) => ({ ...c, fittedMs: cellMs(main, c) ?? c.ms })),
    refused: cells.length < FEWEST_CELLS ? 'too-few' : worse ? 'worse-than-constant' : null,
  };
}

/** Other sets of values that these runs allow: assumed parameters at the ends of their bands, and layouts that fit no worse. */
function othersOf(
  cells: readonly FitCell[],
  found: readonly SolvedAssignment[],
  held: FixedParameters,
  scatter: number,
): FitValues[] {
  const best = (found[0] as SolvedAssignment).solution.sse;
  const good = found.filter((f) => f.solution.sse <= best + AS_GOOD * scatter ** 2);
  const out: FitValues[] = [];
  for (const { layout, solution } of good.slice(0, 4)) {
    const traffics =
      held.trafficMB === null ? [null] : [START.trafficMB.lo, held.trafficMB, START.trafficMB.hi];
    const exponents = solution.free.includes('exponent')
      ? [null]
      : [START.exponent.lo, START.exponent.mid, START.exponent.hi];
    const trips = held.trips === null ? [null] : [held.trips, START.trips.hi];
    const ends = traffics.flatMap((trafficMB) =>
      exponents.flatMap((exponent) => trips.map((n) => ({ trafficMB, exponent, trips: n }))),
    );
    for (const end of ends) {
      const s = solveLayout(cells, layout, { ...held, ...end });
      if (s && s.sse <= best + AS_GOOD * scatter ** 2) out.push(withBounds(s.values, cells));
    }
  }
  return out.slice(0, MAX_OTHERS);
}
