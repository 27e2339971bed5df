import { normalQuantile } from './normal';
import { randomSource } from './random';
import { type CellView, openCovariance } from './view';

const quantiles = new Map<number, Float64Array>();

/** Standard normal quantiles at the middles of equal parts of 0 to 1; kept, because every forecast needs the same ones. */
function normalQuantiles(count: number): Float64Array {
  const kept = quantiles.get(count);
  if (kept) return kept;
  const made = Float64Array.from({ length: count }, (_, i) => normalQuantile((i + 0.5) / count));
  quantiles.set(count, made);
  return made;
}

/**
 * Stratified standard normal numbers in an order by chance, each with its negative: two for each particle.
 * @param count particles
 * @param seed the same seed gives the same numbers
 * @returns `2 * count` numbers, those of particle i at 2i and 2i + 1
 * @example stratifiedNormals(500, 1).length // => 1000
 */
export function stratifiedNormals(count: number, seed: number): Float64Array {
  const random = randomSource(seed);
  const order = normalQuantiles(count).slice();
  for (let i = count - 1; i > 0; i--) {
    const j = random.below(i + 1);
    const kept = order[i]!;
    order[i] = order[j]!;
    order[j] = kept;
  }
  const draws = new Float64Array(2 * count);
  for (let i = 0; i < count; i++) {
    draws[2 * i] = order[i]!;
    draws[2 * i + 1] = -order[i]!;
  }
  return draws;
}

const SEED_OF_DRAWS = 0x5eed;
const SEED_OF_SECOND = 0x2ec0;

/** What is drawn: the true mean frame time of a cell, or the mean of one run that would be measured there. */
export type Drawn = 'mean' | 'run';

/**
 * Draws of ln of the frame time without a cap.
 * @param view a cell seen through a posterior
 * @param drawn the true mean, or a run with its scatter
 * @returns two draws for each particle, ln of ms
 */
export function drawLn(view: CellView, drawn: Drawn): Float64Array {
  const { posterior, count, ln, openSd } = view;
  const sd = drawn === 'run' ? Math.hypot(openSd, posterior.likelihood.repeatSd) : openSd;
  const normals = stratifiedNormals(count, posterior.seed ^ SEED_OF_DRAWS);
  return normals.map((z, i) => ln[i >> 1]! + sd * z);
}

/**
 * Draws of the difference of the frame times of two cells without caps.
 * @param a a cell seen through a posterior
 * @param b another cell seen through the same posterior
 * @returns two draws of a - b for each particle, ms
 */
export function drawDifference(a: CellView, b: CellView): Float64Array {
  const first = stratifiedNormals(a.count, a.posterior.seed ^ SEED_OF_DRAWS);
  const second = stratifiedNormals(a.count, a.posterior.seed ^ SEED_OF_SECOND);
  const shared = b.openSd === 0 ? 0 : openCovariance(a, b) / b.openSd;
  const own = Math.sqrt(Math.max(0, a.openSd ** 2 - shared ** 2));
  return first.map((z, i) => {
    const lnA = a.ln[i >> 1]! + shared * z + own * second[i]!;
    return Math.exp(lnA) - Math.exp(b.ln[i >> 1]! + b.openSd * z);
  });
}
