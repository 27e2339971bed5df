import { attributesOf } from './schema/meta';
import { type AnySpec, PART_SCHEMAS, type PartKind } from './schema/parts';
import type { SourceNote } from './schema/source';
import type * as z from 'zod';

/** What is known of one piece only and not of its part, by attribute, each with where it is known from. */
export type Differs = Readonly<
  Record<string, { readonly value: unknown; readonly source: SourceNote }>
>;

/**
 * A part as this very piece is: what differs stands in place of what its part says.
 * @param spec of the part
 * @param differs of the piece; null where nothing does
 * @returns the spec, or a copy of it
 */
export function pieceSpec<S extends AnySpec>(spec: S, differs: Differs | null | undefined): S {
  const own = Object.entries(differs ?? {});
  return own.length === 0
    ? spec
    : { ...spec, ...Object.fromEntries(own.map(([key, d]) => [key, d.value])) };
}

/**
 * What is wrong with the differences of a piece. Only what may be unknown of a part can differ in a piece: its names
 * and what it is stay those of its part.
 * @param kind of the part
 * @param spec of the part
 * @param differs of the piece
 * @returns one entry an attribute; none where nothing is wrong
 */
export function differsProblems(
  kind: PartKind,
  spec: AnySpec,
  differs: Differs,
): { readonly attr: string; readonly why: string }[] {
  const schema = PART_SCHEMAS[kind] as unknown as z.ZodObject;
  const metas = new Map(attributesOf(schema));
  const odd = Object.keys(differs).flatMap((attr) => {
    const meta = metas.get(attr);
    if (!meta) return [{ attr, why: `A ${kind} has no attribute "${attr}"` }];
    return meta.unsure && meta.input !== 'list'
      ? []
      : [{ attr, why: `${meta.label}: the same for every piece` }];
  });
  if (odd.length > 0) return odd;
  const parsed = schema.safeParse(pieceSpec(spec, differs));
  return (parsed.error?.issues ?? []).map((i) => ({
    attr: String(i.path[0] ?? ''),
    why: i.message,
  }));
}
