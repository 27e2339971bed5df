import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** A number from 0 up to 1 that hangs on nothing but the seed, what it is for, and how often that was asked before. */
export type Noise = (what: string, n?: number) => number;

/** FNV-1a over a text, 32 bit: it spreads what a number is for over the seeds. Source: RFC draft-eastlake-fnv, from memory. */
function spread(text: string): number {
  let hash = 0x811c9dc5;
  for (let i = 0; i < text.length; i++) hash = Math.imul(hash ^ text.charCodeAt(i), 0x01000193);
  return hash | 0;
}

/** Noise that does not hang on the order in which it is asked: two readings of one bench never disturb each other. */
export function noiseOf(seed: number): Noise {
  return (what, n = 0) => uniformFloat64(xoroshiro128plus(spread(`${seed}/${what}/${n}`)));
}

/** A value between two ends. */
export function between(noise: Noise, what: string, n: number, lo: number, hi: number): number {
  return lo + (hi - lo) * noise(what, n);
}
