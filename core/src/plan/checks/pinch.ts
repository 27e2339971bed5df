import { isExact, ratio } from '../../units';
import type { Check } from '../types';

/** One part holds the chain well below what the rest can carry. */
export const pinch: Check<'link'> = {
  id: 'pinch',
  codes: ['link/pinch'],
  reads: ['link'],
  run({ link }, rule) {
    const { pinch: p, usable } = link;
    const broken = link.hops.some((h) => h.state === 'broken');
    if (broken || p.part === null || !usable || !p.rest || link.hops.some((h) => h.unchosen.length > 0)) return [];
    const limit = rule('link.pinchCarePercent') / 100;
    // With open numbers both ends must be looked at: the same completion sets both figures.
    const share = isExact(usable.down)
      ? ratio(usable.down, p.rest)
      : { lo: usable.down.lo / p.rest.lo, hi: usable.down.hi / p.rest.hi };
    const worst = Math.min(share.lo, share.hi);
    const best = Math.max(share.lo, share.hi);
    if (!(worst < limit)) return [];
    const certain = best < limit && p.certain;
    // While it is open whether anything passes at all, that is the question, not how much.
    if (!certain && usable.down.lo === 0) return [];
    return [
      {
        code: 'link/pinch',
        slots: [p.part],
        certainty: certain ? 'certain' : 'possible',
        hangsOn: certain ? [] : p.setBy,
        params: {
          part: p.part,
          usable: { lo: usable.down.lo, hi: usable.down.hi },
          rest: p.rest,
          share: { lo: worst, hi: best },
        },
        source: 'house',
      },
    ];
  },
};
