import type { Range } from '../../base';
import { asRange, figure, maybe } from '../../base/text';
import { defineCheck, type DraftOf } from '../check';
import { kind, possible } from '../kind';

const FINDINGS = {
  // Kelvin above the air of the room.
  'cooling/hot': kind<{ rise?: Range; limit: number; blower: 'yes' | 'no' }>(
    'care',
    ({ rise, limit }, c) => ({
      what: maybe(c, 'Hot air stays in the dock', 'Hot air may stay in the dock'),
      why: rise
        ? `Air leaves ${figure(rise)} K warmer than it came; comfortable up to ${figure(asRange(limit))} K.`
        : c.notKnown,
      todo: "Leave its vents free, take a dock with more air or a blower card, or lower the card's power limit.",
    }),
    { cause: 'heat' },
  ),
  'cooling/lid': kind(
    'note',
    () => ({
      what: 'Lid closed',
      why: 'Some hosts breathe through the keyboard: open gave about 1.4 % clock with an open-air card in one set of runs.',
      todo: 'Measure both before you decide.',
    }),
    { cause: 'heat' },
  ),
  // dB(A) under load.
  'cooling/loud': kind<{ noise: number; limit: number }>('note', ({ noise, limit }) => ({
    what: `Loud: ${figure(asRange(noise))} dB(A) under load`,
    why: `A quiet room has about 30; said from ${figure(asRange(limit))}.`,
    todo: 'Stand it under the table with its vents free; a longer active cable may be needed for that.',
  })),
};

/** Air through the dock, the lid of the host, and noise. */
export const cooling = defineCheck({
  id: 'cooling',
  reads: ['cooling', 'box', 'host', 'card', 'settings'],
  searchGroup: 'cool',
  findings: FINDINGS,
  run({ cooling: c, box, host, card, settings }, rule) {
    const found: DraftOf<typeof FINDINGS>[] = [];
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
});
