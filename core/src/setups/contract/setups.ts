import * as z from 'zod';
import { instant, origin, uuid, nameLine } from '../../base/contract';
import { loadsSchema } from '../../chain';
import { installedSchema, settingsSchema, usesSchema } from '../../parts';
import { NO_SLOTS, SETUP_STATES } from '../defaults';
import { dockedSchema } from '../docked';
import { SETUP_FIELD_NAMES, SETUP_FIELDS, type SetupField, type SetupFields } from '../fields';
import { pinsSchema } from '../pins';
import { costSchema } from './cost';
import { setupSlots, slotShape } from './slots';

export const setupState = z.enum(SETUP_STATES);
export type SetupState = z.infer<typeof setupState>;

const name = nameLine('Name', 80);
const present = z.string().trim().max(300, { error: 'Present graphics: at most 300 characters' });
const notes = z.string().max(4000, { error: 'Notes: at most 4000 characters' });

/** The schema of each field; one that is missing, or of another type than its empty value, does not compile. */
const FIELD_SCHEMAS = {
  loads: loadsSchema,
  installed: installedSchema,
  settings: settingsSchema,
  docked: dockedSchema,
  pins: pinsSchema,
  uses: usesSchema,
  present,
  cost: costSchema,
  notes,
} satisfies { [K in SetupField]: z.ZodType<SetupFields[K]> };
type FieldSchemas = typeof FIELD_SCHEMAS;
const FIELDS_OR_EMPTY = Object.fromEntries(
  SETUP_FIELD_NAMES.map((key) => [
    key,
    (FIELD_SCHEMAS[key] as z.ZodType).default(SETUP_FIELDS[key].empty),
  ]),
) as { [K in SetupField]: z.ZodDefault<FieldSchemas[K]> };

export const setupBody = z.strictObject({
  id: uuid,
  name,
  state: setupState.default('planned'),
  slots: setupSlots.default(NO_SLOTS),
  ...FIELDS_OR_EMPTY,
});
export const cloneBody = z.strictObject({ id: uuid, name });

/** A JSON Merge Patch of a setup; `session` joins the patches of one edit session into one revision. Fields are replaced whole. */
export const setupPatch = z
  .strictObject({
    name,
    state: setupState,
    slots: z.strictObject(slotShape(uuid)).partial(),
    ...FIELD_SCHEMAS,
    session: uuid,
  })
  .partial();
export type SetupPatch = z.infer<typeof setupPatch>;

export const setupSchema = z.object({
  id: uuid,
  name: z.string(),
  state: setupState,
  slots: setupSlots,
  ...FIELD_SCHEMAS,
  present: z.string(),
  notes: z.string(),
  rev: z.number().int(),
  origin,
  clonedFrom: uuid.nullable(),
  createdAt: instant,
  savedAt: instant,
});
export type Setup = z.infer<typeof setupSchema>;
