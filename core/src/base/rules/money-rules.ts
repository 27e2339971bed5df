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
    reason:
      'Cards change price within weeks; an old offer is said to be old and only counts when there is no younger one.',
    source: HOUSE,
  },
  'scout.stopsPer100': {
    label: 'A step stops paying below',
    unit: 'frames/s per 100',
    default: 2,
    min: 0,
    max: 1000,
    reason:
      'Frames a second for each 100 of money: below this, and below half of what the step before gave, the next card is said not to pay.',
    source: HOUSE,
  },
  'scout.equalPercent': {
    label: 'Cards count as equal within',
    unit: '%',
    default: 5,
    min: 0,
    max: 50,
    reason:
      'A difference nobody sees in play; repeats of one run scatter by two or three per cent.',
    source: HOUSE,
  },
} as const satisfies Record<string, Rule>;
