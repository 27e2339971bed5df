import type { Likelihood } from './likelihood';
import type { Deriver, ParameterSpace } from './parameters';
import { randomSource, type RandomSource } from './random';

/** How thorough a posterior is: particles, and moves of each particle at a temperature and at the last one. */
export interface Effort {
  readonly particles: number;
  readonly moves: number;
  readonly lastMoves: number;
}

/**
 * The effort of a first answer: fewer particles where each costs more.
 * @param rows pieces of evidence
 * @returns the effort
 * @example firstEffort(2).particles // => 1000
 */
export function firstEffort(rows: number): Effort {
  const particles = rows <= 8 ? 1000 : rows <= 24 ? 500 : 250;
  const moves = rows <= 24 ? 3 : 2;
  return { particles, moves, lastMoves: 2 * moves };
}
/** The effort of the answer that replaces the first one. */
export const REFINED_EFFORT: Effort = { particles: 3000, moves: 6, lastMoves: 12 };

/** Draws from the posterior: `count` particles of `space.size` standard normal numbers, one after the other. */
export interface Particles {
  readonly count: number;
  readonly z: Float64Array;
  readonly temperatures: number;
  /** Share of moves that were accepted. */
  readonly accepted: number;
}

/** Effective share of particles below which the next temperature would throw away too many. */
const LEAST_EFFECTIVE = 0.5;
const BISECTIONS = 20;
const ALL_NUMBERS = 0.4;
/** Half-width of what is added to each number, so that particles do not stay on a grid: standard deviation 0.02. */
const JITTER = 0.02 * Math.sqrt(3);
const FULL_STEP = 0.1;
/** Step of a move by differences, over the root of twice the numbers it changes (ter Braak takes 2.38). */
const STEP = 2.1;

/** Largest step in temperature that keeps at least half of the particles effective. */
function nextStep(ln: Float64Array, most: number): number {
  const enough = (step: number) => effective(ln, step) >= LEAST_EFFECTIVE * ln.length;
  if (enough(most)) return most;
  let lo = 0;
  let hi = most;
  for (let i = 0; i < BISECTIONS; i++) {
    const middle = (lo + hi) / 2;
    if (enough(middle)) lo = middle;
    else hi = middle;
  }
  // A step of nothing would never end: the smallest that the bisection can tell apart.
  return Math.max(lo, most * 2 ** -BISECTIONS);
}

function effective(ln: Float64Array, step: number): number {
  const top = ln.reduce((a, b) => Math.max(a, b), -Infinity);
  let sum = 0;
  let squares = 0;
  for (const l of ln) {
    const w = Math.exp(step * (l - top));
    sum += w;
    squares += w * w;
  }
  return (sum * sum) / squares;
}

/** Places that systematic resampling keeps. Source: J. Carpenter, P. Clifford, P. Fearnhead, IEE Proceedings 146 (1999), 2-7. */
function keptPlaces(ln: Float64Array, step: number, uniform: number): Int32Array {
  const top = ln.reduce((a, b) => Math.max(a, b), -Infinity);
  const weights = ln.map((l) => Math.exp(step * (l - top)));
  const total = weights.reduce((a, b) => a + b, 0);
  const kept = new Int32Array(ln.length);
  let at = 0;
  let reached = weights[0]!;
  for (let i = 0; i < kept.length; i++) {
    const target = ((i + uniform) * total) / kept.length;
    while (reached < target && at < ln.length - 1) reached += weights[++at]!;
    kept[i] = at;
  }
  return kept;
}

/** Particles on their way from the prior to the posterior. */
class Population {
  z: Float64Array;
  ln: Float64Array;
  tried = 0;
  accepted = 0;
  private readonly trial: Float64Array;
  private readonly parameters: Float64Array;

  constructor(
    private readonly likelihood: Likelihood,
    private readonly derive: Deriver,
    private readonly size: number,
    private readonly count: number,
    private readonly random: RandomSource,
  ) {
    this.z = new Float64Array(count * size);
    this.trial = new Float64Array(size);
    this.parameters = new Float64Array(size);
    // Antithetic pairs: the mean of the prior is met exactly.
    for (let i = 0; i < count; i += 2)
      for (let d = 0; d < size; d++) {
        const value = random.normal();
        this.z[i * size + d] = value;
        if (i + 1 < count) this.z[(i + 1) * size + d] = -value;
      }
    this.ln = Float64Array.from({ length: count }, (_, i) => this.lnOf(this.z, i * size));
  }

