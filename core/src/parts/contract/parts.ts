import * as z from 'zod';
import { fileId, flag, instant, origin, pageOf, pageQuery, uuid } from '../../base/contract';
import { type AnySpec, PART_SCHEMAS, partKind } from '../schema/parts';
import { sourceMap } from '../schema/source';

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
    z.strictObject({ ...extra, kind: z.literal('laptop'), spec: PART_SCHEMAS.laptop }),
    z.strictObject({ ...extra, kind: z.literal('desktop'), spec: PART_SCHEMAS.desktop }),
  ]);
}

/** A new part: its kind says which attributes it has. */
export const partBody = partUnion({ id: uuid, sources: sourceMap.default({}) });
/** A part in a file: its id may be any short name that is used the same way throughout the file. */
export const partInFile = partUnion({
  id: fileId,
  retired: z.boolean().default(false),
  sources: sourceMap.default({}),
});
export type PartBody = z.infer<typeof partBody>;
export type PartInFile = z.infer<typeof partInFile>;

/** A change to a part: a JSON Merge Patch of its spec (RFC 7396), or its retirement. */
export const partPatch = z.strictObject({
  spec: z.record(z.string(), z.unknown()).optional(),
  retired: z.boolean().optional(),
  /** Where values came from, as a whole. */
  sources: sourceMap.optional(),
});
export type PartPatch = z.infer<typeof partPatch>;

const stored = {
  id: uuid,
  sources: sourceMap,
  rev: z.number().int(),
  origin,
  createdAt: instant,
  retiredAt: instant.nullable(),
  usedIn: z.number().int(),
  /** Pieces of it that are here. */
  pieces: z.number().int(),
};
export const partSchema = partUnion(stored);
export type Part = z.infer<typeof partSchema>;

export const partPage = pageOf(partSchema).extend({ total: z.number().int() });
export const partQuery = z.strictObject({
  ...pageQuery,
  kind: partKind.optional(),
  q: z.string().trim().max(100).optional(),
  retired: flag.default(false),
  /** Only what the workshop has a piece of. */
  owned: flag.default(false),
  /** Only parts whose attribute has this word: `connector:usb-c`. */
  where: z
    .string()
    .regex(/^[A-Za-z0-9]{1,40}:[A-Za-z0-9.-]{1,40}$/)
    .optional(),
});

/** A change to many parts at once: one attribute of all of them, or their retirement. All or none. */
export const bulkBody = z.strictObject({
  ids: z.array(uuid).min(1).max(2000),
  patch: partPatch,
});
export const bulkAnswer = z.object({ changed: z.number().int() });

/** A revision of a part, newest first; the spec as it was. */
export const revisionSchema = z.object({
  rev: z.number().int(),
  at: instant,
  by: z.string(),
  spec: z.custom<AnySpec>(),
  sources: sourceMap,
  retired: z.boolean(),
});
export type Revision = z.infer<typeof revisionSchema>;
