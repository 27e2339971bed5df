import { isExact } from '../../base';
import { asRange } from '../../base/text';
import { cablesOf, type Hop } from '../../chain';
import { defineCheck } from '../check';
import { kind } from '../kind';

/** Direct PCIe has no hot-plug: everything off, mains out, before the cable is touched. */
export const allOff = defineCheck({
  id: 'all-off',
  reads: ['link', 'dock'],
  searchGroup: 'none',
  findings: {
    'link/all-off': kind('note', () => ({
      what: 'Live plugging can destroy host and card on this link',
      why: 'Direct PCIe has no hot-plug. Everything off, mains out, then the cable.',
      todo: "Follow the maker's manual of dock and host; its word counts before this one.",
    })),
  },
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
});

/** Lanes and generation that a span trains at; null while one is open or the span does not train. */
function trainedAt(hop: Hop | undefined): { gen: number; lanes: number } | null {
  if (!hop?.gen || !hop.lanes || hop.state !== 'ok') return null;
  return isExact(hop.gen) && isExact(hop.lanes) ? { gen: hop.gen.lo, lanes: hop.lanes.lo } : null;
}

/** What the span before the card shows under load, and that a wider card there is normal. */
export const readOut = defineCheck({
  id: 'read-out',
  reads: ['link', 'card'],
  searchGroup: 'none',
  findings: {
    'link/read-out': kind<{ gen: number; lanes: number; cardLanes: number }>('note', (p) => ({
      what: `Under load this chain should show ×${asRange(p.lanes).lo} Gen${asRange(p.gen).lo}`,
      why: `The card could do ×${asRange(p.cardLanes).lo}; a narrower read-out is normal here.`,
      todo: 'Read it under load: an idle link rests at a lower rate.',
    })),
  },
  run({ link, card }) {
    const trained = trainedAt(link.hops[link.hops.length - 1]);
    if (!card || !trained) return [];
    if (typeof card.lanes !== 'number' || card.lanes <= trained.lanes) return [];
    return [
      {
        code: 'link/read-out',
        slots: ['card'],
        params: { ...trained, cardLanes: card.lanes },
        source: 'pcie-base',
      },
    ];
  },
});

/** Watts on a USB-C cable say what it charges with, not how fast it is. */
export const cableWatts = defineCheck({
  id: 'cable-watts',
  reads: ['path'],
  searchGroup: 'none',
  findings: {
    'cable/watts': kind<{ watts: number; marked: number | 'not known' }>(
      'note',
      ({ watts, marked }) => ({
        what: `"${asRange(watts).lo} W" on a cable says what it charges with, not how fast it is`,
        why:
          typeof marked === 'number'
            ? `This one is marked ${marked} Gb/s.`
            : 'The rate this one is marked with is not known.',
        todo: 'Go by the mark in Gb/s.',
      }),
      { cause: 'cable-charges' },
    ),
  },
  run({ path }) {
    return cablesOf(path?.pieces ?? [], 'usb-c').flatMap(({ key, spec }) => {
      const { markedW, markedGbps } = spec;
      if (typeof markedW !== 'number') return [];
      if (typeof markedGbps === 'number' && markedGbps >= 40) return [];
      const marked = typeof markedGbps === 'number' ? markedGbps : ('not known' as const);
      return [
        {
          code: 'cable/watts' as const,
          slots: ['path' as const],
          about: key,
          params: { watts: markedW, marked },
          source: 'usb-c-cable' as const,
        },
      ];
    });
  },
});
