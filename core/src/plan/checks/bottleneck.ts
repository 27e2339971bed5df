import { isExact, type Range, ratio } from '../../base';
import { capital, maybe, partNoun, percent, rate } from '../../base/text';
import type { LinkFacts, Slot } from '../../chain';
import { defineCheck, type DraftOf } from '../check';
import { certainIf, kind, possible } from '../kind';

/** Rates in Gb/s; the share is what is usable of what the rest can carry. */
interface BottleneckParams {
  part: Slot;
  usable: Range;
  rest: Range;
  share: Range;
}

const FINDINGS = {
  'link/pinch': kind<BottleneckParams>('care', ({ part, usable, rest, share }, c) => ({
    what: `${capital(partNoun(part))} ${maybe(c, 'holds', 'may hold')} the chain to ${rate(usable)} Gb/s`,
    why: `That is ${percent(share)} % of the ${rate(rest)} Gb/s the rest can carry.`,
    todo: `Change ${partNoun(part)} if the card needs the rate; keep it if it does not.`,
  })),
};
type Draft = DraftOf<typeof FINDINGS>;

/** The part that sets the rate; null where none is named or it holds back too little. */
function setting({ pinch: p, usable }: LinkFacts, limit: number): Draft[] | null {
  if (p.part === null || !usable || !p.rest) return null;
  // With open numbers both ends must be looked at: the same completion sets both figures.
  const share = isExact(usable.down)
    ? ratio(usable.down, p.rest)
    : { lo: usable.down.lo / p.rest.lo, hi: usable.down.hi / p.rest.hi };
  const worst = Math.min(share.lo, share.hi);
  const best = Math.max(share.lo, share.hi);
  if (!(worst < limit)) return null;
  const certain = best < limit && p.certain;
  // While it is open whether anything passes at all, that is the question, not how much.
  if (!certain && usable.down.lo === 0) return [];
  return [
    {
      code: 'link/pinch',
      slots: [p.part],
      // What sets the rate may be known and only bound one that is not: that one is asked.
      ...certainIf(certain, [...p.setBy, ...(p.may?.attrs ?? [])]),
      params: {
        part: p.part,
        usable: { lo: usable.down.lo, hi: usable.down.hi },
        rest: p.rest,
        share: { lo: worst, hi: best },
      },
      source: 'house',
    },
  ];
}

/** A part that would hold the chain back in the completion that is worst for it. */
function mayHold({ pinch: { may }, usable }: LinkFacts, limit: number): Draft[] {
  if (!may || !usable || usable.down.lo === 0 || may.usable / may.rest >= limit) return [];
  return [
    {
      code: 'link/pinch',
      slots: [may.part],
      ...possible(may.attrs),
      params: {
        part: may.part,
        usable: { lo: may.usable, hi: Math.max(may.usable, usable.down.hi) },
        rest: { lo: may.rest, hi: may.rest },
        share: { lo: may.usable / may.rest, hi: Math.min(1, usable.down.hi / may.rest) },
      },
      source: 'house',
    },
  ];
}

/** One part holds the chain well below what the rest can carry: the part that sets its rate, or with open numbers one that may. */
export const bottleneck = defineCheck({
  id: 'pinch',
  reads: ['link'],
  searchGroup: 'link',
  findings: FINDINGS,
  run({ link }, rule) {
    const broken = link.hops.some((h) => h.state === 'broken');
    if (broken || !link.usable || link.hops.some((h) => h.unchosen.length > 0)) return [];
    const limit = rule('link.pinchCarePercent') / 100;
    return setting(link, limit) ?? mayHold(link, limit);
  },
});
