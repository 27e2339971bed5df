import { createHash } from 'node:crypto';
import { randomLcg } from 'd3-random';

/** Chance that can be had again: the same seed gives the same choices. Ids come from a hash over `name`, so that no two streams meet. */
export function chance(seed, name = String(seed)) {
  const next = randomLcg((seed % 0x7fffffff) / 0x7fffffff);
  const int = (lo, hi) => lo + Math.floor(next() * (hi - lo + 1));
  let made = 0;
  return {
    next,
    int,
    of: (list) => list[int(0, list.length - 1)],
    /** An id that looks like a version 7 UUID. */
    id: () => {
      const h = createHash('sha256').update(`${name}/${made++}`).digest('hex');
      return `${h.slice(0, 8)}-${h.slice(8, 12)}-7${h.slice(12, 15)}-8${h.slice(15, 18)}-${h.slice(18, 30)}`;
    },
  };
}
