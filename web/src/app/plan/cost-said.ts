import { ChangeDetectionStrategy, Component, computed, input, output, signal } from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { currencies, isCurrency } from '@ruddy/core/base';
import { CONDITIONS, countedIn } from '@ruddy/core/buy';
import { money } from '@ruddy/core/buy/text';
import type { CostSaid } from '@ruddy/core/setups/contract';
import { MatButtonModule } from '@angular/material/button';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';

type Lines = 'extras' | 'sells';

const AMOUNTS = [
  ['budgetMinor', 'Budget'],
  ['shippingMinor', 'Extra shipping'],
  ['discountMinor', 'Discount amount'],
] as const;
const itemForm = () =>
  new FormGroup({
    what: new FormControl('', { nonNullable: true }),
    minor: new FormControl<number | null>(null),
  });

/** What a person says of the money of a plan: currency, the money there is, condition, shipping, discount, further things, things sold. */
@Component({
  selector: 'rb-cost-said',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="fields">
      <rb-field [meta]="currencyMeta" [value]="said().currency" (changed)="currency($event)" />
      @for (f of amounts(); track f[0]) {
        <rb-field [meta]="f[1]" [value]="said()[f[0]]" (changed)="amount(f[0], $event)" />
      }
      <rb-field
        [meta]="conditionMeta"
        [value]="said().condition"
        (changed)="changed.emit({ condition: $event })"
      />
      <rb-field
        [meta]="percentMeta"
        [value]="said().discountPercent"
        (changed)="changed.emit({ discountPercent: $event })"
      />
    </div>
    @for (list of lists; track list[0]) {
      <h4>{{ list[1] }}</h4>
      <ul>
        @for (x of said()[list[0]]; track $index) {
          <li>
            {{ x.what }}: {{ money({ minor: x.minor, currency: said().currency }) }}
            <button
              mat-button
              type="button"
              (click)="take(list[0], $index)"
              [attr.aria-label]="'Remove ' + x.what"
            >
              Remove
            </button>
          </li>
        }
        @if (said()[list[0]].length < 12) {
          <li class="add">
            <rb-field [meta]="list[2]" [control]="waiting[list[0]].controls.what" />
            <rb-field [meta]="sumMeta()" [control]="waiting[list[0]].controls.minor" />
            <button
              mat-button
              type="button"
              (click)="add(list[0])"
              [attr.aria-label]="'Add to ' + list[1]"
            >
              Add
            </button>
          </li>
        }
      </ul>
    }
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
  `,
  styles: `
    .fields {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(150px, 1fr));
      gap: 8px 12px;
    }
    ul {
      list-style: none;
      padding: 0;
      display: grid;
      gap: 4px;
    }
    .add rb-field {
      flex: 1 1 120px;
    }
    .add {
      display: flex;
      flex-wrap: wrap;
      align-items: center;
      gap: 8px;
    }
    h4 {
      margin: 8px 0 4px;
    }
  `,
})
export class CostSaidFields {
  readonly said = input.required<CostSaid>();
  readonly changed = output<Partial<CostSaid>>();
  readonly money = money;
  readonly currencyMeta: FieldMeta = {
    label: 'Currency',
    input: 'suggest',
    max: 3,
    options: currencies().map((c) => ({ value: c, label: c })),
    check: (code) =>
      isCurrency(String(code).trim().toUpperCase())
        ? null
        : `"${String(code)}" is not a currency like EUR`,
  };
  readonly conditionMeta: FieldMeta = {
    label: 'Condition of offers',
    input: 'choice',
    placeholder: 'any',
    options: optionsOf(CONDITIONS),
  };
  readonly percentMeta: FieldMeta = {
    label: 'Discount',
    input: 'number',
    unit: '%',
    min: 0,
    max: 100,
  };
  readonly amounts = computed(() =>
    AMOUNTS.map(([key, label]) => [key, this.#money(label)] as const),
  );
  readonly sumMeta = computed(() => this.#money('Amount'));
  readonly lists: readonly (readonly [Lines, string, FieldMeta])[] = [
    ['extras', 'Extra items', { label: 'Item to buy', input: 'text', max: 80 }],
    ['sells', 'Items to sell', { label: 'Item to sell', input: 'text', max: 80 }],
  ];
  readonly waiting = { extras: itemForm(), sells: itemForm() };
  readonly problem = signal<string | null>(null);

  currency(text: string): void {
    this.changed.emit(countedIn(this.said(), text.trim().toUpperCase()));
  }

  amount(key: (typeof AMOUNTS)[number][0], minor: number | null): void {
    this.changed.emit({ [key]: minor });
  }

  add(list: Lines): void {
    const form = this.waiting[list];
    const { what, minor } = form.getRawValue();
    if (what.trim() === '' || minor === null)
      return this.problem.set('Not added. Enter an item and its amount.');
    this.problem.set(null);
    form.reset();
    this.changed.emit({ [list]: [...this.said()[list], { what: what.trim(), minor }] });
  }

  take(list: Lines, index: number): void {
    this.changed.emit({ [list]: this.said()[list].filter((_, i) => i !== index) });
  }

  #money(label: string): FieldMeta {
    return { label, input: 'money', unit: this.said().currency, placeholder: 'not set' };
  }
}
