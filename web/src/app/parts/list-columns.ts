import type * as z from 'zod';
import { partName } from '@ruddy/core/chain';
import {
  attributesOf,
  type AttrMeta,
  PART_SCHEMAS,
  type PartKind,
  socketSchema,
} from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { attrText } from './attr-text';
import { facts } from './part-facts';

/** A column of the catalogue: of every part, or an attribute of its kind. */
export interface ListColumn {
  readonly key: string;
  readonly name: string;
  readonly wide: number;
  readonly figure: boolean;
  text(p: Part): string;
}

const ORIGIN = { demo: 'example', own: 'own', imported: 'imported', adopted: 'adopted' } as const;
const NAMES = ['maker', 'model', 'variant'];

const FIXED: readonly ListColumn[] = [
  {
    key: 'name',
    name: 'Name',
    wide: 3,
    figure: false,
    text: (p) => partName(p.spec) + (p.retiredAt ? ' (retired)' : ''),
  },
  { key: 'about', name: 'What it is', wide: 4, figure: false, text: facts },
  { key: 'pieces', name: 'Here', wide: 1, figure: true, text: (p) => String(p.pieces) },
  { key: 'used', name: 'In use', wide: 1, figure: true, text: (p) => String(p.usedIn) },
  { key: 'origin', name: 'From', wide: 1.2, figure: false, text: (p) => ORIGIN[p.origin] },
];
/** What is shown until somebody chooses. No attribute of any kind has one of these keys. */
export const USUAL = FIXED.map((c) => c.key);

function attributes(kind: PartKind): [string, AttrMeta][] {
  return attributesOf(PART_SCHEMAS[kind] as z.ZodObject);
}

/** Every column a kind can show. */
export function columnsFor(kind: PartKind): ListColumn[] {
  const own = attributes(kind)
    .filter(([key]) => !NAMES.includes(key))
    .map(([key, meta]): ListColumn => ({
      key,
      name: meta.unit ? `${meta.label}, ${meta.unit}` : meta.label,
      wide: 2,
      figure: meta.input === 'number',
      text: (p) => attrText(meta, (p.spec as unknown as Record<string, unknown>)[key]) || '–',
    }));
  return [...FIXED, ...own];
}

export interface WordFilter {
  readonly label: string;
  readonly options: readonly { readonly value: string; readonly label: string }[];
}

/** What a list can be narrowed by: every choice of the kind, and of a host's sockets. `value` is `attribute:word`. */
export function filtersFor(kind: PartKind): WordFilter[] {
  const all = [...attributes(kind), ...(kind === 'host' ? attributesOf(socketSchema) : [])];
  return all
    .filter(([, meta]) => meta.input === 'choice')
    .map(([key, meta]) => ({
      label: meta.label,
      options: (meta.options ?? []).map((o) => ({ value: `${key}:${o.value}`, label: o.label })),
    }));
}
