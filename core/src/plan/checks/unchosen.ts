import type { Check, FindingDraft } from '../types';

/** A slot without a part leaves the chain at "not enough known", unless something already blocks it. */
export const unchosen: Check<'socket' | 'path' | 'dock' | 'card'> = {
  id: 'unchosen',
  codes: ['plan/unchosen'],
  reads: ['socket', 'path', 'dock', 'card'],
  run(facts) {
    const slots = ['socket', 'path', 'dock', 'card'] as const;
    return slots.flatMap((slot): FindingDraft[] =>
      // A path that ends in a card slot needs no dock.
      facts[slot] === null && !(slot === 'dock' && facts.path?.endsInSlot)
        ? [
            {
              code: 'plan/unchosen',
              slots: [slot],
              certainty: 'possible',
              hangsOn: [slot],
              params: { slot },
              source: 'house',
            },
          ]
        : [],
    );
  },
};
