import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { type AttrMeta, isAsked, optionsOf } from '@ruddy/core/parts';
import { typedNumber } from '../platform/kit/typed-number';
import { numText } from './part-facts';

export interface QuickChange {
  readonly key: string;
  readonly value: unknown;
}

type Values = Readonly<Record<string, unknown>>;

/** Attributes edited in place, one line each, stored as they are left. A figure outside its limits is said and not stored. */
@Component({
  selector: 'rb-quick-attrs',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (f of fields(); track f[0]) {
      @if (asked(f[1])) {
        <span class="one">
          <label [attr.for]="prefix() + '-' + f[0]"
            >{{ f[1].label }}{{ f[1].unit ? ', ' + f[1].unit : '' }}</label
          >
          @if (f[1].input === 'choice') {
            <select
              #pick
              [id]="prefix() + '-' + f[0]"
              (change)="emit(f[0], pick.value === '' ? null : pick.value)"
            >
              @if (f[1].unsure) {
                <option value="" [selected]="shown(f[0]) === ''">not sure</option>
              }
              @for (o of options(f[1]); track o.value) {
                <option [value]="o.value" [selected]="o.value === shown(f[0])">
                  {{ o.label }}
                </option>
              }
            </select>
          } @else {
            <input
              #box
              [id]="prefix() + '-' + f[0]"
              [attr.inputmode]="f[1].input === 'number' ? 'decimal' : null"
              [attr.maxlength]="f[1].input === 'number' ? null : 120"
              autocomplete="off"
              placeholder="not known"
              [value]="shown(f[0])"
              [attr.aria-invalid]="problem()?.key === f[0]"
              (input)="typing.emit({ key: f[0], value: box.value })"
              (change)="typed(f[0], f[1], box.value)"
            />
          }
        </span>
      }
    }
    @if (problem(); as p) {
      <p class="problem" role="alert">Not changed. {{ p.why }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 6px;
    }
    .one {
      display: grid;
      grid-template-columns: minmax(0, 1fr) minmax(0, 140px);
      gap: 8px;
      align-items: center;
      font-size: 13px;
    }
    input,
    select {
      width: 100%;
    }
    input::placeholder {
      color: var(--ink2);
      font-style: italic;
    }
  `,
})
export class QuickAttrs {
  readonly fields = input.required<readonly (readonly [string, AttrMeta])[]>();
  readonly values = input.required<Values>();
  /** Keeps the ids of several of these on one page apart. */
  readonly prefix = input.required<string>();
  readonly changed = output<QuickChange>();
  /** Letters as they are typed, before anything is stored. */
  readonly typing = output<QuickChange>();
  readonly problem = signal<{ key: string; why: string } | null>(null);

  asked(meta: AttrMeta): boolean {
    return isAsked(meta, this.values());
  }

  options(meta: AttrMeta): NonNullable<AttrMeta['options']> {
    return optionsOf(meta, this.values());
  }

  shown(key: string): string {
    const value = this.values()[key];
    if (value === null || value === undefined) return '';
    if (typeof value === 'string') return value;
    return typeof value === 'number'
      ? String(value)
      : 'lo' in (value as object)
        ? numText(value as { lo: number; hi: number })
        : '';
  }

  typed(key: string, meta: AttrMeta, text: string): void {
    if (meta.input !== 'number') {
      this.emit(key, text.trim());
      return;
    }
    const read = typedNumber(text);
    if (!read.ok) {
      this.problem.set({ key, why: `${meta.label}: ${read.why}` });
      return;
    }
    const { value } = read;
    const min = meta.min ?? -Infinity;
    const max = meta.max ?? Infinity;
    const ends = value === null ? [] : typeof value === 'number' ? [value] : [value.lo, value.hi];
    if (ends.some((n) => n < min || n > max) || (ends[1] ?? Infinity) < (ends[0] ?? -Infinity)) {
      this.problem.set({
        key,
        why: `${meta.label}: from ${min} to ${max} ${meta.unit ?? ''}`.trim(),
      });
      return;
    }
    this.emit(key, value);
  }

  emit(key: string, value: unknown): void {
    this.problem.set(null);
    this.changed.emit({ key, value });
  }
}
