import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { currencies, isCurrency } from '@ruddy/core/base';
import { CONDITIONS, countedIn } from '@ruddy/core/buy';
import { money } from '@ruddy/core/buy/text';
import type { CostSaid } from '@ruddy/core/setups/contract';
import { readNumber } from '../platform/shared/format';
import { AmountField } from './amount-field';

type Lines = 'extras' | 'sells';

/** What a person says of the money of a plan: currency, the money there is, condition, shipping, discount, further things, things sold. */
@Component({
  selector: 'rb-cost-said',
  imports: [AmountField],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="fields">
      <div class="field">
        <label for="cost-currency">Counted in</label>
        <input
          id="cost-currency"
          #code
          maxlength="3"
          list="cost-currencies"
          autocomplete="off"
          [attr.aria-invalid]="oddCurrency() !== null"
          [value]="said().currency"
          (change)="currency(code.value)"
        />
        <datalist id="cost-currencies">
          @for (c of codes; track c) {
            <option [value]="c"></option>
          }
        </datalist>
        @if (oddCurrency(); as why) {
          <span class="problem" role="alert">{{ why }}</span>
        }
      </div>
      <div class="field">
        <span class="label">Money there is</span>
        <rb-amount-field
          label="Money there is"
          placeholder="not said"
          [currency]="said().currency"
          [minor]="said().budgetMinor"
          (changed)="changed.emit({ budgetMinor: $event })"
        />
      </div>
      <div class="field">
        <label for="cost-condition">Offers count</label>
        <select
          id="cost-condition"
          #cond
          (change)="changed.emit({ condition: $any(cond.value || null) })"
        >
          <option value="" [selected]="said().condition === null">in any condition</option>
          @for (c of conditions; track c[0]) {
            <option [value]="c[0]" [selected]="c[0] === said().condition">only {{ c[1] }}</option>
          }
        </select>
      </div>
      <div class="field">
        <span class="label">Shipping beside that of the offers</span>
        <rb-amount-field
          label="Shipping"
          [currency]="said().currency"
          [minor]="said().shippingMinor"
          (changed)="changed.emit({ shippingMinor: $event })"
        />
      </div>
      <div class="field">
        <label for="cost-percent">Discount on the parts, %</label>
        <input
          id="cost-percent"
          #percent
          inputmode="decimal"
          autocomplete="off"
          [attr.aria-invalid]="oddPercent() !== null"
          [value]="said().discountPercent ?? ''"
          (change)="discount(percent.value)"
        />
        @if (oddPercent(); as why) {
          <span class="problem" role="alert">{{ why }}</span>
        }
      </div>
      <div class="field">
        <span class="label">Discount, amount</span>
        <rb-amount-field
          label="Discount"
          [currency]="said().currency"
          [minor]="said().discountMinor"
          (changed)="changed.emit({ discountMinor: $event })"
        />
      </div>
    </div>
    @for (list of lists; track list[0]) {
      <h4>{{ list[1] }}</h4>
      <ul>
        @for (x of said()[list[0]]; track $index) {
          <li>
            {{ x.what }}: {{ money({ minor: x.minor, currency: said().currency }) }}
            <button
              type="button"
              class="link"
              (click)="take(list[0], $index)"
              [attr.aria-label]="'Take out ' + x.what"
            >
              Take out
            </button>
          </li>
        }
        @if (said()[list[0]].length < 12) {
          <li class="add">
            <input
              #what
              maxlength="80"
              autocomplete="off"
              [attr.aria-label]="list[2]"
              [placeholder]="list[2]"
            />
            <rb-amount-field
              #sum
              [label]="'Amount for ' + list[2]"
              [currency]="said().currency"
              [minor]="waiting()[list[0]]"
              (changed)="wait(list[0], $event)"
            />
            <button
              type="button"
              class="link"
              (click)="add(list[0], what)"
              [attr.aria-label]="'Add ' + list[2]"
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
  readonly conditions = Object.entries(CONDITIONS);
  readonly codes = currencies();
  readonly money = money;
  readonly lists: readonly [Lines, string, string][] = [
    ['extras', 'What else is bought', 'something else to buy'],
    ['sells', 'What is sold to pay for it', 'something to sell'],
  ];
  readonly waiting = signal<Record<Lines, number | null>>({ extras: null, sells: null });
  readonly problem = signal<string | null>(null);
  readonly oddCurrency = signal<string | null>(null);
  readonly oddPercent = signal<string | null>(null);

  currency(text: string): void {
    const code = text.trim().toUpperCase();
    this.oddCurrency.set(isCurrency(code) ? null : `"${text}" is not a currency like EUR`);
    if (isCurrency(code)) this.changed.emit(countedIn(this.said(), code));
  }

  discount(text: string): void {
    const read = readNumber(text);
    const value = read.ok ? read.value : null;
    const why = !read.ok
      ? read.why
      : value !== null && (value < 0 || value > 100)
        ? 'from 0 to 100 %'
        : null;
    this.oddPercent.set(why);
    if (why === null) this.changed.emit({ discountPercent: value });
  }

  wait(list: Lines, minor: number | null): void {
    this.waiting.update((w) => ({ ...w, [list]: minor }));
  }

  add(list: Lines, box: HTMLInputElement): void {
    const what = box.value.trim();
    const minor = this.waiting()[list];
    if (what === '' || minor === null) {
      this.problem.set('Nothing added: type what it is and how much');
      return;
    }
    this.problem.set(null);
    box.value = '';
    this.wait(list, null);
    this.changed.emit({ [list]: [...this.said()[list], { what, minor }] });
  }

  take(list: Lines, index: number): void {
    this.changed.emit({ [list]: this.said()[list].filter((_, i) => i !== index) });
  }
}
