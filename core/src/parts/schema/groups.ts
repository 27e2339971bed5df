import type { PartKind } from './parts';

/** Attributes that belong together, for forms and column choosers. What is named in no group stands in the first. */
export interface AttrGroup {
  readonly title: string;
  readonly keys: readonly string[];
}

const SUPPLY = [
  'supplyW',
  'supplyStandard',
  'efficiency',
  'condition',
  'cables8Pin',
  'cables8PinPair',
  'cables6Pin',
  'cables16Pin',
  'cables16Are',
  'cable16PinW',
  'cablesCpu8Pin',
];

/** The groups of a kind after its first one, "What it is". */
const GROUPS: Partial<Record<PartKind, readonly AttrGroup[]>> = {
  host: [
    { title: 'Power', keys: ['batteryWh', 'drawW', 'chargeMinW'] },
    { title: 'Opening it', keys: ['openDepth', 'openScrews', 'fixings', 'fanOnLid', 'compound'] },
    { title: 'Panel', keys: ['panelWidthPx', 'panelHeightPx', 'panelHz'] },
  ],
  dock: [
    {
      title: 'Link',
      keys: [
        'connector',
        'uplink',
        'tb3Compat',
        'controllerClass',
        'capGbps',
        'capFirmware',
        'capBeforeGbps',
        'ownLead',
        'slotGen',
        'slotLanes',
        'family',
      ],
    },
    { title: 'Power', keys: ['slotW', 'supply', ...SUPPLY, 'supplyForm', 'chargeOutW'] },
    {
      title: 'Room and air',
      keys: [
        'innerLengthMm',
        'innerHeightMm',
        'innerSlots',
        'retention',
        'maxWeightG',
        'screws',
        'airflowCfm',
        'noiseDb',
        'videoOut',
      ],
    },
  ],
  card: [
    {
      title: 'Power',
      keys: [
        'boardW',
        'slotW',
        'plugs8Pin',
        'plugs6Pin',
        'plugs16Pin',
        'sockets16Are',
        'adapter16Pin',
        'plugSide',
        'plugAngled',
      ],
    },
    { title: 'Size', keys: ['lengthMm', 'heightMm', 'slots', 'weightG', 'cooler'] },
    {
      title: 'Chip',
      keys: [
        'family',
        'chip',
        'units',
        'namesake',
        'namesakeUnits',
        'namesakeMemoryGB',
        'namesakeW',
      ],
    },
    { title: 'Picture', keys: ['dpLevel', 'hdmiLevel', 'compression'] },
  ],
  supply: [{ title: 'Plugs', keys: SUPPLY.slice(4) }],
  screen: [{ title: 'Inputs', keys: ['dpLevel', 'hdmiLevel', 'compression'] }],
  requirement: [
    {
      title: 'When',
      keys: ['andCard', 'onSystem', 'systemFrom', 'systemUntil', 'fromOn', 'untilOn'],
    },
    {
      title: 'Then',
      keys: ['severity', 'effect', 'workaround', 'workaroundFrom', 'workaroundUntil'],
    },
    { title: 'Where from', keys: ['source', 'statedOn', 'confidence'] },
  ],
};

/**
 * The attributes of a kind in their groups.
 * @param kind of part
 * @param keys of its attributes, in the order of the schema
 * @returns groups; every key stands in one
 */
export function groupsOf(kind: PartKind, keys: readonly string[]): AttrGroup[] {
  const later = GROUPS[kind] ?? [];
  const placed = new Set(later.flatMap((g) => g.keys));
  return [{ title: 'What it is', keys: keys.filter((k) => !placed.has(k)) }, ...later];
}
