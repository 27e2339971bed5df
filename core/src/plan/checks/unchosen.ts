import { capital, partNoun } from '../../base/text';
import { defineCheck } from '../check';
import { kind, possible } from '../kind';

const SLOTS = ['socket', 'path', 'dock', 'card'] as const;

/** A slot without a part leaves the chain at "not enough known", unless something already blocks it. */
export const unchosen = defineCheck({
  id: 'unchosen',
  reads: SLOTS,
  searchGroup: 'link',
  findings: {
    'plan/unchosen': kind<{ slot: (typeof SLOTS)[number] }>('blocks', ({ slot }) => ({
      what: `${capital(partNoun(slot))} is not chosen yet`,
      why: 'The chain cannot be judged to its end without it.',
      todo: `Choose ${partNoun(slot)} at the left.`,
    })),
  },
  run(facts) {
    // A path that ends in a card slot needs no dock.
    const needed = (slot: (typeof SLOTS)[number]) => slot !== 'dock' || !facts.path?.endsInSlot;
    return SLOTS.filter((slot) => facts[slot] === null && needed(slot)).map((slot) => ({
      code: 'plan/unchosen',
      slots: [slot],
      ...possible([slot]),
      params: { slot },
      source: 'house',
    }));
  },
});
