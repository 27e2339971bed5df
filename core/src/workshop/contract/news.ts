import * as z from 'zod';
import { fileId, instant, origin, uuid, nameLine } from '../../base/contract';
import { releaseSchema } from '../../parts';

const name = nameLine('Name', 80);
const url = z
  .url({ protocol: /^https?$/, error: 'Address: like https://maker.example/releases.json' })
  .max(500, { error: 'Address: at most 500 characters' })
  .refine((u) => URL.canParse(u) && new URL(u).username === '' && new URL(u).password === '', {
    error: 'Address: without a name or password in it',
  });
const everyHours = z
  .number({ error: 'Every: a whole number of hours' })
  .int({ error: 'Every: a whole number of hours' })
  .min(1, { error: 'Every: from 1 hour' })
  .max(720, { error: 'Every: up to 720 hours' })
  .nullable();

const said = {
  name,
  url,
  /** May it lie on this machine or in the local network? */
  near: z.boolean().default(false),
  /** Hours between readings; null: by hand only. */
  everyHours: everyHours.default(null),
};
/** A trusted feed of releases: JSON Feed or Atom. */
export const feedBody = z.strictObject({ id: uuid, ...said });
export const feedInFile = z.strictObject({ id: fileId, ...said });
export const feedPatch = z.strictObject({ name, url, near: z.boolean(), everyHours }).partial();
export const feedEntry = z.object({
  id: uuid,
  name: z.string(),
  url: z.string(),
  near: z.boolean(),
  everyHours: z.number().int().nullable(),
  rev: z.number().int(),
  origin,
  readAt: instant.nullable(),
  nextAt: instant.nullable(),
  /** Why the last reading failed; empty when it did not. */
  problem: z.string(),
  /** The last reading found it as before. */
  unchanged: z.boolean(),
  items: z.number().int(),
});
export type FeedEntry = z.output<typeof feedEntry>;

const touch = z.object({
  id: uuid,
  name: z.string(),
  here: z.boolean(),
  by: z.enum(['stated', 'name']),
});
/** One item of a feed, and what of this workshop it concerns. */
export const newsEntry = z.object({
  id: uuid,
  feedId: uuid,
  feed: z.string(),
  title: z.string(),
  url: z.string(),
  text: z.string(),
  publishedAt: instant.nullable(),
  readAt: instant,
  state: z.enum(['new', 'read', 'kept']),
  releaseId: uuid.nullable(),
  touches: z.array(touch),
  symptoms: z.array(z.string()),
  /** A release of the catalogue as this item would make it. */
  draft: releaseSchema.nullable(),
});
export type NewsEntry = z.output<typeof newsEntry>;
export const newsList = z.object({ items: z.array(newsEntry), concerns: z.number().int() });
export const newsState = z.strictObject({ state: z.enum(['new', 'read']) });
/** Make a release of the catalogue out of an item. */
export const newsRelease = z.strictObject({ id: uuid, spec: releaseSchema });
export const NEWS_MOST = 300;
