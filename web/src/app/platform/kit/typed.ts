import { Directive, effect, ElementRef, forwardRef, inject, input, untracked } from '@angular/core';
import {
  NG_VALIDATORS,
  NG_VALUE_ACCESSOR,
  type ControlValueAccessor,
  type ValidationErrors,
  type Validator,
} from '@angular/forms';
import type { Codec } from './codec';

/**
 * A value typed as text: the control holds the value, the box what was typed. Unreadable text stays in the box, is the error `typed`,
 * and leaves the last value in the control.
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
  readonly #box =
    inject<ElementRef<HTMLInputElement | HTMLTextAreaElement>>(ElementRef).nativeElement;
  readonly rbTyped = input.required<Codec>();
  #value: unknown = null;
  #why: string | null = null;
  #changed: (v: unknown) => void = () => undefined;
  #touched: () => void = () => undefined;

  constructor() {
    // A changed unit shows the same value anew; text that is being typed stays.
    effect(() => {
      const codec = this.rbTyped();
      untracked(() => {
        if (this.#why === null && document.activeElement !== this.#box)
          this.#box.value = codec.show(this.#value);
      });
    });
  }

  writeValue(v: unknown): void {
    const same = JSON.stringify(v) === JSON.stringify(this.#value);
    this.#value = v;
    // The value that the text being typed already stands for does not replace the text.
    if (same && document.activeElement === this.#box) return;
    this.#why = null;
    this.#box.value = this.rbTyped().show(v);
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
    const r = this.rbTyped().read(text);
    this.#why = r.ok ? null : r.why;
    if (r.ok) this.#value = r.value;
    this.#changed(this.#value);
  }
  left(): void {
    if (this.#why === null) this.#box.value = this.rbTyped().show(this.#value);
    this.#touched();
  }
}
