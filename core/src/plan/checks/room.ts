import type { Range } from '../../base';
import { asRange, capital, figure, length, maybe } from '../../base/text';
import type { Clearance } from '../../chain';
import { defineCheck, type DraftOf } from '../check';
import { certainIf, type JoinedParams, kind } from '../kind';

/** mm, slots or g by what is compared; a figure that is not stated is left out. */
interface Sizes {
  what: Clearance['what'];
  need?: Range;
  have?: Range;
}
type Shown = JoinedParams<Sizes>;

const SIDE: Readonly<Record<Clearance['what'], string>> = {
  length: 'long',
  height: 'high',
  slots: 'wide',
  weight: 'big',
  bend: 'big',
};
const size = (what: Shown['what'], value: Range) =>
  what === 'slots' ? `${figure(value, 1)} slots` : length(value);

const FINDINGS = {
  'fit/too-big': kind<Sizes>(
    'blocks',
    ({ what, need, have }, c) => ({
      what: maybe(c, `The card is too ${SIDE[what]}`, `The card may be too ${SIDE[what]}`),
      why:
        need && have
          ? `${capital(size(what, need))}; the dock has room for ${size(what, have)}.`
          : c.notKnown,
      todo: 'Take a smaller card or a bigger dock; measure before you buy.',
    }),
    { cause: 'too-big' },
  ),
  'fit/bend': kind<Sizes>('care', ({ need, have }, c) => ({
    what: maybe(c, 'The power plug has no room to bend', 'The power plug may have no room to bend'),
    why: `${maybe(c, '', `${c.notKnown} `)}With its bend the card needs ${length(asRange(need))}, the dock has ${length(asRange(have))}. Pressed by a lid, a plug works loose and can burn.`,
    todo: 'Take an angled plug made for this socket, or a dock with more room.',
  })),
  'fit/heavy': kind<Sizes>('care', ({ need, have }, c) => ({
    what: maybe(
      c,
      'The card is heavier than the dock bears',
      'The card may be heavier than the dock bears',
    ),
    why: need && have ? `${figure(need)} g on a dock for ${figure(have)} g.` : c.notKnown,
    todo: 'Support the card at its far end, or lay the dock on its side.',
  })),
};
type Draft = DraftOf<typeof FINDINGS>;

const CODE = {
  length: 'fit/too-big',
  height: 'fit/too-big',
  slots: 'fit/too-big',
  bend: 'fit/bend',
  weight: 'fit/heavy',
} as const;

function clash(row: Clearance): Draft[] {
  if (row.fits === 'yes') return [];
  return [
    {
      code: CODE[row.what],
      slots: ['card', 'dock'],
      about: row.side === 'end' ? 'bend-end' : row.what,
      ...certainIf(row.fits === 'no', row.open),
      params: {
        what: row.what,
        ...(row.need && { need: row.need }),
        ...(row.have && { have: row.have }),
      },
      source: 'house',
    },
  ];
}

/** A bend is said only where the card itself fits or may fit with its figures stated: otherwise the size is the question. */
function bendIsAsked(row: Clearance, rows: readonly Clearance[]): boolean {
  const side = row.side === 'end' ? 'length' : 'height';
  return rows.some((r) => r.what === side && r.fits !== 'no' && r.fits !== null);
}

/** Length, height, slots, the bend of the plug and the weight. A plug that cannot bend is said only where the card itself fits. */
export const room = defineCheck({
  id: 'room',
  reads: ['fit'],
  searchGroup: 'fit',
  findings: FINDINGS,
  run({ fit }) {
    const rows = fit?.rows ?? [];
    return rows.flatMap((r) => (r.what === 'bend' && !bendIsAsked(r, rows) ? [] : clash(r)));
  },
});
