import { randomNormal } from 'd3-random';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** A seeded source of chance: the same seed gives the same row of numbers on every machine. */
export interface RandomSource {
  /** From 0 to 1, 1 excluded. */
  readonly uniform: () => number;
  /** Standard normal. */
  readonly normal: () => number;
  /** A whole number from 0 to `n` - 1. */
  readonly below: (n: number) => number;
}

/** A step of numbers from 0 to 1: 32 bits are enough here, and twice as fast as 53. */
const UNIT = 2 ** -32;

/**
 * A row of random numbers that depends on the seed alone.
 * @param seed a whole number; its lower 32 bits count
 * @returns the source
 */
export function randomSource(seed: number): RandomSource {
  const generator = xoroshiro128plus(seed | 0);
  const uniform = () => (generator.next() >>> 0) * UNIT;
  return {
    uniform,
    normal: randomNormal.source(uniform)(),
    below: (n) => Math.floor(uniform() * n),
  };
}

/**
 * A text as a seed.
 *
 * Source: the FNV-1a hash, 32 bits, over UTF-16 units (G. Fowler, L. C. Noll, K.-P. Vo, D. Eastlake, The FNV Non-Cryptographic Hash Algorithm).
 * @param text any text
 * @returns a whole number from 0 to 2^32 - 1
 * @example seedOf('') // => 2166136261
 */
export function seedOf(text: string): number {
  let hash = 2166136261;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 16777619);
  return hash >>> 0;
}
