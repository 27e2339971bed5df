import type * as z from 'zod';
import {
  attributesOf,
  type HostSpec,
  PART_SCHEMAS,
  type PartKind,
  socketSchema,
  VALUE_SOURCES,
} from '@ruddy/core/parts';
import type { Revision } from '@ruddy/core/parts/contract';
import { attrSaid } from './attr-text';

export interface Change {
  readonly place: string;
  readonly label: string;
  readonly before: string;
  readonly after: string;
}

type Values = Record<string, unknown>;
type Side = Pick<Revision, 'spec' | 'sources' | 'retired'>;

function differ(
  schema: z.ZodObject,
  before: Values | undefined,
  after: Values | undefined,
  place: string,
  of: string,
): Change[] {
  return attributesOf(schema)
    .filter(
      ([key, m]) =>
        m.input !== 'list' &&
        JSON.stringify(before?.[key] ?? null) !== JSON.stringify(after?.[key] ?? null),
    )
    .map(([key, meta]) => ({
      place: place + key,
      label: of ? `${meta.label} of ${of}` : meta.label,
      before: before ? attrSaid(meta, before[key]) : 'no such socket',
      after: after ? attrSaid(meta, after[key]) : 'no such socket',
    }));
}

const sourceText = (s: Side['sources'][string] | undefined) =>
  s?.from ? VALUE_SOURCES[s.from] : 'not set';

/** What differs between two states of a part, attribute by attribute; sockets by their short name. */
export function changesBetween(kind: PartKind, before: Side, after: Side): Change[] {
  const schema = PART_SCHEMAS[kind] as z.ZodObject;
  const label = new Map(attributesOf(schema).map(([k, m]) => [k, m.label]));
  const own = differ(
    schema,
    before.spec as unknown as Values,
    after.spec as unknown as Values,
    '',
    '',
  );
  const sockets = (s: Side) =>
    new Map(
      ((s.spec as Partial<HostSpec>).sockets ?? []).map((k) => [k.key, k as unknown as Values]),
    );
  const old = sockets(before);
  const now = sockets(after);
  const keys = [...new Set([...old.keys(), ...now.keys()])];
  const ports = keys.flatMap((k) => {
    if (old.has(k) && now.has(k))
      return differ(socketSchema, old.get(k), now.get(k), `sockets/${k}/`, `socket ${k}`);
    return [
      {
        place: `sockets/${k}`,
        label: `Socket ${k}`,
        before: old.has(k) ? 'there' : 'not there',
        after: now.has(k) ? 'there' : 'not there',
      },
    ];
  });
  const places = [...new Set([...Object.keys(before.sources), ...Object.keys(after.sources)])];
  const told = places
    .filter((p) => sourceText(before.sources[p]) !== sourceText(after.sources[p]))
    .map((p) => ({
      place: `${p}:source`,
      label: `Source of ${label.get(p) ?? p}`,
      before: sourceText(before.sources[p]),
      after: sourceText(after.sources[p]),
    }));
  const retired =
    before.retired === after.retired
      ? []
      : [
          {
            place: 'retired',
            label: 'Archived',
            before: before.retired ? 'yes' : 'no',
            after: after.retired ? 'yes' : 'no',
          },
        ];
  return [...own, ...ports, ...told, ...retired];
}
