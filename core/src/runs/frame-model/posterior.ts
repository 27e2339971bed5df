import { cellKey, type FrameCell } from './cell';
import { solveLower, solveUpper } from './cholesky';
import { discrepancy } from './discrepancy';
import { cellsOfEvidence, type FrameEvidence, type Unused, usableEvidence } from './evidence';
import { fillResiduals, type Likelihood, likelihoodOf } from './likelihood';
import {
  type Deriver,
  deriver,
  hasPlaces,
  parameterSpace,
  type ParameterSpace,
} from './parameters';
import { type Effort, firstEffort, type Particles, temper } from './particles';
import { NOTHING_STATED, type StatedTitle } from './priors';
import { randomSource, seedOf } from './random';

/** Cells above which only those nearest to the question are computed with. */
export const MAX_CELLS = 60;
/** Standardised residual of a row, predicted from all others, above which it does not fit them. */
const CONTRADICTION = 4;
/** Fewer particles than this tell so only roughly, and more is asked of them. */
const MANY_PARTICLES = 2000;
const CONTRADICTION_OF_FEW = 6;
/** By what the noise of such a row is multiplied: at least this, and as much as brings it to two standard deviations (judgement). */
const CONTRADICTION_NOISE = 3;
const CONTRADICTION_AT = 2;
const MAX_CONTRADICTIONS = 3;

/** What is known of a title. */
export interface FrameQuestion {
  readonly titleId: string;
  readonly evidence: readonly FrameEvidence[];
  readonly stated?: StatedTitle;
  /** The cell that is asked, where more is known than can be computed with. */
  readonly nearTo?: FrameCell;
  readonly effort?: Effort;
  /** Instead of the seed that the title's id gives: to see how far an answer depends on it. */
  readonly seed?: number;
}

/** What is known of the frame times of a title, as particles of the posterior. */
export interface FramePosterior {
  readonly space: ParameterSpace;
  readonly likelihood: Likelihood;
  readonly particles: Particles;
  /** Parameters of each particle in the units of the equations, `space.size` numbers one after the other. */
  readonly parameters: Float64Array;
  /** Of each particle, the residuals of the rows solved by their covariance: weights for what the equations miss. */
  readonly weights: Float64Array;
  readonly seed: number;
  readonly evidence: readonly FrameEvidence[];
  readonly unused: readonly Unused[];
  /** Ids of evidence that does not fit the others; its noise counts three times. */
  readonly contradictions: readonly string[];
}

/** How far a cell lies from the one that is asked: what it runs on first, then look and size. */
function distance(a: FrameCell, b: FrameCell): number {
  return (
    Number(a.host.id !== b.host.id) +
    Number(a.card.id !== b.card.id) +
    Number(a.link.id !== b.link.id) +
    Number(a.look.id !== b.look.id) +
    Number(a.panel !== b.panel) / 2 +
    Math.min(0.4, Math.abs(Math.log(a.pixels / b.pixels)) / 5)
  );
}

/** Leaves out what speaks of cells far from the one that is asked, where there are too many. */
function nearest(
  used: readonly FrameEvidence[],
  nearTo: FrameCell | undefined,
): { used: readonly FrameEvidence[]; far: Unused[] } {
  const cells = [...new Map(used.flatMap(cellsOfEvidence).map((c) => [cellKey(c), c])).values()];
  if (cells.length <= MAX_CELLS) return { used, far: [] };
  const asked = nearTo ?? cells[0]!;
  const ranked = [...cells].sort(
    (a, b) => distance(a, asked) - distance(b, asked) || (cellKey(a) < cellKey(b) ? -1 : 1),
  );
  const kept = new Set(ranked.slice(0, MAX_CELLS).map(cellKey));
  const isNear = (e: FrameEvidence) => cellsOfEvidence(e).every((c) => kept.has(cellKey(c)));
  return {
    used: used.filter(isNear),
    far: used.filter((e) => !isNear(e)).map((e) => ({ id: e.id, why: 'far' })),
  };
}

/** The cells a space must know: those of the evidence, and a stand-in for cards that are only compared. */
function cellsToPlace(evidence: readonly FrameEvidence[]): FrameCell[] {
  const cells = evidence.flatMap(cellsOfEvidence);
  const like = cells[0];
  const bare = evidence.flatMap((e) => (e.kind === 'card-ratio' ? [e.card, e.other] : []));
  const any: FrameCell | undefined = like ?? (bare[0] && standIn(bare[0]));
  return any ? [...cells, ...bare.map((card) => ({ ...any, card }))] : [];
}

