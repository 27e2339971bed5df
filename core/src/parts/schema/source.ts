import * as z from 'zod';

/** Where a value came from, in the order of how much it is worth. */
export const VALUE_SOURCES = {
  measured: 'measured',
  label: 'read from the label',
  paper: "maker's paper",
  told: 'reported by others',
  memory: 'from memory',
} as const;
export type ValueSource = keyof typeof VALUE_SOURCES;

export const valueSource = z.strictObject({
  from: z
    .enum(Object.keys(VALUE_SOURCES) as [ValueSource, ...ValueSource[]])
    .nullable()
    .default(null),
  on: z
    .union([z.literal(''), z.iso.date()], { error: 'a date like 2026-11-03, or empty' })
    .default(''),
  note: z.string().trim().max(200, { error: 'Note: at most 200 characters' }).default(''),
  /** True once a person was asked about an odd value and kept it as said. */
  kept: z.boolean().default(false),
});
export type SourceNote = z.infer<typeof valueSource>;

/** Where each value came from, by the place of the attribute: `lengthMm`, `sockets/left/lanes`. */
export const sourceMap = z.record(
  z.string().regex(/^[A-Za-z0-9-]+(\/[A-Za-z0-9-]+){0,2}$/, {
    error: 'a place like lengthMm or sockets/left/lanes',
  }),
  valueSource,
);
export type SourceMap = z.infer<typeof sourceMap>;
