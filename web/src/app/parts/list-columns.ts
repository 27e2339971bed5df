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
import type { Option } from '../platform/kit/meta';
import type { Column } from '../platform/kit/columns';
import { attrText } from './attr-text';
import { facts } from './part-facts';

const ORIGIN = { demo: 'example', own: 'own', imported: 'imported', adopted: 'adopted' } as const;
const NAMES = ['maker', 'model', 'variant'];

const FIXED: readonly Column<Part>[] = [
  {
    key: 'name',
    name: 'Name',
    wide: 9,
    narrow: true,
    text: (p) => partName(p.spec) + (p.retiredAt ? ' (archived)' : ''),
  },
  { key: 'about', name: 'What it is', wide: 12, narrow: true, text: facts },
  { key: 'pieces', name: 'Owned', wide: 3, figure: true, text: (p) => String(p.pieces) },
  { key: 'used', name: 'In use', wide: 3, figure: true, text: (p) => String(p.usedIn) },
  { key: 'origin', name: 'Origin', wide: 4, text: (p) => ORIGIN[p.origin] },
];
function attributes(kind: PartKind): [string, AttrMeta][] {
  return attributesOf(PART_SCHEMAS[kind] as z.ZodObject);
}

/** Every column a kind can show. */
export function columnsFor(kind: PartKind): Column<Part>[] {
  const own = attributes(kind)
    .filter(([key]) => !NAMES.includes(key))
    .map(([key, meta]): Column<Part> => ({
      key,
      name: meta.unit ? `${meta.label}, ${meta.unit}` : meta.label,
      wide: 6,
      usual: false,
      figure: meta.input === 'number',
      text: (p) => attrText(meta, (p.spec as unknown as Record<string, unknown>)[key]) || '–',
    }));
  return [...FIXED, ...own];
}

/** What a list can be narrowed by: every choice of the kind, and of a host's sockets. `value` is `attribute:word`. */
export function filtersFor(kind: PartKind): readonly Option[] {
  const all = [...attributes(kind), ...(kind === 'host' ? attributesOf(socketSchema) : [])];
  return all
    .filter(([, meta]) => meta.input === 'choice')
    .flatMap(([key, meta]) =>
      (meta.options ?? []).map((o) => ({
        value: `${key}:${o.value}`,
        label: `${meta.label}: ${o.label}`,
      })),
    );
}
