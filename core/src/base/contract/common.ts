import * as z from 'zod';
import { ENCODINGS } from '../encodings';

export const uuid = z.uuid({ error: 'an id: a UUID' });
/** The params of a path that names one thing by its id. */
export const byId = z.strictObject({ id: uuid });
/** An id inside a file: a UUID, or a short name that the loader turns into the same UUID every time. */
export const fileId = z
  .string()
  .regex(/^[A-Za-z0-9._:-]{1,80}$/, { error: 'an id: letters, digits, . _ : - up to 80' });
export const isoDate = z.iso.date({ error: 'a date like 2026-11-03' });
export const instant = z.iso.datetime({
  offset: true,
  error: 'an instant like 2026-11-03T14:02:00Z',
});
export const origin = z.enum(['demo', 'own', 'imported', 'adopted']);
export type Origin = z.infer<typeof origin>;

/** RFC 9457 problem details, with the place of each error as a JSON path. */
export const problemSchema = z.object({
  type: z.string(),
  title: z.string(),
  status: z.number().int(),
  detail: z.string().optional(),
  instance: z.string().optional(),
  requestId: z.string().optional(),
  errors: z.array(z.object({ path: z.string(), message: z.string() })).optional(),
  /** With 412: what is stored now, so that the page can show both versions. */
  current: z.unknown().optional(),
});
export type Problem = z.infer<typeof problemSchema>;

/**
 * The schema of a page of a list.
 * @param item schema of one item
 * @returns items and `next`, an opaque cursor that is null on the last page
 */
export function pageOf<T extends z.ZodType>(item: T) {
  return z.object({ items: z.array(item), next: z.string().nullable() });
}
export interface Page<T> {
  items: T[];
  next: string | null;
}

export const pageQuery = {
  cursor: z.string().max(400).optional(),
  limit: z.coerce.number().int().min(1).max(500).default(50),
};
export const flag = z.enum(['true', 'false']).transform((v) => v === 'true');

export { checked } from '../checked';

export { ENCODINGS, type Encoding } from '../encodings';
export const encodingSchema = z.enum(ENCODINGS);
