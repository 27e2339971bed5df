import { FormArray, FormControl, FormGroup, type AbstractControl } from '@angular/forms';
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
import type { ApiError } from '../platform/api/api-client';
import { problemOf, zodForm } from '../platform/kit/problems';

export type FieldGroup = FormGroup<Record<string, AbstractControl>>;
type Fields = readonly (readonly [string, AttrMeta])[];
type Raw = Readonly<Record<string, unknown>>;

/** The form of a part: a control for every attribute, and for a host a group for every port. */
export interface PartFormModel {
  readonly kind: PartKind;
  readonly fields: Fields;
  readonly group: FieldGroup;
  readonly socketFields: Fields;
  readonly sockets: FormArray<FieldGroup>;
}

/** What is wrong, by place: an attribute, or `sockets/0/standard`. */
export type Errors = ReadonlyMap<string, string>;

/** What the server refused of a part, by place; of the whole, at no place. */
export function partRefusals({ problem, message }: ApiError): Errors {
  const at = problem.errors?.map((e) => [e.path.replace(/^spec\//, ''), e.message] as const);
  return new Map(at ?? [['', message]]);
}

/** Several candidates of a choice are one value of its control. */
const OR = '|';
export const severalOf = (values: readonly string[]): string => values.join(OR);
export const candidates = (value: unknown): string[] =>
  typeof value === 'string' && value !== '' ? value.split(OR) : [];

function shown(value: unknown, meta: AttrMeta): unknown {
  if (meta.input === 'text') return value ?? '';
  if (meta.input !== 'choice') return value ?? null;
  if (value !== null && typeof value === 'object' && 'oneOf' in value)
    return severalOf(value.oneOf as string[]);
  return value ?? (meta.unsure ? null : (meta.options?.[0]?.value ?? null));
}

function controlsOf(fields: Fields, spec: Raw): Record<string, AbstractControl> {
  return Object.fromEntries(
    fields.map(([key, meta]) => [key, new FormControl<unknown>(shown(spec[key], meta))]),
  );
}

const SOCKET_FIELDS = attributesOf(socketSchema).filter(([, m]) => m.input !== 'list');

/** A form for a part, made from its schema; `spec` fills it. */
export function formOf(kind: PartKind, spec: Partial<AnySpec>): PartFormModel {
  const schema = PART_SCHEMAS[kind];
  const fields = attributesOf(schema as z.ZodObject).filter(([, m]) => m.input !== 'list');
  const given = (spec as { sockets?: Raw[] }).sockets ?? [];
  const sockets = new FormArray(
    kind === 'host' ? given.map((s) => new FormGroup(controlsOf(SOCKET_FIELDS, s))) : [],
  );
  const controls = controlsOf(fields, spec as Raw);
  const group = new FormGroup(kind === 'host' ? { ...controls, sockets } : controls);
  const model = { kind, fields, group, socketFields: SOCKET_FIELDS, sockets };
  group.setValidators(zodForm(schema, () => bodyOf(model)));
  settle(model);
  return model;
}

/** One more port, empty. */
export function newSocket(key: string): FieldGroup {
  return new FormGroup(controlsOf(SOCKET_FIELDS, { key }));
}

/** Value of an attribute as it is stored. */
export function storedValue(meta: AttrMeta, value: unknown): unknown {
  if (meta.input !== 'choice') return value;
  const among = candidates(value);
  return among.length > 1 ? { oneOf: among } : value;
}

function valuesOf(fields: Fields, group: FieldGroup): Record<string, unknown> {
  const raw = group.getRawValue() as Raw;
  // What is not asked is not sent: it becomes "not known".
  return Object.fromEntries(
    fields
      .filter(([, meta]) => isAsked(meta, raw))
      .map(([key, meta]) => [key, storedValue(meta, raw[key])]),
  );
}

function bodyOf(m: Omit<PartFormModel, 'group'> & { group: FieldGroup }): unknown {
  const spec = valuesOf(m.fields, m.group);
  if (m.kind !== 'host') return spec;
  return { ...spec, sockets: m.sockets.controls.map((g) => valuesOf(m.socketFields, g)) };
}

function problemsIn(fields: Fields, group: FieldGroup, place: string): [string, string][] {
  return fields.flatMap(([key, meta]): [string, string][] => {
    const control = group.controls[key];
    const why = control?.enabled ? problemOf(control) : null;
    if (why === null) return [];
    return [[`${place}${key}`, why.startsWith(meta.label) ? why : `${meta.label}: ${why}`]];
  });
}

/** What is wrong with the form as it stands, by place. */
export function errorsOf(m: PartFormModel): Errors {
  const whole = Object.entries((m.group.errors?.['zod'] ?? {}) as Record<string, string>);
  return new Map([
    ...problemsIn(m.fields, m.group, ''),
    ...m.sockets.controls.flatMap((g, i) => problemsIn(m.socketFields, g, `sockets/${i}/`)),
    ...whole.filter(([place]) => place === '' || place === 'sockets'),
  ]);
}

/** Read the form: the spec when every rule of the schema holds, otherwise each error by its place. */
export function readForm(m: PartFormModel): { spec: AnySpec | null; errors: Errors } {
  const errors = errorsOf(m);
  const parsed = PART_SCHEMAS[m.kind].safeParse(bodyOf(m));
  return { spec: parsed.success && errors.size === 0 ? parsed.data : null, errors };
}

function settleGroup(fields: Fields, group: FieldGroup): void {
  for (const [key, meta] of fields) {
    const control = group.controls[key];
    if (!control) continue;
    const raw = group.getRawValue() as Raw;
    const may = optionsOf(meta, raw).map((o) => o.value);
    if (meta.by && candidates(control.value).some((v) => !may.includes(v)))
      control.setValue(null, { emitEvent: false });
    const asked = isAsked(meta, raw);
    if (asked && control.disabled) control.enable({ emitEvent: false });
    if (!asked && control.enabled) control.disable({ emitEvent: false });
  }
}

/** What another value rules out goes back to "not sure", and what is not asked is not judged: a new connector brings other standards. */
export function settle(m: PartFormModel): void {
  settleGroup(m.fields, m.group);
  for (const g of m.sockets.controls) settleGroup(m.socketFields, g);
}
