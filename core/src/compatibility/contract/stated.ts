import * as z from 'zod';
import { fileId, instant, isoDate, origin, uuid, textLine } from '../../base/contract';
import { PORT_STANDARDS, type PortStandard } from '../../parts';
import type { ClaimJudged } from '../claims/claims';
import { MEASURE_IDS, type MeasureId, TAG_IDS } from '../claims/measure';
import { SAY_IDS } from '../claims/register';
import { GRID_AXES, PROVENANCES } from '../labels';

const bound = z
  .number({ error: 'a number' })
  .min(-1000, { error: 'from -1000' })
  .max(10_000, { error: 'up to 10000' })
  .nullable();

const claimShape = {
  /** The rule as it is stated. */
  words: textLine('Claim', 200).min(3, { error: 'Claim: say it in words' }),
  measure: z.enum(MEASURE_IDS as [MeasureId, ...MeasureId[]], {
    error: 'What it is about: choose a measure',
  }),
  lo: bound.default(null),
  hi: bound.default(null),
  where: z
    .array(
      z.strictObject({
        tag: z.enum(TAG_IDS as [(typeof TAG_IDS)[number]]),
        has: textLine('Condition', 80).min(1),
      }),
    )
    .max(4, { error: 'At most 4 conditions' })
    .default([]),
  /** Where it was read or heard, without a person's name. */
  source: textLine('Where it was stated', 200).default(''),
  statedOn: isoDate.nullable().default(null),
};
const ends = (b: { lo: number | null; hi: number | null }, ctx: z.core.$RefinementCtx<unknown>) => {
  if (b.lo === null && b.hi === null)
    ctx.addIssue({
      code: 'custom',
      path: ['lo'],
      message: 'Say at least one end: at least, or at most',
    });
  if (b.lo !== null && b.hi !== null && b.lo > b.hi)
    ctx.addIssue({ code: 'custom', path: ['hi'], message: 'At most is less than at least' });
};
export const claimBody = z.strictObject({ id: uuid, ...claimShape }).superRefine(ends);
export type ClaimBody = z.input<typeof claimBody>;
export const claimInFile = z
  .strictObject({ id: fileId, ...claimShape, withdrawn: z.boolean().default(false) })
  .superRefine(ends);

const measurement = z.object({
  value: z.number(),
  on: isoDate,
  tags: z.partialRecord(z.enum(TAG_IDS as [(typeof TAG_IDS)[number]]), z.string()),
  setupId: uuid.nullable(),
  words: z.string(),
});
export const claimEntry = z.object({
  id: uuid,
  ...claimShape,
  origin,
  createdAt: instant,
  judged: z.object({
    n: z.number().int(),
    within: z.number().int(),
    share: z.object({ lo: z.number(), hi: z.number() }),
    state: z.enum(['none', 'one', 'holds', 'fails', 'open']),
    never: z.array(
      z.object({
        tag: z.enum(TAG_IDS as [(typeof TAG_IDS)[number]]),
        value: z.string(),
        n: z.number().int(),
      }),
    ),
    seen: z.object({ lo: z.number(), mid: z.number(), hi: z.number() }).nullable(),
    against: z.array(measurement),
  }) satisfies z.ZodType<ClaimJudged, unknown>,
});
export type ClaimEntry = z.infer<typeof claimEntry>;
export const claimList = z.object({ items: z.array(claimEntry) });

const noteShape = {
  /** Class of chains: the port's standard, or any. */
  standard: z.enum([...(Object.keys(PORT_STANDARDS) as [PortStandard, ...PortStandard[]]), 'any']),
  says: z
    .array(z.enum(SAY_IDS as [(typeof SAY_IDS)[number]]))
    .min(1, { error: 'Say at least one thing' })
    .max(7),
  version: textLine('Version of the title', 60).default(''),
  on: isoDate,
  provenance: z.enum(PROVENANCES).default('own'),
  words: textLine('What was seen', 300).default(''),
};
export const titleNoteBody = z.strictObject({
  id: uuid,
  titleId: z.uuid({ error: 'Choose a title' }),
  ...noteShape,
});
export type TitleNoteBody = z.input<typeof titleNoteBody>;
export const titleNoteInFile = z.strictObject({
  id: fileId,
  titleId: fileId,
  ...noteShape,
  withdrawn: z.boolean().default(false),
});

/** One thing that is known of a title on a class of chains; `id` is null where runs say it. */
export const titleSayRow = z.object({
  id: uuid.nullable(),
  titleId: uuid,
  title: z.string(),
  /** The class, in words. */
  link: z.string(),
  say: z.enum(SAY_IDS as [(typeof SAY_IDS)[number]]),
  on: isoDate,
  version: z.string(),
  provenance: z.enum([...PROVENANCES, 'runs']),
  words: z.string(),
  n: z.number().int(),
});
export type TitleSayRow = z.infer<typeof titleSayRow>;
export const registerList = z.object({
  items: z.array(titleSayRow),
  /** Titles nothing is known of yet. */
  silent: z.array(z.object({ id: uuid, name: z.string() })),
  titles: z.array(z.object({ id: uuid, name: z.string() })),
});
export type Register = z.infer<typeof registerList>;

export type GridAxes = (typeof GRID_AXES)[number];
export const gridQuery = z.strictObject({
  axes: z.enum(GRID_AXES).default('host-dock'),
  scope: z.enum(['own', 'all']).default('own'),
  /** The part that all cells share; `any` leaves it open; absent, it is the one with most log entries. */
  third: z.union([uuid, z.literal('any')]).optional(),
});
const gridPart = z.object({ id: uuid, name: z.string(), spec: z.looseObject({}) });
const named = z.object({ id: uuid, name: z.string() });
export const gridResponse = z.object({
  rows: z.array(gridPart),
  cols: z.array(gridPart),
  third: gridPart.nullable(),
  thirds: z.array(named),
  /** What all cells are judged with. */
  grounds: z.looseObject({}),
  /** Row, column, seen, worked of them, told, newest day. */
  seen: z.array(z.tuple([z.number(), z.number(), z.number(), z.number(), z.number(), z.string()])),
  /** Parts that were left out of rows and columns: at most 200 are shown. */
  left: z.object({ rows: z.number().int(), cols: z.number().int() }),
  /** No part of this kind is owned, so all are shown. */
  nobody: z.boolean(),
});
export type GridAnswer = z.infer<typeof gridResponse>;
