import { isExact } from '../../base';
import { cablesOf } from '../../chain';
import type { Check, FindingDraft } from '../types';

/** Direct PCIe has no hot-plug: everything off, mains out, before the cable is touched. */
export const allOff: Check<'link' | 'dock'> = {
  id: 'all-off',
  codes: ['link/all-off'],
  reads: ['link', 'dock'],
  run({ link }) {
    if (link.kind !== 'direct') return [];
    return [
      {
        code: 'link/all-off',
        slots: ['socket', 'path', 'dock'],
        params: {},
        source: 'common-practice',
      },
    ];
  },
};

/** What the span before the card shows under load, and that a wider card there is normal. */
export const readOut: Check<'link' | 'card'> = {
  id: 'read-out',
  codes: ['link/read-out'],
  reads: ['link', 'card'],
  run({ link, card }) {
    const last = link.hops[link.hops.length - 1];
    if (
      !card ||
      !last?.gen ||
      !last.lanes ||
      last.state !== 'ok' ||
      !isExact(last.gen) ||
      !isExact(last.lanes)
    )
      return [];
    if (typeof card.lanes !== 'number' || card.lanes <= last.lanes.lo) return [];
    return [
      {
        code: 'link/read-out',
        slots: ['card'],
        params: { gen: last.gen.lo, lanes: last.lanes.lo, cardLanes: card.lanes },
        source: 'pcie-base',
      },
    ];
  },
};

/** Watts on a USB-C cable say what it charges with, not how fast it is. */
export const cableWatts: Check<'path'> = {
  id: 'cable-watts',
  codes: ['cable/watts'],
  reads: ['path'],
  run({ path }) {
    return cablesOf(path?.pieces ?? [], 'usb-c').flatMap(({ key, spec }): FindingDraft[] => {
      if (typeof spec.markedW !== 'number') return [];
      if (typeof spec.markedGbps === 'number' && spec.markedGbps >= 40) return [];
      const marked = typeof spec.markedGbps === 'number' ? spec.markedGbps : 'not known';
      return [
        {
          code: 'cable/watts',
          slots: ['path'],
          about: key,
          params: { watts: spec.markedW, marked },
          source: 'usb-c-cable',
        },
      ];
    });
  },
};
