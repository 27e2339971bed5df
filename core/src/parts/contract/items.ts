import * as z from 'zod';
import { fileId, instant, isoDate, origin, uuid, textLine } from '../../base/contract';
import { softwareRole } from '../schema/release';
import { valueSource } from '../schema/source';

/** What is written of a piece, none of it filled in. */
const words = {
  label: textLine('Label', 60).min(1, { error: 'Label: must not be empty' }),
  how: z.enum(['own', 'borrowed', 'gone']),
  /** Whose it is, in words; empty: the workshop's. */
  owner: textLine('Whose', 60),
  condition: z.enum(['new', 'used', 'worn', 'faulty']).nullable(),
  acquiredOn: isoDate.nullable(),
  boughtFrom: textLine('Bought from', 120),
  /** What the packing or plug claims, word for word. */
  claim: textLine('Claim', 200),
  note: textLine('Note', 400),
  /** Stays here: never in a share file. */
  serial: textLine('Serial number', 80),
};

/** What is known of this piece only and not of its part, by attribute, each with where it is known from. */
const differs = z.record(
  z.string().max(40),
  z.strictObject({ value: z.unknown(), source: valueSource }),
);

function itemShape<T extends z.ZodType<string>>(id: T) {
  return {
    id,
    partId: id,
    label: words.label,
    how: words.how.default('own'),
    owner: words.owner.default(''),
    condition: words.condition.default(null),
    acquiredOn: words.acquiredOn.default(null),
    boughtFrom: words.boughtFrom.default(''),
    claim: words.claim.default(''),
    note: words.note.default(''),
    serial: words.serial.default(''),
    differs: differs.default({}),
  };
}

/** One physical piece of a part. */
export const itemBody = z.strictObject(itemShape(uuid));
export const itemInFile = z.strictObject(itemShape(fileId));
export type ItemBody = z.infer<typeof itemBody>;
/** A change to an item. No defaults: absent fields stay as they are. */
export const itemPatch = z.strictObject({ ...words, differs }).partial();

const measured = z
  .number()
  .min(0.1, { error: 'Measured: 0.1 to 130 Gb/s' })
  .max(130, { error: 'Measured: 0.1 to 130 Gb/s' });
function factShape<T extends z.ZodType<string>>(id: T) {
  return {
    id,
    itemId: id,
    kind: z.enum(['measured', 'version', 'fault']),
    happenedOn: isoDate,
    /** Usable rate read through it, Gb/s; only for `measured`. */
    gbps: measured.nullable().default(null),
    /** Which software; only for `version`. */
    role: softwareRole.nullable().default(null),
    words: textLine('Words', 200).default(''),
  };
}
const whole = (f: { kind: string; gbps: number | null; role: string | null; words: string }) =>
  f.kind === 'measured'
    ? f.gbps !== null
    : f.kind === 'version'
      ? f.role !== null && f.words !== ''
      : f.words !== '';
const wholeError = { error: 'Say the rate, the version or what is wrong', path: ['words'] };
/** Something seen on a piece: a rate read through it, a version found on it, a fault. Never changed afterwards. */
export const factBody = z.strictObject(factShape(uuid)).refine(whole, wholeError);
export const factInFile = z.strictObject(factShape(fileId)).refine(whole, wholeError);
export type FactBody = z.infer<typeof factBody>;
export const factEntry = z.object({ ...factShape(uuid), origin, recordedAt: instant });
export type FactEntry = z.infer<typeof factEntry>;

export const itemEntry = z.object({
  ...itemShape(uuid),
  rev: z.number().int(),
  origin,
  createdAt: instant,
  facts: z.array(factEntry),
  /** Setups that name this very piece. */
  usedIn: z.array(z.object({ id: uuid, name: z.string(), state: z.string() })),
  /** The present holder; null when it is here. */
  lentTo: z.string().nullable(),
  /** The best rate read through it, by hand or by the readings of setups that name it. */
  best: z.object({ gbps: z.number(), on: isoDate, where: z.string() }).nullable(),
});
export type ItemEntry = z.infer<typeof itemEntry>;

/** A line of the cable register: a piece, or a cable of the catalogue of which no piece is written down. */
export const registerRow = z.object({
  partId: uuid,
  part: z.string(),
  itemId: uuid.nullable(),
  label: z.string(),
  claim: z.string(),
  connector: z.string(),
  construction: z.string().nullable(),
  markedGbps: z.union([z.number(), z.object({ lo: z.number(), hi: z.number() })]).nullable(),
  markedW: z.union([z.number(), z.object({ lo: z.number(), hi: z.number() })]).nullable(),
  lengthMm: z.union([z.number(), z.object({ lo: z.number(), hi: z.number() })]).nullable(),
  boughtFrom: z.string(),
  acquiredOn: isoDate.nullable(),
  best: z.object({ gbps: z.number(), on: isoDate, where: z.string() }).nullable(),
});
export type RegisterRow = z.infer<typeof registerRow>;
