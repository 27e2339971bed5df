import { randomLcg } from 'd3-random';

/** Chance that can be had again: the same seed gives the same choices. */
export function chance(seed) {
  const next = randomLcg(seed / 0x7fffffff);
  const int = (lo, hi) => lo + Math.floor(next() * (hi - lo + 1));
  const hex = (n) => Array.from({ length: n }, () => int(0, 15).toString(16)).join('');
  return {
    next,
    int,
    of: (list) => list[int(0, list.length - 1)],
    /** An id that looks like a version 7 UUID. */
    id: () => `${hex(8)}-${hex(4)}-7${hex(3)}-8${hex(3)}-${hex(12)}`,
  };
}
