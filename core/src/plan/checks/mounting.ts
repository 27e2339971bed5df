import type { Range } from '../../base';
import { asRange, figure, maybe } from '../../base/text';
import { type Chain, supplyFormFits } from '../../chain';
import type { DockSpec } from '../../parts';
import { defineCheck, type DraftOf } from '../check';
import { kind, possible } from '../kind';

const FINDINGS = {
  'fit/supply-form': kind<{ form: string; room?: string }>('blocks', ({ form, room }, c) => ({
    what: maybe(c, 'The supply does not go into the dock', 'The supply may not go into the dock'),
    why: room ? `${form.toUpperCase()} supply, room for ${room.toUpperCase()}.` : c.notKnown,
    todo: 'Take a supply of the right form.',
  })),
  'fit/unheld': kind('care', (_, c) => ({
    what: maybe(c, 'Only its slot holds the card', 'Only its slot may hold the card'),
    why: 'A pull on the screen cable tips it and breaks the slot.',
    todo: 'Fix the bracket to something solid, and lead the cables with slack.',
  })),
  'fit/short-only': kind('note', () => ({
    what: 'This dock takes special short cards only',
    why: 'This one fits; few others will.',
    todo: 'Think of the next card before you buy the dock.',
  })),
  'fit/screws': kind<{ n: number | Range }>('note', ({ n }) => ({
    what: `${figure(asRange(n))} screws to open the dock`,
    why: 'Each change of card means undoing them.',
    todo: 'Mains out first. Keep the screws in a tray, in their order.',
  })),
};
type Draft = DraftOf<typeof FINDINGS>;

const COMMON = { slots: ['dock'], source: 'common-practice' } as const;

/** A supply that does not go where the dock takes one; only a dock for a separate supply has such a place. */
function misplaced(box: DockSpec, { key, feeds, spec }: Chain['supplies'][number]): Draft[] {
  const fits = supplyFormFits(box.supplyForm, spec.form);
  const noPlace = typeof box.supply === 'string' && box.supply !== 'separate';
  if (feeds === 'card' || fits === true || (fits === null && noPlace)) return [];
  return [
    {
      code: 'fit/supply-form',
      ...COMMON,
      about: key,
      params: { form: spec.form, ...(fits === false && { room: String(box.supplyForm) }) },
      ...(fits === null && possible(['dock/supplyForm'])),
    },
  ];
}

/** What holds the card, docks for short cards, the room for the supply, screws. */
export const mounting = defineCheck({
  id: 'mounting',
  reads: ['fit', 'box', 'supplies'],
  searchGroup: 'mount',
  findings: FINDINGS,
  run({ fit, box, supplies }) {
    if (!box) return [];
    const found: Draft[] = [];
    if (fit && fit.unheld !== 'no')
      found.push({
        code: 'fit/unheld',
        ...COMMON,
        params: {},
        ...(fit.unheld === 'may' && possible(['dock/retention'])),
      });
    if (fit?.shortOnly && fit.rows.some((r) => r.what === 'length' && r.fits === 'yes'))
      found.push({ code: 'fit/short-only', ...COMMON, params: {} });
    found.push(...supplies.flatMap((s) => misplaced(box, s)));
    if (box.screws !== null)
      found.push({ code: 'fit/screws', ...COMMON, params: { n: box.screws } });
    return found;
  },
});

/** Live parts within reach: an open board, or an enclosure run without its lid. */
export const liveParts = defineCheck({
  id: 'live-parts',
  reads: ['fit', 'box'],
  searchGroup: 'none',
  findings: {
    'fit/open-board': kind<{ lid: 'none' | 'off' }>('note', ({ lid }) => ({
      what:
        lid === 'off'
          ? 'Live parts lie open without the lid'
          : 'A live open board can short or tip',
      why: 'Nothing stands between its contacts and a drink, a screw, a paw.',
      todo: "Mains out before any hand goes near; keep drinks, children and pets away. The maker's manual counts before this.",
    })),
  },
  run({ fit, box }) {
    const open = box?.form === 'open-board';
    if (!open && !(box && fit?.uncovered)) return [];
    const params = { lid: open ? ('none' as const) : ('off' as const) };
    return [{ code: 'fit/open-board', ...COMMON, params }];
  },
});
