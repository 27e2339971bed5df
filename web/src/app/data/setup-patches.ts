import equal from 'fast-deep-equal';
import type { Setup, SetupPatch, SetupSlots } from '@ruddy/core/api';
import { changeSlots } from '@ruddy/core/setup';

export type Fields = Pick<Setup, 'name' | 'state' | 'notes' | 'slots' | 'loads' | 'installed'>;

/** A setup's fields with a patch applied, as the server will apply it. */
export function applyPatch(s: Fields, p: SetupPatch): Fields {
  return {
    name: p.name ?? s.name,
    state: p.state ?? s.state,
    notes: p.notes ?? s.notes,
    slots: changeSlots(s.slots, p.slots),
    loads: p.loads ?? s.loads,
    installed: p.installed ?? s.installed,
  };
}

/** Equal whatever the order of keys: the database keeps its own. */
const same: (a: unknown, b: unknown) => boolean = equal;

/** The patch that leads from one state to another; empty when they are equal. */
export function patchBetween(from: Fields, to: Fields): SetupPatch {
  const patch: SetupPatch = {};
  if (from.name !== to.name) patch.name = to.name;
  if (from.state !== to.state) patch.state = to.state;
  if (from.notes !== to.notes) patch.notes = to.notes;
  if (!same(from.loads, to.loads)) patch.loads = to.loads;
  if (!same(from.installed, to.installed)) patch.installed = to.installed;
  const slots: Partial<SetupSlots> = {};
  if (from.slots.host !== to.slots.host) slots.host = to.slots.host;
  if (from.slots.socket !== to.slots.socket || slots.host !== undefined) slots.socket = to.slots.socket;
  if (!same(from.slots.path, to.slots.path)) slots.path = to.slots.path;
  if (from.slots.dock !== to.slots.dock) slots.dock = to.slots.dock;
  if (from.slots.card !== to.slots.card) slots.card = to.slots.card;
  if (Object.keys(slots).length > 0) patch.slots = slots;
  return patch;
}

export function isEmpty(p: SetupPatch): boolean {
  return Object.keys(p).length === 0;
}

export const FIELD_LABELS = {
  name: 'Name',
  state: 'State',
  notes: 'Notes',
  'slots/host': 'Host',
  'slots/socket': 'Port',
  'slots/path': 'Cable',
  'slots/dock': 'Dock',
  'slots/card': 'Card',
  loads: 'What else hangs on the dock',
  installed: 'Dock firmware',
} as const;
export type FieldPath = keyof typeof FIELD_LABELS;
export const FIELD_PATHS = Object.keys(FIELD_LABELS) as FieldPath[];

/** The value of one field. */
export function fieldOf(s: Fields, path: FieldPath): unknown {
  const [first, slot] = path.split('/') as [keyof Fields, keyof SetupSlots | undefined];
  return slot ? s.slots[slot] : s[first];
}

/** Fields that both sides changed since `base`, each to something else. */
export function conflicts(base: Fields, mine: Fields, theirs: Fields): FieldPath[] {
  return FIELD_PATHS.filter((p) => {
    const [b, m, t] = [fieldOf(base, p), fieldOf(mine, p), fieldOf(theirs, p)];
    return !same(m, b) && !same(t, b) && !same(m, t);
  });
}

/** Both sides' changes together; where they disagree, `pick` says whose stands. */
export function mergeFields(base: Fields, mine: Fields, theirs: Fields, pick: (p: FieldPath) => 'mine' | 'theirs'): Fields {
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
