import * as z from 'zod';
import { instant, origin, uuid } from '../../base/contract';
import { feeds, loadsSchema, shownBy, videoPlug } from '../../chain';
import {
  installedSchema,
  NO_SETTINGS,
  NOTHING_INSTALLED,
  settingsSchema,
  usesSchema,
} from '../../parts';
import { NO_COST_SAID, NO_SLOTS, SETUP_STATES } from '../defaults';
import { dockedSchema, NO_DOCKED } from '../docked';
import { pinsSchema } from '../pins';
import { costSchema } from './cost';

export const setupState = z.enum(SETUP_STATES);
export type SetupState = z.infer<typeof setupState>;

/** The slots with the kind of id they hold: of the database, or of a file. */
function slotShape<T extends z.ZodType<string>>(id: T) {
  return {
    host: id.nullable(),
    socket: z.string().max(40, { error: 'Port: at most 40 characters' }).nullable(),
    path: z.array(id).max(6, { error: 'Path: at most 6 pieces' }).nullable(),
    dock: id.nullable(),
    card: id.nullable(),
    supplies: z.array(z.strictObject({ part: id, feeds })).max(3, { error: 'Supplies: at most 3' }),
    screens: z
      .array(z.strictObject({ part: id, by: shownBy, plug: videoPlug }))
      .max(4, { error: 'Screens: at most 4' }),
    system: id.nullable(),
    /** Which very piece stands in a place (`dock`, `path/0`), where that is known. */
    items: z.record(z.string().regex(/^[a-z]+(\/\d+)?$/), id),
    /** Other cards for the same dock, each with its purpose. */
    spares: z
      .array(
        z.strictObject({
          part: id,
          purpose: z.string().trim().max(80, { error: 'Purpose: at most 80 characters' }),
        }),
      )
      .max(8, { error: 'Other cards: at most 8' }),
  };
}

/** Slots given whole: what newer versions added may be left out. */
export function wholeSlots<T extends z.ZodType<string>>(id: T) {
  const shape = slotShape(id);
  return z.strictObject({
    ...shape,
    supplies: shape.supplies.default([]),
    screens: shape.screens.default([]),
    system: shape.system.default(null),
    items: shape.items.default({}),
    spares: shape.spares.default([]),
  });
}

/** What is chosen for each slot, by id; the socket by its key on the host. An empty path is "no separate cable". */
export const setupSlots = wholeSlots(uuid);
export type SetupSlots = z.infer<typeof setupSlots>;

const name = z
  .string()
  .trim()
  .min(1, { error: 'Name: must not be empty' })
  .max(80, { error: 'Name: at most 80 characters' });
const present = z.string().trim().max(300, { error: 'Present graphics: at most 300 characters' });
const notes = z.string().max(4000, { error: 'Notes: at most 4000 characters' });

export const setupBody = z.strictObject({
  id: uuid,
  name,
  state: setupState.default('planned'),
  slots: setupSlots.default(NO_SLOTS),
  loads: loadsSchema.default([]),
  installed: installedSchema.default(NOTHING_INSTALLED),
  settings: settingsSchema.default(NO_SETTINGS),
  /** Living with the dock: both states of the host, buttons, programs, tuning. */
  docked: dockedSchema.default(NO_DOCKED),
  /** Versions it should stay at. */
  pins: pinsSchema.default([]),
  uses: usesSchema.default([]),
  /** Graphics and machine used so far, in words. */
  present: present.default(''),
  cost: costSchema.default(NO_COST_SAID),
  notes: notes.default(''),
});
export const cloneBody = z.strictObject({ id: uuid, name });

/** A JSON Merge Patch of a setup; `session` folds the patches of one edit session into one revision. */
export const setupPatch = z.strictObject({
  name: name.optional(),
  state: setupState.optional(),
  slots: z.strictObject(slotShape(uuid)).partial().optional(),
  /** What hangs on the dock, as a whole list. */
  loads: loadsSchema.optional(),
  /** Versions and settings as wholes, like the list of loads. */
  installed: installedSchema.optional(),
  settings: settingsSchema.optional(),
  docked: dockedSchema.optional(),
  pins: pinsSchema.optional(),
  uses: usesSchema.optional(),
  present: present.optional(),
  cost: costSchema.optional(),
  notes: notes.optional(),
  session: uuid.optional(),
});
export type SetupPatch = z.infer<typeof setupPatch>;

export const setupSchema = z.object({
  id: uuid,
  name: z.string(),
  state: setupState,
  slots: setupSlots,
  loads: loadsSchema,
  installed: installedSchema,
  settings: settingsSchema,
  docked: dockedSchema,
  pins: pinsSchema,
  uses: usesSchema,
  present: z.string(),
  cost: costSchema,
  notes: z.string(),
  rev: z.number().int(),
  origin,
  clonedFrom: uuid.nullable(),
  createdAt: instant,
  savedAt: instant,
});
export type Setup = z.infer<typeof setupSchema>;
