import equal from 'fast-deep-equal';
import {
  changeSlots,
  SETUP_FIELD_NAMES,
  SETUP_FIELDS,
  type SetupField,
  setupFields,
} from '@ruddy/core/setups';
import type { Setup, SetupPatch, SetupSlots } from '@ruddy/core/setups/contract';

/** What is replaced as a whole: name, state and every field beside the slots. */
const PLAIN = ['name', 'state', ...SETUP_FIELD_NAMES] as const;
type Plain = (typeof PLAIN)[number];
export type Fields = Pick<Setup, Plain | 'slots'>;

/** Only what can be edited. */
export function fieldsOf(s: Fields): Fields {
  return { name: s.name, state: s.state, slots: s.slots, ...setupFields(s) };
}

/** A setup's fields with a patch applied, as the server will apply it. */
export function applyPatch(s: Fields, { slots, session, ...plain }: SetupPatch): Fields {
  void session;
  return { ...fieldsOf(s), ...plain, slots: changeSlots(s.slots, slots) };
}

/** Equal whatever the order of keys: the database keeps its own. */
const same: (a: unknown, b: unknown) => boolean = equal;

/** The patch that leads from one state to another; empty when they are equal. */
export function patchBetween(from: Fields, to: Fields): SetupPatch {
  const patch: SetupPatch = {};
  for (const key of PLAIN) if (!same(from[key], to[key])) Object.assign(patch, { [key]: to[key] });
  const slots: Partial<SetupSlots> = {};
  for (const key of Object.keys(to.slots) as (keyof SetupSlots)[])
    if (!same(from.slots[key], to.slots[key])) Object.assign(slots, { [key]: to.slots[key] });
  // A new host brings its own ports: the port goes with it.
  if (slots.host !== undefined) slots.socket = to.slots.socket;
  if (Object.keys(slots).length > 0) patch.slots = slots;
  return patch;
}

export function isEmpty(p: SetupPatch): boolean {
  return Object.keys(p).length === 0;
}

const SLOT_LABELS = {
  name: 'Name',
  state: 'State',
  'slots/host': 'Host',
  'slots/socket': 'Port',
  'slots/path': 'Cable',
  'slots/dock': 'Dock',
  'slots/card': 'Card',
  'slots/supplies': 'Supplies',
  'slots/screens': 'Screens',
  'slots/system': 'System',
  'slots/spares': 'Other cards',
  'slots/items': 'Items named',
} as const;
export type FieldPath = keyof typeof SLOT_LABELS | SetupField;
export const FIELD_LABELS: Readonly<Record<FieldPath, string>> = {
  ...SLOT_LABELS,
  ...(Object.fromEntries(SETUP_FIELD_NAMES.map((f) => [f, SETUP_FIELDS[f].label])) as Record<
    SetupField,
    string
  >),
};
export const FIELD_PATHS = Object.keys(FIELD_LABELS) as FieldPath[];

/** The value of one field. */
export function fieldOf(s: Fields, path: FieldPath): unknown {
  const [first, slot] = path.split('/') as [keyof Fields, keyof SetupSlots | undefined];
  return slot ? s.slots[slot] : s[first];
}

/** Fields that both sides changed since `base`, each to something else. */
export function conflicts(base: Fields, mine: Fields, theirs: Fields): FieldPath[] {
  return FIELD_PATHS.filter((p) => {
    const b = fieldOf(base, p);
    const m = fieldOf(mine, p);
    const t = fieldOf(theirs, p);
    return !same(m, b) && !same(t, b) && !same(m, t);
  });
}

/** Both sides' changes together; where they disagree, `pick` says whose stands. */
export function mergeFields(
  base: Fields,
  mine: Fields,
  theirs: Fields,
  pick: (p: FieldPath) => 'mine' | 'theirs',
): Fields {
  const clash = new Set(conflicts(base, mine, theirs));
  const merged: Fields = { ...theirs, slots: { ...theirs.slots } };
  for (const p of FIELD_PATHS) {
    const changed = !same(fieldOf(mine, p), fieldOf(base, p));
    if (!changed || (clash.has(p) && pick(p) === 'theirs')) continue;
    const [first, slot] = p.split('/') as [keyof Fields, keyof SetupSlots | undefined];
    if (slot) Object.assign(merged.slots, { [slot]: mine.slots[slot] });
    else Object.assign(merged, { [first]: mine[first] });
  }
  return merged;
}
