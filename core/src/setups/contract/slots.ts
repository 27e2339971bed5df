import * as z from 'zod';
import { uuid } from '../../base/contract';
import { feeds, shownBy, videoPlug } from '../../chain';

/**
 * The slots of a setup.
 * @param id schema of an id: of the database, or of a file
 * @returns their schemas
 */
export function slotShape<T extends z.ZodType<string>>(id: T) {
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

/**
 * Slots given whole: what newer versions added may be left out.
 * @param id schema of an id: of the database, or of a file
 * @returns the schema
 */
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
