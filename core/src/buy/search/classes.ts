import type { CardSpec, DockSpec } from '../../parts';

/**
 * What each partial judgement reads of a part. Parts that are alike in these attributes share one result; reading another attribute is
 * an error, so that a list which lacks one is noticed at once and not believed.
 */
const POWER_OWN = [
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
] as const;
const PLUGS = ['plugs8Pin', 'plugs6Pin', 'plugs16Pin', 'sockets16Are', 'adapter16Pin'] as const;

const ROOM = [
  'form',
  'innerLengthMm',
  'innerHeightMm',
  'innerSlots',
  'beyond',
  'retention',
  'maxWeightG',
] as const;

export const DOCK_READS = {
  link: [
    'connector',
    'fixedLead',
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
  charge: ['chargeOutW'],
  power: ['form', 'supply', 'slotW', 'chargeOutW', ...POWER_OWN],
  mount: ['supply', 'supplyForm', ...ROOM, 'screws'],
  fit: ROOM,
  cool: ['form', 'airflowCfm', 'noiseDb'],
} as const satisfies Record<string, readonly (keyof DockSpec)[]>;

export const CARD_READS = {
  link: ['pcieGen', 'lanes'],
  power: ['boardW', 'slotW', ...PLUGS],
  fit: ['lengthMm', 'heightMm', 'slots', 'weightG', 'plugSide', 'plugAngled', ...PLUGS],
  cool: ['boardW', 'cooler'],
  screen: ['dpLevel', 'hdmiLevel', 'compression'],
  own: [
    'chip',
    'namesake',
    'units',
    'namesakeUnits',
    'memoryGB',
    'namesakeMemoryGB',
    'boardW',
    'namesakeW',
    'innerSwitch',
  ],
} as const satisfies Record<string, readonly (keyof CardSpec)[]>;

const NAMES = ['maker', 'model', 'variant'];

/** What parts restricted to these attributes inherit: empty names, and an error for each attribute that was not named. */
const restricted = new WeakMap<readonly unknown[], object>();

function restrictedTo(spec: object, keys: readonly PropertyKey[]): object {
  const known = restricted.get(keys);
  if (known) return known;
  const made = {};
  for (const key of new Set([...Object.keys(spec), ...NAMES]))
    if (!keys.includes(key))
      Object.defineProperty(made, key, {
        get: () => {
          if (NAMES.includes(key)) return '';
          throw new TypeError(`a partial judgement read "${key}" of a part without saying so`);
        },
      });
  restricted.set(keys, made);
  return made;
}

/**
 * Restricts a part to some of its attributes, so that a list which lacks one that is read is noticed at once.
 *
 * @param spec the part; not modified
 * @param keys attributes to keep; the list is always the same array
 * @returns the part without the others and without its name
 * @throws {Error} later, when another attribute of it is read
 */
export function only<S extends object>(spec: S, keys: readonly (keyof S)[]): S {
  const given = Object.create(restrictedTo(spec, keys)) as S;
  for (const key of keys) given[key] = spec[key];
  return given;
}

/** Parts sorted into classes that are alike in some attributes: the class of each part, and the first part of each class. */
export interface Classes<S> {
  readonly of: Int32Array;
  readonly first: readonly S[];
}

/**
 * Groups parts by a key.
 *
 * @param specs parts
 * @param key key of a part; equal keys are one class
 * @returns class of each part by index, and the first part of each class
 */
export function classesOf<S extends object>(
  specs: readonly S[],
  key: (spec: S) => string,
): Classes<S> {
  const at = new Map<string, number>();
  const first: S[] = [];
  const of = Int32Array.from(specs, (spec) => {
    const k = key(spec);
    const known = at.get(k);
    if (known !== undefined) return known;
    at.set(k, first.length);
    return first.push(spec) - 1;
  });
  return { of, first };
}

/**
 * Groups parts by some attributes. The representative of a class has no others.
 *
 * @param specs parts
 * @param keys attributes that an evaluation reads
 * @returns class of each part by index, and one restricted part a class
 */
export function byReads<S extends object>(
  specs: readonly S[],
  keys: readonly (keyof S)[],
): Classes<S> {
  const { of, first } = classesOf(specs, (s) => JSON.stringify(keys.map((k) => s[k])));
  return { of, first: first.map((s) => only(s, keys)) };
}
