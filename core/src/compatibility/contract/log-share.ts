import * as z from 'zod';
import { OUTCOMES } from '../../base';
import { uuid } from '../../base/contract';
import { logFilter } from './outcomes';

/** Which entries are shared: one, those of a chain, or what a filter picks; without any, the whole log. */
export const shareQuery = z.strictObject({
  ...logFilter,
  id: uuid.optional(),
  chain: z.string().max(2000).optional(),
  outcome: z.enum(OUTCOMES).optional(),
});
export type ShareQuery = z.output<typeof shareQuery>;

const counted = z.array(z.object({ what: z.string(), n: z.number().int() }));
/** What leaves and what stays, and the first entries as they leave. */
export const logShare = z.object({
  n: z.number().int(),
  leaves: counted,
  stays: counted,
  columns: z.array(z.string()),
  rows: z.array(z.array(z.string())),
});
export type LogShare = z.infer<typeof logShare>;
