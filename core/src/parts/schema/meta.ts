import * as z from 'zod';
import { textLine } from '../../base/contract';

/** How a person learns a value that is not known, and how long it takes. */
export interface FindOut {
  readonly how: string;
  readonly minutes: number;
}

/**
 * What is known about an attribute besides its type. The part form, the list of things
 * to verify, the column names of files and the API documents are all made from this.
 */
export interface AttrMeta {
  readonly label: string;
  readonly input: 'text' | 'number' | 'choice' | 'list';
  readonly unit?: string;
  readonly min?: number;
  readonly max?: number;
  readonly options?: readonly { readonly value: string; readonly label: string }[];
  /** Only asked when another attribute of the same part has one of these values. */
  readonly when?: When;
  /** Which options go with each value of another attribute. */
  readonly by?: {
    readonly attr: string;
    readonly may: Readonly<Record<string, readonly string[]>>;
  };
  readonly help?: string;
  readonly findOut?: FindOut;
  /**
   * What parts of this kind usually have, in its unit: shown as a guess beside the question, and never taken for an answer. Common practice,
   * no published source.
   */
  readonly typical?: readonly [lo: number, hi: number];
  /** True when "not sure" is an answer: stored as null. */
  readonly unsure: boolean;
}

export interface When {
  readonly attr: string;
  readonly is: readonly string[];
}

export const attrs = z.registry<AttrMeta>();

const rangeSchema = z
  .strictObject({ lo: z.number(), hi: z.number() })
  .refine((r) => r.lo <= r.hi, { message: 'the low end must not be above the high end' });

type Extra = Pick<AttrMeta, 'help' | 'findOut' | 'when' | 'by' | 'typical'>;

/**
 * A number within limits, a range, or null for "not sure". An absent one counts as null, so that a merge patch, where
 * null removes, can say "not sure".
 * @param label in a form
 * @param unit of the number
 * @param min the least that is allowed
 * @param max the most that is allowed
 * @param extra what else is known of the attribute
 * @returns the schema with its metadata
 */
export function numAttr(
  label: string,
  unit: string,
  min: number,
  max: number,
  extra: Extra & { whole?: boolean } = {},
) {
  const { whole, ...rest } = extra;
  const message = `${label}: a ${whole ? 'whole ' : ''}number from ${min} to ${max}${unit ? ` ${unit}` : ''}, or not sure`;
  const value = z
    .number({ error: message })
    .min(min, { error: message })
    .max(max, { error: message });
  const one = whole ? value.int({ error: message }) : value;
  return z
    .union(
      [one, rangeSchema.refine((r) => r.lo >= min && r.hi <= max, { error: message }), z.null()],
      {
        error: message,
      },
    )
    .register(attrs, { label, unit, min, max, input: 'number', unsure: true, ...rest })
    .default(null);
}

/**
 * One of several words, some of several, or null for "not sure".
 * @param label in a form
 * @param labels of the words
 * @param extra what else is known of the attribute
 * @returns the schema with its metadata
 */
export function choiceAttr<const T extends Record<string, string>>(
  label: string,
  labels: T,
  extra: Extra = {},
) {
  const keys = Object.keys(labels) as (keyof T & string)[];
  const message = `${label}: one of ${keys.join(', ')}, or not sure`;
  const word = z.enum(keys as [keyof T & string, ...(keyof T & string)[]], { error: message });
  const options = keys.map((value) => ({ value, label: labels[value] ?? value }));
  return z
    .union([word, z.strictObject({ oneOf: z.array(word).min(1).max(keys.length) }), z.null()], {
      error: message,
    })
    .register(attrs, { label, options, input: 'choice', unsure: true, ...extra })
    .default(null);
}

/**
 * One of several words, always known.
 * @param label in a form
 * @param labels of the words
 * @param extra what else is known of the attribute
 * @returns the schema with its metadata
 */
export function wordAttr<const T extends Record<string, string>>(
  label: string,
  labels: T,
  extra: Extra = {},
) {
  const keys = Object.keys(labels) as (keyof T & string)[];
  const options = keys.map((value) => ({ value, label: labels[value] ?? value }));
  return z
    .enum(keys as [keyof T & string, ...(keyof T & string)[]], {
      error: `${label}: one of ${keys.join(', ')}`,
    })
    .register(attrs, { label, options, input: 'choice', unsure: false, ...extra });
}

/**
 * A line of text, trimmed.
 * @param label in a form
 * @param max characters at most
 * @param required whether an empty one is refused
 * @param extra what else is known of the attribute
 * @returns the schema with its metadata
 */
export function textAttr(label: string, max: number, required: boolean, extra: Extra = {}) {
  const text = textLine(label, max);
  const checked = required ? text.min(1, { error: `${label}: must not be empty` }) : text;
  return checked.register(attrs, { label, input: 'text', unsure: false, ...extra });
}

/**
 * The metadata of each attribute of an object schema.
 * @param schema of a part
 * @returns keys with their metadata, in the order of the schema
 */
export function attributesOf(schema: z.ZodObject): [key: string, meta: AttrMeta][] {
  const found: [string, AttrMeta][] = [];
  for (const [key, field] of Object.entries(schema.shape)) {
    const inner =
      field instanceof z.ZodDefault || field instanceof z.ZodOptional ? field.unwrap() : field;
    const meta = attrs.get(inner as z.ZodType);
    if (meta) found.push([key, meta]);
  }
  return found;
}

type Values = Readonly<Record<string, unknown>>;

/**
 * Is an attribute asked at all, given the others?
 * @param meta the attribute
 * @param values of the others
 * @returns true where it is
 */
export function isAsked(meta: AttrMeta, values: Values): boolean {
  return meta.when === undefined || meta.when.is.includes(String(values[meta.when.attr]));
}

/**
 * The options of a choice that go with the other values.
 * @param meta the attribute
 * @param values of the others
 * @returns options
 */
export function optionsOf(meta: AttrMeta, values: Values): NonNullable<AttrMeta['options']> {
  const may = meta.by?.may[String(values[meta.by.attr])];
  return (meta.options ?? []).filter((o) => may === undefined || may.includes(o.value));
}