  private lnOf(from: Float64Array, at: number): number {
    this.derive(from, at, this.parameters, 0);
    return this.likelihood.evaluate(this.parameters, 0);
  }

  /** Keeps particles by their weight at a step in temperature. */
  resample(step: number): void {
    const { z, ln, size } = this;
    const kept = keptPlaces(ln, step, this.random.uniform());
    const next = new Float64Array(z.length);
    kept.forEach((from, i) => next.set(z.subarray(from * size, (from + 1) * size), i * size));
    this.ln = Float64Array.from(kept, (from) => ln[from]!);
    this.z = next;
  }

  /** Tries one move of every particle at a temperature, by differences of the particles as they were before. */
  moveAll(beta: number): void {
    const frozen = this.z.slice();
    for (let i = 0; i < this.count; i++) this.move(frozen, i, beta);
  }

  private move(frozen: Float64Array, i: number, beta: number): void {
    const own = i * this.size;
    const priors = this.propose(frozen, own);
    const lnTrial = this.lnOf(this.trial, 0);
    this.tried++;
    const ratio = -0.5 * priors + beta * (lnTrial - this.ln[i]!);
    if (ratio < 0 && this.random.uniform() >= Math.exp(ratio)) return;
    this.accepted++;
    this.z.set(this.trial, own);
    this.ln[i] = lnTrial;
  }

  /** Fills `trial`; gives the change of the sum of squares, which is minus twice that of ln of the prior. */
  private propose(frozen: Float64Array, own: number): number {
    const { z, trial, size, random, count } = this;
    const share = random.uniform() < ALL_NUMBERS ? 1 : random.uniform() < 0.5 ? 0.5 : 0.25;
    const picked = share === 1 ? size : Math.max(1, Math.round(size * share));
    const j = random.below(count) * size;
    const k = random.below(count) * size;
    const step =
      random.uniform() < FULL_STEP
        ? 1
        : (STEP / Math.sqrt(2 * picked)) * (0.4 + 0.8 * random.uniform());
    let taken = 0;
    let priors = 0;
    for (let d = 0; d < size; d++) {
      const old = z[own + d]!;
      // Exactly `picked` of the numbers, each as likely: selection sampling (D. E. Knuth, The Art of Computer Programming 2, 3.4.2, S).
      if (share !== 1 && random.uniform() * (size - d) >= picked - taken) {
        trial[d] = old;
        continue;
      }
      taken++;
      const jitter = JITTER * (2 * random.uniform() - 1);
      const value = old + step * (frozen[j + d]! - frozen[k + d]!) + jitter;
      trial[d] = value;
      priors += value * value - old * old;
    }
    return priors;
  }
}

/**
 * Particles of the posterior: drawn from the prior and carried to it through rising temperatures, moved at each by differences of other
 * particles.
 *
 * Source: R. M. Neal, Statistics and Computing 11 (2001), 125-139 (annealed importance sampling); P. Del Moral, A. Doucet, A. Jasra,
 * Journal of the Royal Statistical Society B 68 (2006), 411-436 (sequential Monte Carlo samplers); C. J. F. ter Braak, Statistics and
 * Computing 16 (2006), 239-249 (moves by differences).
 * @param likelihood of the evidence
 * @param space of the parameters
 * @param derive the way from standard normal numbers to parameters
 * @param effort how many particles and moves
 * @param seed the same seed gives the same particles
 * @returns the particles
 */
export function temper(
  likelihood: Likelihood,
  space: ParameterSpace,
  derive: Deriver,
  effort: Effort,
  seed: number,
): Particles {
  const count = effort.particles;
  const population = new Population(likelihood, derive, space.size, count, randomSource(seed));
  // Without evidence the prior is the posterior.
  let beta = likelihood.rows.length === 0 ? 1 : 0;
  let temperatures = 0;
  while (beta < 1) {
    const step = nextStep(population.ln, 1 - beta);
    population.resample(step);
    beta = step === 1 - beta ? 1 : beta + step;
    temperatures++;
    const moves = beta === 1 ? effort.lastMoves : effort.moves;
    for (let m = 0; m < moves; m++) population.moveAll(beta);
  }
  const { z, tried, accepted } = population;
  return { count, z, temperatures, accepted: tried === 0 ? 0 : accepted / tried };
}
