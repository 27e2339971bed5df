import * as z from 'zod';
import { instant } from '../../base/contract';

/** Names this program gives; nothing else is ever opened. */
export const backupName = z
  .string()
  .regex(/^ruddy-\d{8}-\d{6}-[0-9a-f]{6}\.dump$/, { error: 'a backup of this list' });
const counts = z.record(z.string(), z.number().int());
/** What is written beside each backup. */
export const backupNote = z.object({
  madeAt: instant,
  why: z.enum(['asked', 'schedule', 'before-restore', 'before-upgrade', 'command']),
  version: z.string(),
  schema: z.string(),
  bytes: z.number().int(),
  sha256: z.string().regex(/^[0-9a-f]{64}$/),
  counts,
  /** Tried by restoring it beside the database: when, and whether all came back. */
  checked: z.object({ at: instant, ok: z.boolean(), words: z.string() }).nullable(),
});
export type BackupNote = z.infer<typeof backupNote>;
export const backupRow = z.object({
  name: z.string(),
  note: backupNote.nullable(),
  bytes: z.number().int(),
});
export type BackupRow = z.infer<typeof backupRow>;

/** By itself: every so many hours (null: by hand only), and how many of those are kept. */
export const backupPlan = z.strictObject({
  everyHours: z
    .number()
    .int()
    .min(1, { error: 'Every: 1 to 720 hours' })
    .max(720, { error: 'Every: 1 to 720 hours' })
    .nullable(),
  keep: z.number().int().min(1, { error: 'Kept: 1 to 200' }).max(200, { error: 'Kept: 1 to 200' }),
});
export type BackupPlan = z.infer<typeof backupPlan>;
export const DEFAULT_PLAN: BackupPlan = { everyHours: 24, keep: 14 };

export const backupList = z.object({
  items: z.array(backupRow),
  plan: backupPlan.extend({ rev: z.number().int() }),
  /** Where they lie; null: this server was started without a place for them, and `why` says it. */
  place: z.string().nullable(),
  why: z.string(),
  /** What went wrong with the last one made by itself; empty: nothing. */
  trouble: z.string(),
});
export type BackupList = z.infer<typeof backupList>;
export const restoreReport = z.object({ restored: z.string(), counts, safety: z.string() });
export type RestoreReport = z.infer<typeof restoreReport>;
