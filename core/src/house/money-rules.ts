import { HOUSE, type Rule } from './types';

/** Rules about prices. */
export const MONEY_RULES = {
  'cost.oldDays': {
    label: 'A price is old after',
    unit: 'days',
    default: 60,
    min: 1,
    max: 3650,
    whole: true,
    reason: 'Cards change price within weeks; an old offer is said to be old and only counts when there is no younger one.',
    source: HOUSE,
  },
} as const satisfies Record<string, Rule>;
