import { type Clearance, supplyFormFits } from '../../chain';
import type { Check, FindingDraft } from '../types';
import { possible } from './certainty';

const CODE = {
  length: 'fit/too-big',
  height: 'fit/too-big',
  slots: 'fit/too-big',
  bend: 'fit/bend',
  weight: 'fit/heavy',
} as const;

function clash(row: Clearance): FindingDraft[] {
  if (row.fits === 'yes') return [];
  const certain = row.fits === 'no';
  return [
    {
      code: CODE[row.what],
      slots: ['card', 'dock'],
      about: row.side === 'end' ? 'bend-end' : row.what,
      certainty: certain ? 'certain' : 'possible',
      hangsOn: certain ? [] : row.open,
      // A figure that is not stated is left out: its words say so.
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
export const room: Check<'fit'> = {
  id: 'room',
  codes: ['fit/too-big', 'fit/bend', 'fit/heavy'],
  reads: ['fit'],
  run({ fit }) {
    const rows = fit?.rows ?? [];
    return rows.flatMap((r) => (r.what === 'bend' && !bendIsAsked(r, rows) ? [] : clash(r)));
  },
};

/** What holds the card, an open board, docks for short cards, the room for the supply, screws. */
export const mounting: Check<'fit' | 'box' | 'supplies'> = {
  id: 'mounting',
  codes: ['fit/unheld', 'fit/open-board', 'fit/short-only', 'fit/supply-form', 'fit/screws'],
  reads: ['fit', 'box', 'supplies'],
  run({ fit, box, supplies }) {
    if (!box) return [];
    const found: FindingDraft[] = [];
    const say = (
      code: FindingDraft['code'],
      params: FindingDraft['params'] = {},
      more: Partial<FindingDraft> = {},
    ) => found.push({ code, slots: ['dock'], params, source: 'common-practice', ...more });
    if (fit && fit.unheld !== 'no')
      say('fit/unheld', {}, fit.unheld === 'may' ? possible(['dock/retention']) : {});
    if (box.form === 'open-board' || fit?.uncovered)
      say('fit/open-board', { lid: box.form === 'open-board' ? 'none' : 'off' });
    if (fit?.shortOnly && fit.rows.some((r) => r.what === 'length' && r.fits === 'yes'))
      say('fit/short-only');
    for (const s of supplies) {
      const room = supplyFormFits(box.supplyForm, s.spec.form);
      // Only a dock that takes a separate supply has a place for one.
      if (
        s.feeds === 'card' ||
        room === true ||
        (room === null && typeof box.supply === 'string' && box.supply !== 'separate')
      )
        continue;
      const open = room === null ? possible(['dock/supplyForm']) : {};
      say(
        'fit/supply-form',
        { form: s.spec.form, ...(room === false && { room: String(box.supplyForm) }) },
        { about: s.key, ...open },
      );
    }
    if (box.screws !== null) say('fit/screws', { n: box.screws });
    return found;
  },
};

/** Air through the dock, the lid of the host, and noise. */
export const cooling: Check<'cooling' | 'box' | 'host' | 'card' | 'settings'> = {
  id: 'cooling',
  codes: ['cooling/hot', 'cooling/lid', 'cooling/loud'],
  reads: ['cooling', 'box', 'host', 'card', 'settings'],
  run({ cooling: c, box, host, card, settings }, rule) {
    const found: FindingDraft[] = [];
    if (c && (c.riseK === null || c.riseK.hi > c.limitK))
      found.push({
        code: 'cooling/hot',
        slots: ['dock', 'card'],
        ...(c.riseK && c.riseK.lo > c.limitK ? {} : possible(c.open)),
        params: {
          ...(c.riseK && { rise: c.riseK }),
          limit: c.limitK,
          blower: c.blower ? 'yes' : 'no',
        },
        source: 'house',
      });
    if (host?.form === 'laptop' && box && settings.lid === 'closed' && card?.cooler !== 'blower')
      found.push({ code: 'cooling/lid', slots: ['host'], params: {}, source: 'common-practice' });
    const noise = typeof box?.noiseDb === 'number' ? box.noiseDb : null;
    if (noise !== null && noise > rule('cool.noiseDb'))
      found.push({
        code: 'cooling/loud',
        slots: ['dock'],
        params: { noise, limit: rule('cool.noiseDb') },
        source: 'common-practice',
      });
    return found;
  },
};
