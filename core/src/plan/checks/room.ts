import { supplyFormFits, type Clearance } from '../../fit';
import type { Check, Draft } from '../types';

const CODE = {
  length: 'fit/too-big',
  height: 'fit/too-big',
  slots: 'fit/too-big',
  bend: 'fit/bend',
  weight: 'fit/heavy',
} as const;

function clash(row: Clearance): Draft[] {
  if (!row.need || !row.have || (row.fits !== 'no' && row.fits !== 'may')) return [];
  const certain = row.fits === 'no';
  return [
    {
      code: CODE[row.what],
      slots: ['card', 'dock'],
      about: row.what,
      certainty: certain ? 'certain' : 'possible',
      hangsOn: certain ? [] : row.open,
      params: { what: row.what, need: row.need, have: row.have },
      source: 'house',
    },
  ];
}

/** Length, height, slots, the bend of the plug and the weight. A plug that cannot bend is said only where the card itself fits. */
export const room: Check<'fit'> = {
  id: 'room',
  codes: ['fit/too-big', 'fit/bend', 'fit/heavy'],
  reads: ['fit'],
  run({ fit }) {
    const rows = fit?.rows ?? [];
    const sides = rows.filter((r) => r.what === (fit?.bend?.side === 'end' ? 'length' : 'height'));
    return rows.flatMap((r) => (r.what === 'bend' && sides.some((s) => s.fits === 'no') ? [] : clash(r)));
  },
};

/** What holds the card, an open board, docks for short cards, the room for the supply, screws. */
export const mounting: Check<'fit' | 'box' | 'supplies'> = {
  id: 'mounting',
  codes: ['fit/unheld', 'fit/open-board', 'fit/short-only', 'fit/supply-form', 'fit/screws'],
  reads: ['fit', 'box', 'supplies'],
  run({ fit, box, supplies }) {
    if (!box) return [];
    const found: Draft[] = [];
    const say = (code: Draft['code'], params: Draft['params'] = {}, about?: string) =>
      found.push({ code, slots: ['dock'], params, source: 'common-practice', ...(about && { about }) });
    if (fit?.unheld) say('fit/unheld');
    if (box.form === 'open-board') say('fit/open-board');
    if (fit?.shortOnly && fit.rows.some((r) => r.what === 'length' && r.fits === 'yes')) say('fit/short-only');
    for (const s of supplies)
      if (s.feeds !== 'card' && supplyFormFits(box.supplyForm, s.spec.form) === false)
        say('fit/supply-form', { form: s.spec.form, room: String(box.supplyForm) }, s.key);
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
    const found: Draft[] = [];
    if (c?.riseK && c.riseK.hi > c.limitK)
      found.push({
        code: 'cooling/hot',
        slots: ['dock', 'card'],
        certainty: c.riseK.lo > c.limitK ? 'certain' : 'possible',
        hangsOn: c.riseK.lo > c.limitK ? [] : c.open,
        params: { rise: c.riseK, limit: c.limitK, blower: c.blower ? 'yes' : 'no' },
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
