import * as z from 'zod';
import { fileId, isoDate, origin, uuid, textLine } from '../../base/contract';
import { partKind } from '../../parts';

export const conditionNow = z.enum(['new', 'used', 'worn', 'faulty']);
const thing = textLine('A thing that goes along', 60).min(1, {
  error: 'A thing that goes along: must not be empty',
});
const things = z.array(thing).max(20, { error: 'What goes along: at most 20 things' });

/** What was said of the borrower's chain when the piece was lent. */
export const lentFor = z.strictObject({
  verdict: z.enum(['works', 'care', 'blocked', 'unknown']),
  sentence: textLine('Sentence', 400),
});

const handOverShape = {
  fromOn: isoDate,
  dueOn: isoDate.nullable().default(null),
  condition: conditionNow.nullable().default(null),
  /** What goes along: cables, supply, screws. Each is asked for when it comes back. */
  along: things.default([]),
  note: textLine('Note', 400).default(''),
  checked: lentFor.nullable().default(null),
};
const order = (h: { fromOn: string; dueOn: string | null }) =>
  h.dueOn === null || h.dueOn >= h.fromOn;
const orderError = { error: 'Due: not before it goes out', path: ['dueOn'] };
export const handOver = z.strictObject(handOverShape).refine(order, orderError);
export type HandOver = z.output<typeof handOver>;

export const TESTED = ['works', 'fails', 'not-tried'] as const;
/** The three steps of a return: all here, how it looks, whether it works. */
const backShape = {
  returnedOn: isoDate,
  missing: things.default([]),
  condition: conditionNow.nullable().default(null),
  looks: textLine('How it looks', 400).default(''),
  tested: z.enum(TESTED),
  testWords: textLine('What was seen', 400).default(''),
};
const said = (b: { tested: string; testWords: string }) =>
  b.tested !== 'fails' || b.testWords !== '';
const saidError = { error: 'What was seen: say how it fails', path: ['testWords'] };
/** `id` becomes the fault noted on the piece, when there is one. */
export const backBody = z.strictObject({ ...backShape, id: uuid }).refine(said, saidError);
export type Back = Omit<z.output<typeof backBody>, 'id' | 'returnedOn'>;

/** Ask for a piece (`out` null: wait for it) or lend it now. */
export const loanBody = z.strictObject({
  id: uuid,
  itemId: uuid,
  memberId: uuid,
  /** The setup it is for, when there is one. */
  setupId: uuid.nullable().default(null),
  out: handOver.nullable().default(null),
});
/** Hand over what was waited for, move the day it is due, or let the wish go. */
export const loanPatch = z.strictObject({
  out: handOver.optional(),
  dueOn: isoDate.nullable().optional(),
  setupId: uuid.nullable().optional(),
  withdrawn: z.literal(true).optional(),
});

export const loanRow = z.object({
  id: uuid,
  itemId: uuid,
  label: z.string(),
  partId: uuid,
  kind: partKind,
  part: z.string(),
  memberId: uuid,
  member: z.string(),
  setup: z.object({ id: uuid, name: z.string() }).nullable(),
  askedOn: isoDate,
  fromOn: isoDate.nullable(),
  dueOn: isoDate.nullable(),
  conditionOut: conditionNow.nullable(),
  along: z.array(z.string()),
  note: z.string(),
  checked: lentFor.nullable(),
  returnedOn: isoDate.nullable(),
  back: z.custom<Back>().nullable(),
  withdrawn: z.boolean(),
  /** Members waiting for the same item, first come first. */
  next: z.array(z.object({ loanId: uuid, member: z.string() })),
  /** Live setups that hold the piece: more than one cannot be. */
  liveIn: z.array(z.object({ id: uuid, name: z.string() })),
  rev: z.number().int(),
  origin,
});
export type LoanRow = z.infer<typeof loanRow>;
export const loanList = z.object({ items: z.array(loanRow) });
export const loanQuery = z.strictObject({
  state: z.enum(['open', 'back']).default('open'),
  itemId: uuid.optional(),
});

/** Pieces that can be lent, with where they are. */
export const lendable = z.object({
  id: uuid,
  label: z.string(),
  partId: uuid,
  kind: partKind,
  part: z.string(),
  condition: conditionNow.nullable(),
  with: z.string().nullable(),
  liveIn: z.array(z.object({ id: uuid, name: z.string() })),
});
export type Lendable = z.infer<typeof lendable>;
export const lendableList = z.object({ items: z.array(lendable) });

export const chainCheckBody = z.strictObject({ itemId: uuid, setupId: uuid });
const judged = z.object({
  verdict: z.enum(['works', 'care', 'blocked', 'unknown']),
  sentence: z.string(),
});
/** The borrower's present chain, and the same chain with the item in its slot. */
export const chainCheck = z.object({
  setup: z.object({ id: uuid, name: z.string() }),
  place: z.string(),
  before: judged,
  after: judged,
  /** Findings the item adds to the setup, worst first. */
  brings: z.array(z.object({ severity: z.enum(['blocks', 'care', 'note']), text: z.string() })),
  /** It stands there already. */
  same: z.boolean(),
});
export type ChainCheck = z.infer<typeof chainCheck>;

/** A loan in a file. */
export const loanInFile = z.strictObject({
  id: fileId,
  itemId: fileId,
  memberId: fileId,
  setupId: fileId.nullable().default(null),
  askedOn: isoDate,
  out: handOver.nullable().default(null),
  back: z.strictObject(backShape).refine(said, saidError).nullable().default(null),
  withdrawn: z.boolean().default(false),
});
export type LoanInFile = z.output<typeof loanInFile>;

/** An item that a setup names and that is also in another active setup or lent. */
export const pieceElsewhere = z.object({
  place: z.string(),
  itemId: uuid,
  label: z.string(),
  liveIn: z.array(z.object({ id: uuid, name: z.string() })),
  /** Holder and setup of a lent item; null when it is here. */
  lent: z
    .object({ member: z.string(), setup: z.string().nullable(), here: z.boolean() })
    .nullable(),
});
export type PieceElsewhere = z.infer<typeof pieceElsewhere>;
