import { Directive, ElementRef, forwardRef, inject, input } from '@angular/core';
import {
  NG_VALIDATORS,
  NG_VALUE_ACCESSOR,
  type ControlValueAccessor,
  type ValidationErrors,
  type Validator,
} from '@angular/forms';
import { readNumber } from '../shared/format';
import { typedNumber } from './typed-number';

function show(value: unknown): string {
  if (value === null || value === undefined) return '';
  if (typeof value === 'object') {
    const r = value as { lo: number; hi: number };
    return `${r.lo} to ${r.hi}`;
  }
  return String(value as number);
}

/**
 * A number in a text box: the control holds the number, a range `{lo, hi}` where one is allowed, or null; the box holds what was typed.
 * What cannot be read stays in the box, is the error `typed`, and leaves the last value in the control.
 */
@Directive({
  selector: '[rbTyped]',
  host: { '(input)': 'typed($any($event.target).value)', '(blur)': 'left()' },
  providers: [
    { provide: NG_VALUE_ACCESSOR, useExisting: forwardRef(() => Typed), multi: true },
    { provide: NG_VALIDATORS, useExisting: forwardRef(() => Typed), multi: true },
  ],
})
export class Typed implements ControlValueAccessor, Validator {
  readonly #box = inject<ElementRef<HTMLInputElement>>(ElementRef).nativeElement;
  /** A range like "2 to 4" is read as well. */
  readonly rbTyped = input.required<'number' | 'range'>();
  #value: unknown = null;
  #why: string | null = null;
  #changed: (v: unknown) => void = () => undefined;
  #touched: () => void = () => undefined;

  writeValue(v: unknown): void {
    this.#value = v;
    this.#why = null;
    this.#box.value = show(v);
  }
  registerOnChange(f: (v: unknown) => void): void {
    this.#changed = f;
  }
  registerOnTouched(f: () => void): void {
    this.#touched = f;
  }
  setDisabledState(off: boolean): void {
    this.#box.disabled = off;
  }
  validate(): ValidationErrors | null {
    return this.#why === null ? null : { typed: this.#why };
  }
  typed(text: string): void {
    const r = this.rbTyped() === 'range' ? typedNumber(text) : readNumber(text);
    this.#why = r.ok ? null : r.why;
    if (r.ok) this.#value = r.value;
    this.#changed(this.#value);
  }
  left(): void {
    if (this.#why === null) this.#box.value = show(this.#value);
    this.#touched();
  }
}
