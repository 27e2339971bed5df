import { uniformFloat64 } from 'pure-rand/distribution/uniformFloat64';
import { xoroshiro128plus } from 'pure-rand/generator/xoroshiro128plus';

/** A row of random numbers from a seed, drawn one after another. */
export interface Chance {
  /** From 0 up to 1. */
  next(): number;
  between(lo: number, hi: number): number;
  /** Mean 0, standard deviation 1. */
  normal(): number;
  pick<T>(list: readonly [T, ...T[]]): T;
}

export function chanceOf(seed: number): Chance {
  const rng = xoroshiro128plus(seed | 0);
  const next = () => uniformFloat64(rng);
  return {
    next,
    between: (lo, hi) => lo + (hi - lo) * next(),
    // Box and Muller, Annals of Mathematical Statistics 29 (1958).
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
    pick: (list) => list[Math.floor(next() * list.length)] ?? list[0],
  };
}

/** The same, its first draws thrown away: small seeds give alike ones. */
export function mixedChance(seed: number): Chance {
  const chance = chanceOf(seed);
  for (let i = 0; i < 20; i++) chance.next();
  return chance;
}
