import * as z from 'zod';
import { reportSchema } from './report';

export const COPY_UNITS = ['Gb/s', 'GB/s', 'MB/s'] as const;
export type CopyUnit = (typeof COPY_UNITS)[number];

const say = (label: string, min: number, max: number) => `${label}: a number from ${min} to ${max}`;
const num = (label: string, min: number, max: number) =>
  z
    .number({ error: say(label, min, max) })
    .min(min, { error: say(label, min, max) })
    .max(max, { error: say(label, min, max) });

/** A copy rate as a person read it, with what makes it worth something. What was not noted is null. */
export const copyReadingSchema = z.strictObject({
  value: z
    .number({ error: 'Copy rate: a number' })
    .positive({ error: 'Copy rate: more than 0' })
    .max(1e6, { error: 'Copy rate: at most 1000000' }),
  unit: z.enum(COPY_UNITS, { error: 'Unit: one of Gb/s, GB/s, MB/s' }).nullable().default(null),
  direction: z.enum(['down', 'up']).nullable().default(null),
  memory: z.enum(['pinned', 'pageable']).nullable().default(null),
  transferMB: num('Transfer size', 0.001, 1e6).nullable().default(null),
  repeats: num('Repeats', 1, 1e6)
    .int({ error: 'Repeats: a whole number' })
    .nullable()
    .default(null),
  spreadPercent: num('Spread', 0, 1000).nullable().default(null),
  /** Whether hub, LAN or drive on the dock were busy meanwhile. */
  traffic: z.enum(['quiet', 'busy']).nullable().default(null),
  clocks: z.string().trim().max(80, { error: 'Clocks: at most 80 characters' }).default(''),
});
export type CopyReading = z.infer<typeof copyReadingSchema>;

export const spanReadingSchema = z.strictObject({
  gen: num('Generation', 1, 6)
    .int({ error: 'Generation: a whole number' })
    .nullable()
    .default(null),
  lanes: num('Lanes', 1, 32).int({ error: 'Lanes: a whole number' }).nullable().default(null),
});
export type SpanReading = z.infer<typeof spanReadingSchema>;

const count = (label: string) =>
  num(label, 0, 1e9)
    .int({ error: `${label}: a whole number` })
    .nullable()
    .default(null);

/** What the link counted before a load and after it, and what happened meanwhile. What was not noted is null. */
export const countsReadingSchema = z
  .strictObject({
    /** Errors the link mended by itself. */
    correctedBefore: count('Corrected errors before'),
    correctedAfter: count('Corrected errors after'),
    /** Errors it could not mend. */
    fatalBefore: count('Uncorrected errors before'),
    fatalAfter: count('Uncorrected errors after'),
    /** Times the link went down and came back. */
    downs: count('Times the link went down'),
    minutes: num('Minutes under load', 0.1, 100_000).nullable().default(null),
  })
  .superRefine((c, ctx) => {
    for (const kind of ['corrected', 'fatal'] as const) {
      const before = c[`${kind}Before`];
      const after = c[`${kind}After`];
      if (before !== null && after !== null && after < before)
        ctx.addIssue({
          code: 'custom',
          path: [`${kind}After`],
          message: 'After is less than before: counters only grow',
        });
    }
  });
export type CountsReading = z.infer<typeof countsReadingSchema>;

/** The card's memory window as the system set it, MB. */
export const windowReadingSchema = z.strictObject({ nowMB: num('Memory window', 1, 1e6) });

export const routerReadingSchema = z.strictObject({
  laneGbps: num('Router rate', 1, 200).nullable().default(null),
  lanes: num('Router lanes', 1, 8)
    .int({ error: 'Router lanes: a whole number' })
    .nullable()
    .default(null),
});
export type RouterReading = z.infer<typeof routerReadingSchema>;

/** Everything read of a link in one go: typed, or taken from a report. Nothing in it is private. */
export const readingSchema = z
  .strictObject({
    /** Whether the card was under load while it was read. */
    load: z.enum(['load', 'idle']).nullable().default(null),
    copy: copyReadingSchema.nullable().default(null),
    cardSpan: spanReadingSchema.nullable().default(null),
    hostSpan: spanReadingSchema.nullable().default(null),
    router: routerReadingSchema.nullable().default(null),
    counts: countsReadingSchema.nullable().default(null),
    window: windowReadingSchema.nullable().default(null),
    report: reportSchema.nullable().default(null),
    /** Which card of the report, by its address; the one behind the link when absent. */
    card: z.string().max(20).nullable().default(null),
    note: z.string().trim().max(2000, { error: 'Note: at most 2000 characters' }).default(''),
  })
  .refine(
    (r) =>
      r.copy !== null ||
      r.report !== null ||
      r.counts !== null ||
      r.window !== null ||
      [r.cardSpan, r.hostSpan].some(hasSpan) ||
      hasRouter(r.router),
    {
      error: 'Nothing read yet: type a rate or a width, or paste a report',
      path: ['copy'],
    },
  );
export type Reading = z.infer<typeof readingSchema>;

function hasSpan(s: SpanReading | null): boolean {
  return s !== null && (s.gen !== null || s.lanes !== null);
}
function hasRouter(r: RouterReading | null): boolean {
  return r !== null && (r.laneGbps !== null || r.lanes !== null);
}
