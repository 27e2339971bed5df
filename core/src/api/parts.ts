import * as z from 'zod';
import { PART_SCHEMAS, partKind } from '../schema';
import { flag, instant, origin, pageOf, pageQuery, uuid, fileId } from './common';

function partUnion<T extends z.ZodRawShape>(extra: T) {
  return z.discriminatedUnion('kind', [
    z.strictObject({ ...extra, kind: z.literal('host'), spec: PART_SCHEMAS.host }),
    z.strictObject({ ...extra, kind: z.literal('cable'), spec: PART_SCHEMAS.cable }),
    z.strictObject({ ...extra, kind: z.literal('adapter'), spec: PART_SCHEMAS.adapter }),
    z.strictObject({ ...extra, kind: z.literal('dock'), spec: PART_SCHEMAS.dock }),
    z.strictObject({ ...extra, kind: z.literal('card'), spec: PART_SCHEMAS.card }),
    z.strictObject({ ...extra, kind: z.literal('supply'), spec: PART_SCHEMAS.supply }),
    z.strictObject({ ...extra, kind: z.literal('screen'), spec: PART_SCHEMAS.screen }),
    z.strictObject({ ...extra, kind: z.literal('system'), spec: PART_SCHEMAS.system }),
    z.strictObject({ ...extra, kind: z.literal('release'), spec: PART_SCHEMAS.release }),
    z.strictObject({ ...extra, kind: z.literal('requirement'), spec: PART_SCHEMAS.requirement }),
  ]);
}

/** A new part: its kind says which attributes it has. */
export const partBody = partUnion({ id: uuid });
/** A part in a file: its id may be any short name that is used the same way throughout the file. */
export const partInFile = partUnion({ id: fileId, retired: z.boolean().default(false) });
export type PartBody = z.infer<typeof partBody>;

/** A change to a part: a JSON Merge Patch of its spec (RFC 7396), or its retirement. */
export const partPatch = z.strictObject({
  spec: z.record(z.string(), z.unknown()).optional(),
  retired: z.boolean().optional(),
});
export type PartPatch = z.infer<typeof partPatch>;

const stored = {
  id: uuid,
  rev: z.number().int(),
  origin,
  createdAt: instant,
  retiredAt: instant.nullable(),
  usedIn: z.number().int(),
};
export const partSchema = partUnion(stored);
export type Part = z.infer<typeof partSchema>;

export const partPage = pageOf(partSchema);
export const partQuery = z.strictObject({
  ...pageQuery,
  kind: partKind.optional(),
  q: z.string().trim().max(100).optional(),
  retired: flag.default(false),
});