const standIn = (card: FrameCell['card']): FrameCell => ({
  host: { id: '', index: null },
  card,
  link: { id: '', down: null, up: null, latencyMs: 0 },
  look: { id: '', preset: 'other', rayTracing: false, scale: 1 },
  pixels: 1920 * 1080,
  panel: false,
  capFps: null,
  processorClock: 1,
  cardPower: 1,
});

function parametersOf(space: ParameterSpace, derive: Deriver, particles: Particles): Float64Array {
  const all = new Float64Array(particles.z.length);
  for (let at = 0; at < all.length; at += space.size) derive(particles.z, at, all, at);
  return all;
}

function weightsOf(
  likelihood: Likelihood,
  parameters: Float64Array,
  particles: Particles,
): Float64Array {
  const rows = likelihood.rows.length;
  const weights = new Float64Array(particles.count * rows);
  const size = parameters.length / particles.count;
  for (let i = 0; i < particles.count; i++) {
    likelihood.evaluate(parameters, i * size);
    const own = weights.subarray(i * rows, (i + 1) * rows);
    fillResiduals(likelihood.rows, likelihood.lnTimes, own);
    solveLower(likelihood.factor, own);
    solveUpper(likelihood.factor, own);
  }
  return weights;
}

/**
 * The posterior of a title: what its runs and whatever else is known of it leave open, as particles.
 * @param question the title, its evidence and how thoroughly to compute
 * @returns the posterior; with nothing known it is the prior
 */
export function framePosterior(question: FrameQuestion): FramePosterior {
  const stated = question.stated ?? NOTHING_STATED;
  const { used, unused } = usableEvidence(question.evidence);
  const { used: evidence, far } = nearest(used, question.nearTo);
  const space = parameterSpace(cellsToPlace(evidence), stated);
  const derive = deriver(space);
  const effort = question.effort ?? firstEffort(evidence.length);
  const seed = question.seed ?? seedOf(question.titleId);
  const noise = new Map<string, number>();
  for (;;) {
    const likelihood = likelihoodOf(evidence, space, noise);
    const particles = temper(likelihood, space, derive, effort, seed);
    const parameters = parametersOf(space, derive, particles);
    const weights = weightsOf(likelihood, parameters, particles);
    const worst = noise.size < MAX_CONTRADICTIONS ? worstRow(likelihood, weights, noise) : null;
    if (worst === null)
      return {
        space,
        likelihood,
        particles,
        parameters,
        weights,
        seed,
        evidence,
        unused: [...unused, ...far],
        contradictions: [...noise.keys()],
      };
    noise.set(worst.id, Math.max(CONTRADICTION_NOISE, worst.sds / CONTRADICTION_AT));
  }
}

/** Diagonal of the inverse of the rows' covariance. */
function precisions(likelihood: Likelihood): Float64Array {
  const n = likelihood.rows.length;
  return Float64Array.from({ length: n }, (_, i) => {
    const unit = new Float64Array(n);
    unit[i] = 1;
    solveLower(likelihood.factor, unit);
    return unit.reduce((a, b) => a + b * b, 0);
  });
}

/**
 * The row that the others predict worst, where it lies beyond what chance explains: each left out in turn by weighing the particles with
 * the inverse of its own likelihood, weights cut as E. L. Ionides does, Journal of Computational and Graphical Statistics 17 (2008), 295-311.
 */
function worstRow(
  likelihood: Likelihood,
  weights: Float64Array,
  known: ReadonlyMap<string, number>,
): { readonly id: string; readonly sds: number } | null {
  const n = likelihood.rows.length;
  if (n < 3) return null;
  const count = weights.length / n;
  const precision = precisions(likelihood);
  const limit = count < MANY_PARTICLES ? CONTRADICTION_OF_FEW : CONTRADICTION;
  let worst: { id: string; z: number; sds: number } | null = null;
  for (const [k, row] of likelihood.rows.entries()) {
    if (known.has(row.id)) continue;
    const variance = 1 / precision[k]!;
    // Residual of the row given the other rows and the particle.
    const misses = Float64Array.from({ length: count }, (_, i) => weights[i * n + k]! * variance);
    const { miss, sd } = leftOut(misses, variance);
    const z = Math.abs(miss) / sd;
    if (z > limit && z > (worst?.z ?? 0))
      worst = { id: row.id, z, sds: Math.abs(miss) / row.noise };
  }
  return worst;
}

