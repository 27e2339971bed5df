import { FormArray, FormControl, FormGroup } from '@angular/forms';
import type * as z from 'zod';
import {
  type AnySpec,
  attributesOf,
  type AttrMeta,
  isAsked,
  optionsOf,
  PART_SCHEMAS,
  type PartKind,
  socketSchema,
} from '@ruddy/core/parts';
import { typedNumber } from '../platform/kit/typed-number';

/** A control holds what a person typed; null stands for "not sure" in a choice. */
export type FieldValue = string | string[] | null;
export type FieldGroup = FormGroup<Record<string, FormControl<FieldValue>>>;
export interface PartFormModel {
  kind: PartKind;
  fields: [string, AttrMeta][];
  group: FieldGroup;
  socketFields: [string, AttrMeta][];
  sockets: FormArray<FieldGroup>;
}

export type Errors = Map<string, string>;

function shown(value: unknown, meta: AttrMeta): FieldValue {
  if (meta.input === 'choice') {
    if (value !== null && typeof value === 'object' && 'oneOf' in value)
      return (value as { oneOf: string[] }).oneOf;
    return (
      (value as string | undefined) ?? (meta.unsure ? null : (meta.options?.[0]?.value ?? null))
    );
  }
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') {
    const r = value as { lo: number; hi: number };
    return `${r.lo} to ${r.hi}`;
  }
  return String(value as string | number);
}

function groupOf(fields: readonly [string, AttrMeta][], spec: Record<string, unknown>): FieldGroup {
  const controls: Record<string, FormControl<FieldValue>> = {};
  for (const [key, meta] of fields)
    if (meta.input !== 'list') controls[key] = new FormControl<FieldValue>(shown(spec[key], meta));
  return new FormGroup(controls);
}

const SOCKET_FIELDS = attributesOf(socketSchema);

/** A form for a part, made from its schema; `spec` fills it. */
export function formOf(kind: PartKind, spec: Partial<AnySpec>): PartFormModel {
  const fields = attributesOf(PART_SCHEMAS[kind] as z.ZodObject);
  const given = (spec as { sockets?: Record<string, unknown>[] }).sockets ?? [];
  return {
    kind,
    fields: fields.filter(([, m]) => m.input !== 'list'),
    group: groupOf(fields, spec as Record<string, unknown>),
    socketFields: SOCKET_FIELDS,
    sockets: new FormArray(kind === 'host' ? given.map((s) => groupOf(SOCKET_FIELDS, s)) : []),
  };
}

/** One more socket, empty. */
export function newSocket(key: string): FieldGroup {
  return groupOf(SOCKET_FIELDS, { key });
}

/** Read one field by what is known of its attribute. */
export function readField(
  meta: AttrMeta,
  value: FieldValue,
): { ok: true; value: unknown } | { ok: false; why: string } {
  if (meta.input === 'number') return typedNumber(typeof value === 'string' ? value : '');
  if (Array.isArray(value)) return { ok: true, value: { oneOf: value } };
  return { ok: true, value: meta.input === 'text' ? (value ?? '') : value };
}

function valuesOf(
  fields: readonly [string, AttrMeta][],
  group: FieldGroup,
  place: string,
  errors: Errors,
): Record<string, unknown> {
  const spec: Record<string, unknown> = {};
  for (const [key, meta] of fields) {
    // What is not asked is not sent: it becomes "not known".
    if (!isAsked(meta, group.value)) continue;
    if (meta.input === 'list') continue;
    const read = readField(meta, group.controls[key]?.value ?? null);
    if (read.ok) spec[key] = read.value;
    else errors.set(`${place}${key}`, `${meta.label}: ${read.why}`);
  }
  return spec;
}

/** Read the form: the spec when every rule of the schema holds, otherwise each error by its place. */
export function readForm(m: PartFormModel): { spec: AnySpec | null; errors: Errors } {
  const errors: Errors = new Map();
  const spec = valuesOf(m.fields, m.group, '', errors);
  if (m.kind === 'host')
    spec['sockets'] = m.sockets.controls.map((g, i) =>
      valuesOf(m.socketFields, g, `sockets/${i}/`, errors),
    );
  const parsed = PART_SCHEMAS[m.kind].safeParse(spec);
  if (!parsed.success)
    for (const issue of parsed.error.issues) {
      const place = issue.path.map(String).join('/');
      if (!errors.has(place)) errors.set(place, issue.message);
    }
  return { spec: parsed.success && errors.size === 0 ? parsed.data : null, errors };
}

/** A choice that another one rules out goes back to "not sure": a new connector brings other standards. */
export function dropRuledOut(fields: readonly [string, AttrMeta][], group: FieldGroup): void {
  for (const [key, meta] of fields) {
    const control = group.controls[key];
    if (!control || !meta.by) continue;
    const may = optionsOf(meta, group.value).map((o) => o.value);
    const now = control.value === null ? [] : [control.value].flat();
    if (now.some((v) => !may.includes(v))) control.setValue(null, { emitEvent: false });
  }
}
