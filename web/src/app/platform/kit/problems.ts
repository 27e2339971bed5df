import {
  FormControl,
  type AbstractControl,
  type FormGroup,
  type ValidatorFn,
} from '@angular/forms';
import type * as z from 'zod';
import { checked } from '@ruddy/core/base';
import type { Problem } from '@ruddy/core/base/contract';

type Issues = Readonly<Record<string, string>>;

/**
 * A schema as the validator of a form group. Its issues are `errors.zod`, by path; `rb-field` shows each at its control.
 *
 * @param schema of the request body
 * @param toBody makes the body from the raw value of the group, where they differ
 * @example new FormGroup({ name: new FormControl('') }, { validators: zodForm(nameSchema) })
 */
export function zodForm<T extends z.ZodType>(
  schema: T,
  toBody: (raw: never) => unknown = (raw) => raw,
): ValidatorFn {
  return (group) => {
    const r = checked(schema, toBody((group as FormGroup).getRawValue() as never));
    if (r.success) return null;
    const zod: Record<string, string> = {};
    for (const i of r.error.issues) zod[i.path.map(String).join('/')] ??= i.message;
    return { zod };
  };
}

const NOT_A_DAY = 'Not a date: write it like 20 Nov 2026 or 2026-11-20';

/** The error of the control itself. */
function ownProblem(errors: Readonly<Record<string, unknown>> | null): string | null {
  for (const key of ['typed', 'server', 'limits'])
    if (typeof errors?.[key] === 'string') return errors[key];
  if (errors?.['matDatepickerParse']) return NOT_A_DAY;
  return errors?.['required'] ? 'Required' : null;
}

/**
 * What is wrong with a control: text that cannot be read, then what the server refused, then the issue of the nearest group above that
 * names the path of the control or one below it.
 */
export function problemOf(control: AbstractControl): string | null {
  const own = ownProblem(control.errors);
  if (own !== null) return own;
  const path: string[] = [];
  for (let c = control; c.parent; c = c.parent) {
    const controls = Object.entries(c.parent.controls as Record<string, AbstractControl>);
    path.unshift(controls.find(([, x]) => x === c)?.[0] ?? '');
    const issues = c.parent.errors?.['zod'] as Issues | undefined;
    const at = path.join('/');
    const key = Object.keys(issues ?? {}).find((k) => k === at || k.startsWith(`${at}/`));
    if (issues && key !== undefined) return issues[key] ?? null;
  }
  return null;
}

/**
 * Puts one refusal at the control of its path, until the next change of it.
 *
 * @returns false where the group has no such control
 */
export function refusedAt(group: FormGroup, path: string, message: string): boolean {
  const control = path === '' ? null : group.get(path.split('/'));
  if (!(control instanceof FormControl)) return false;
  control.setErrors({ ...control.errors, server: message });
  control.markAsTouched();
  return true;
}

/** Takes the server's refusals away: what it refused may be sent to it again. */
function forgetRefusals(control: AbstractControl): void {
  const children = (control as Partial<FormGroup>).controls ?? {};
  for (const child of Object.values(children)) forgetRefusals(child);
  if (control.errors?.['server']) control.updateValueAndValidity({ emitEvent: false });
}

/**
 * Puts what the server refused at its controls, until their next change.
 *
 * @returns messages that belong to no control, for one line above the form
 */
export function refused(group: FormGroup, problem: Problem): string[] {
  const rest: string[] = [];
  for (const e of problem.errors ?? [])
    if (!refusedAt(group, e.path, e.message)) rest.push(e.message);
  if (problem.errors) return rest;
  return [problem.detail ? `${problem.title}. ${problem.detail}` : problem.title];
}

/**
 * Marks every control as left, so that errors show, and puts the focus on the first wrong field.
 *
 * @returns true when the form may be sent
 */
export function readyToSend(group: FormGroup, form: HTMLElement): boolean {
  forgetRefusals(group);
  group.markAllAsTouched();
  if (group.valid) return true;
  setTimeout(() => form.querySelector<HTMLElement>('[aria-invalid=true]')?.focus());
  return false;
}