/** What the others leave of a row, and how far it can be from that. */
function leftOut(misses: Float64Array, variance: number): { miss: number; sd: number } {
  const most = misses.reduce((a, m) => Math.max(a, m * m), 0);
  const raw = misses.map((m) => Math.exp((0.5 * (m * m - most)) / variance));
  const mean = raw.reduce((a, b) => a + b, 0) / raw.length;
  const cut = mean * Math.sqrt(raw.length);
  const w = raw.map((x) => Math.min(x, cut));
  const total = w.reduce((a, b) => a + b, 0);
  const at = misses.reduce((a, m, i) => a + (m * w[i]!) / total, 0);
  const spread = misses.reduce((a, m, i) => a + ((m - at) ** 2 * w[i]!) / total, 0);
  return { miss: at, sd: Math.sqrt(variance + spread) };
}

/**
 * A posterior with room for cells whose host, card, link or look no evidence speaks of: their numbers come from the prior, the same for
 * the same name.
 * @param posterior the posterior; not modified
 * @param cells cells that are asked
 * @returns a posterior that can be asked for them
 */
export function withCells(posterior: FramePosterior, cells: readonly FrameCell[]): FramePosterior {
  if (cells.every((cell) => hasPlaces(posterior.space, cell))) return posterior;
  const space = parameterSpace(cells, posterior.space.stated, posterior.space);
  const { count } = posterior.particles;
  const old = posterior.space.size;
  if (space.size === old) return posterior;
  const z = new Float64Array(count * space.size);
  for (let i = 0; i < count; i++)
    z.set(posterior.particles.z.subarray(i * old, (i + 1) * old), i * space.size);
  for (const { name, from, to } of newPlaces(posterior.space, space)) {
    const random = randomSource(posterior.seed ^ seedOf(name));
    for (let i = 0; i < count; i += 2)
      for (let d = from; d < to; d++) {
        const value = random.normal();
        z[i * space.size + d] = value;
        if (i + 1 < count) z[(i + 1) * space.size + d] = -value;
      }
  }
  const particles = { ...posterior.particles, z };
  return {
    ...posterior,
    space,
    particles,
    parameters: parametersOf(space, deriver(space), particles),
  };
}

/**
 * A posterior of fewer particles, for many cells that are only put in order: evenly taken, so that medians move by less than chance.
 * @param posterior the posterior; not modified
 * @param count particles to keep
 * @returns the posterior with at most that many
 */
export function thinned(posterior: FramePosterior, count: number): FramePosterior {
  const { particles, space, parameters, weights, likelihood } = posterior;
  if (particles.count <= count) return posterior;
  const rows = likelihood.rows.length;
  const keep = (all: Float64Array, size: number) => {
    const kept = new Float64Array(count * size);
    for (let i = 0; i < count; i++) {
      const from = Math.floor((i * particles.count) / count) * size;
      kept.set(all.subarray(from, from + size), i * size);
    }
    return kept;
  };
  return {
    ...posterior,
    particles: { ...particles, count, z: keep(particles.z, space.size) },
    parameters: keep(parameters, space.size),
    weights: keep(weights, rows),
  };
}

/** The places of a space that another has not, each under a name of its own. */
function newPlaces(old: ParameterSpace, space: ParameterSpace) {
  const named = [
    ...space.hosts.map((p) => ({ name: `host ${p.id}`, at: p.at as number | null })),
    ...space.cards.map((p) => ({ name: `card ${p.id}`, at: p.at as number | null })),
    ...space.links.map((p) => ({ name: `link ${p.id}`, at: p.at as number | null })),
    ...space.looks.map((p) => ({ name: `look ${p.id}`, at: p.at })),
    { name: 'memory', at: space.memoryAt },
    { name: 'power', at: space.powerAt },
  ]
    .flatMap(({ name, at }) => (at !== null && at >= old.size ? [{ name, at }] : []))
    .sort((a, b) => a.at - b.at);
  return named.map((p, i) => ({
    name: p.name,
    from: p.at,
    to: named[i + 1]?.at ?? space.size,
  }));
}

/**
 * Covariance of what the equations miss in a cell with each row of the evidence.
 * @param posterior what is known of the title
 * @param cell the cell that is asked
 * @returns covariances of ln, in the order of the rows
 */
export function rowCovariances(posterior: FramePosterior, cell: FrameCell): Float64Array {
  const { rows, cells } = posterior.likelihood;
  return Float64Array.from(rows, (row) =>
    row.terms.reduce((a, t) => a + t.factor * discrepancy(cell, cells[t.cell]!), 0),
  );
}
