import { COMMON, ESTIMATE, HOUSE, type Rule } from './types';

/** Rules about bringing a chain up, and about what its counters say. */
export const BRING_UP_RULES = {
  'steps.lampS': {
    label: 'Wait for the lamp of the dock',
    unit: 's',
    default: 10,
    min: 1,
    max: 120,
    reason: 'A dock trains its fans and link first.',
    source: COMMON,
  },
  'steps.loadMinutes': {
    label: 'Keep the card under load for',
    unit: 'min',
    default: 10,
    min: 1,
    max: 240,
    reason: 'Long enough for supply, cable and air to settle.',
    source: HOUSE,
  },
  'steps.driverBefore': {
    label: 'Card driver before the first plug',
    unit: '1 yes, 0 no',
    default: 1,
    min: 0,
    max: 1,
    whole: true,
    reason:
      'Both schools exist; a driver that is there first spares a start without a picture. Each attempt may choose.',
    source: HOUSE,
  },
  'health.correctedPerHour': {
    label: 'A link is low from corrected errors of',
    unit: 'an hour',
    default: 60,
    min: 1,
    max: 1_000_000,
    reason: 'Corrected errors come before a link falls a generation; a few an hour are nothing.',
    source: ESTIMATE,
  },
  'health.toldApartPercent': {
    label: 'A trend counts when chance would show it in fewer than',
    unit: '% of cases',
    default: 5,
    min: 0.1,
    max: 50,
    reason: 'The usual line; with a handful of readings little can pass it.',
    source: COMMON,
  },
} as const satisfies Record<string, Rule>;
