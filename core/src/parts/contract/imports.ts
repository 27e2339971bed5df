import * as z from 'zod';
import { encodingSchema, instant, uuid } from '../../base/contract';
import { partKind } from '../schema/parts';

export const ROW_OUTCOMES = ['wrong', 'asks', 'new', 'changed', 'same'] as const;
export const rowOutcome = z.enum(ROW_OUTCOMES);
export type RowOutcome = z.infer<typeof rowOutcome>;

/** A file of parts sent as it is: what is in it, and whether it is only tried. */
export const importQuery = z.strictObject({
  kind: partKind.optional(),
  mode: z.enum(['try', 'store']),
  name: z.string().trim().max(200).default(''),
  /** Found out by the first bytes where left out. */
  encoding: encodingSchema.optional(),
});
export type ImportQuery = z.output<typeof importQuery>;

/** What loading a file of everything did, by kind: stored now, and already there with the same content. */
export const loadReport = z.object({
  stored: z.record(z.string(), z.number().int()),
  same: z.record(z.string(), z.number().int()),
});
export type LoadReport = z.infer<typeof loadReport>;

export const jobSchema = z.object({
  id: uuid,
  kind: z.enum(['import-try', 'import-store', 'log-try', 'log-store', 'load']),
  state: z.enum(['running', 'done', 'failed', 'cancelled']),
  done: z.number().int(),
  total: z.number().int(),
  message: z.string(),
  startedAt: instant,
  /** How many rows met each fate, once it is done; what the file names that means nothing here. */
  result: z
    .object({
      name: z.string(),
      fates: z.record(rowOutcome, z.number().int()),
      unknown: z.array(z.string()),
      stored: z.boolean(),
      /** Of a file of everything: what it brought. */
      loaded: loadReport.optional(),
    })
    .nullable(),
});
export type Job = z.infer<typeof jobSchema>;

/** What becomes of a row: its part, and each thing wrong or odd by its row and column. */
export const importRow = z.object({
  row: z.number().int(),
  fate: rowOutcome,
  part: z.string(),
  /** Each thing wrong or odd; where a file and what is here disagree, both stand in it. */
  notes: z.array(
    z.object({
      row: z.number().int(),
      column: z.string(),
      what: z.string(),
      here: z.string().optional(),
      file: z.string().optional(),
    }),
  ),
});
export type ImportRow = z.infer<typeof importRow>;
export const importRowQuery = z.strictObject({
  after: z.coerce.number().int().min(0).default(0),
  limit: z.coerce.number().int().min(1).max(500).default(200),
  fate: rowOutcome.optional(),
});
export const importRowPage = z.object({
  items: z.array(importRow),
  next: z.number().int().nullable(),
});

/** A file of log entries, tried or stored. Where an entry here and in the file disagree, one of the two is kept: `here` or `file`. */
export const logImportQuery = z.strictObject({
  mode: z.enum(['try', 'store']),
  name: z.string().trim().max(200).default(''),
  encoding: encodingSchema.optional(),
  /** What is kept of entries that disagree; left out, nothing is stored while some do. */
  keep: z.enum(['here', 'file']).optional(),
  /** Rows that are decided the other way, separated by commas. */
  except: z
    .string()
    .regex(/^(\d{1,6}(,\d{1,6})*)?$/, { error: 'except: row numbers separated by commas' })
    .max(4000)
    .default(''),
});
export type LogImportQuery = z.output<typeof logImportQuery>;
