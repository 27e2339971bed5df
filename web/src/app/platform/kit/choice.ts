import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';

export interface Option {
  readonly value: string;
  readonly label: string;
}

/** A choice as a row of buttons: it works with Tab, Enter and Space alone. Pressing the chosen one again empties it. */
@Component({
  selector: 'rb-choice',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (named()) {
      <span class="label" aria-hidden="true">{{ label() }}</span>
    }
    <div role="group" [attr.aria-label]="label()">
      @for (o of options(); track o.value) {
        <button
          mat-stroked-button
          type="button"
          [attr.aria-pressed]="on(o.value)"
          (click)="press(o.value)"
        >
          {{ o.label }}
        </button>
      }
    </div>
  `,
  styles: `
    .label {
      font: var(--mat-sys-body-small);
      color: var(--ink2);
    }
    div {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
  `,
})
export class Choice {
  readonly label = input.required<string>();
  readonly options = input.required<readonly Option[]>();
  /** The label is shown as well. */
  readonly named = input(false);
  /** The chosen value, or several where more than one may be chosen. */
  readonly value = input<string | null | readonly string[]>(null);
  readonly clearable = input(true);
  readonly chosen = output<string | null>();

  on(value: string): boolean {
    const v = this.value();
    return Array.isArray(v) ? v.includes(value) : v === value;
  }

  press(value: string): void {
    const several = Array.isArray(this.value());
    if (this.on(value) && !several && !this.clearable()) return;
    this.chosen.emit(this.on(value) && !several ? null : value);
  }
}
