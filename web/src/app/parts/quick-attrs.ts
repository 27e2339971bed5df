import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { type AttrMeta, isAsked, optionsOf } from '@ruddy/core/parts';
import { Field } from '../platform/kit/field';
import { fieldOf, type FieldMeta } from '../platform/kit/meta';

export interface QuickChange {
  readonly key: string;
  readonly value: unknown;
}

type Values = Readonly<Record<string, unknown>>;

/** Attributes edited in place, stored as they are left. A figure outside its limits is said and not stored. */
@Component({
  selector: 'rb-quick-attrs',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'dense' },
  template: `
    @for (f of shown(); track f[0]) {
      <rb-field
        [meta]="f[1]"
        [value]="values()[f[0]] ?? f[2]"
        (typing)="typing.emit({ key: f[0], value: $event })"
        (changed)="changed.emit({ key: f[0], value: $event })"
      />
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(140px, 1fr));
      gap: 8px;
      align-items: start;
      padding-top: 4px;
    }
  `,
})
export class QuickAttrs {
  readonly fields = input.required<readonly (readonly [string, AttrMeta])[]>();
  readonly values = input.required<Values>();
  readonly changed = output<QuickChange>();
  /** Letters as they are typed, before anything is stored. */
  readonly typing = output<QuickChange>();
  /** Key, field and value when empty of what is asked, given the other values. */
  readonly shown = computed(() =>
    this.fields()
      .filter(([, meta]) => isAsked(meta, this.values()))
      .map(([key, meta]) => [key, this.#field(meta), meta.input === 'text' ? '' : null] as const),
  );

  #field(meta: AttrMeta): FieldMeta {
    const field = fieldOf(meta);
    if (meta.input === 'choice') return { ...field, options: optionsOf(meta, this.values()) };
    return { ...field, placeholder: 'not known', ...(meta.input === 'text' ? { max: 120 } : {}) };
  }
}
