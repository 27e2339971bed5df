import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { moneyField } from '@ruddy/core/buy/text';
import { readAmount } from '../platform/shared/amount';

/** An amount to type, in one currency. In: minor units or null. Out: the same, once what was typed is an amount; until then it stays and says why. */
@Component({
  selector: 'rb-amount-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <input
      #box
      inputmode="decimal"
      autocomplete="off"
      [placeholder]="placeholder()"
      [attr.aria-label]="label() + ', ' + currency()"
      [attr.aria-invalid]="problem() !== null"
      [value]="shown(minor())"
      (change)="typed(box.value)"
    />
    @if (problem(); as why) {
      <span class="problem" role="alert">{{ why }}</span>
    }
  `,
  styles: `
    input {
      width: 100px;
      text-align: right;
    }
  `,
})
export class AmountField {
  readonly label = input.required<string>();
  readonly currency = input.required<string>();
  readonly minor = input.required<number | null>();
  readonly placeholder = input('');
  readonly changed = output<number | null>();
  readonly problem = signal<string | null>(null);

  shown(minor: number | null): string {
    return moneyField(minor, this.currency());
  }

  typed(text: string): void {
    const read = readAmount(text, this.currency());
    this.problem.set(read.ok ? null : read.why);
    if (read.ok) this.changed.emit(read.minor);
  }
}
