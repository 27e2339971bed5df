import { HOUSE, type Rule } from './types';

const share = (label: string, value: number, reason: string) =>
  ({
    label,
    unit: 'of 1',
    default: value,
    min: 0,
    max: 1,
    reason,
    source: HOUSE,
  }) as const satisfies Rule;

/** How near entries of the log count where the exact chain was seen seldom or never. */
export const LOG_RULES = {
  'near.host': share(
    'Near entry: same host counts',
    0.3,
    'The machine and its firmware decide most of what fails.',
  ),
  'near.link': share(
    'Near entry: same kind of port counts',
    0.3,
    'Connector and standard set what the link can do at all.',
  ),
  'near.dock': share(
    'Near entry: same dock or adapter counts',
    0.2,
    'Its controller, firmware and supply come along.',
  ),
  'near.family': share('Near entry: same card family counts', 0.2, 'A family shares its driver.'),
  'near.changed': share(
    'Versions that changed count',
    0.5,
    'What worked under another driver or firmware is a hint, no proof.',
  ),
  'near.strength': {
    label: 'All near entries together weigh at most',
    unit: 'entries',
    default: 4,
    min: 0,
    max: 100,
    reason: 'A handful of own tries should outweigh any number of chains that are merely like it.',
    source: HOUSE,
  },
} as const satisfies Record<string, Rule>;
