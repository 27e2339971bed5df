import { ChangeDetectionStrategy, Component, computed, effect, input, signal } from '@angular/core';
import { ReactiveFormsModule, type FormControl } from '@angular/forms';
import { MatButtonToggleModule } from '@angular/material/button-toggle';
import type { ErrorStateMatcher } from '@angular/material/core';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { hintOf, problemOf, type FieldMeta } from './meta';
import { Typed } from './typed';

/**
 * One field of a form: the Material control that fits what is known of it, with label, unit, hint and error. The control holds the value
 * itself, never what was typed.
 */
@Component({
  selector: 'rb-field',
  imports: [
    ReactiveFormsModule,
    MatFormFieldModule,
    MatInputModule,
    MatSelectModule,
    MatButtonToggleModule,
    Typed,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (meta().input === 'toggle') {
      <mat-button-toggle-group
        [formControl]="control()"
        [aria-label]="meta().label"
        hideSingleSelectionIndicator
      >
        @for (o of meta().options; track o.value) {
          <mat-button-toggle [value]="o.value">{{ o.label }}</mat-button-toggle>
        }
      </mat-button-toggle-group>
    } @else {
      <mat-form-field appearance="outline" floatLabel="always">
        <mat-label>{{ meta().label }}</mat-label>
        @if (meta().input === 'choice') {
          <mat-select
            [formControl]="control()"
            [placeholder]="empty()"
            [errorStateMatcher]="matcher"
          >
            @if (meta().unsure) {
              <mat-option [value]="null">Not sure</mat-option>
            }
            @for (o of meta().options; track o.value) {
              <mat-option [value]="o.value">{{ o.label }}</mat-option>
            }
          </mat-select>
        } @else if (meta().input === 'number') {
          <input
            matInput
            rbTyped="range"
            inputmode="decimal"
            autocomplete="off"
            [formControl]="control()"
            [placeholder]="empty()"
            [errorStateMatcher]="matcher"
          />
        } @else {
          <input
            matInput
            autocomplete="off"
            [formControl]="control()"
            [placeholder]="empty()"
            [errorStateMatcher]="matcher"
          />
        }
        @if (meta().unit) {
          <span matTextSuffix>&nbsp;{{ meta().unit }}</span>
        }
        @if (hint()) {
          <mat-hint>{{ hint() }}</mat-hint>
        }
        <mat-error>{{ problem() }}</mat-error>
      </mat-form-field>
    }
  `,
  styles: `
    :host {
      display: block;
    }
    mat-form-field {
      width: 100%;
    }
  `,
})
export class Field {
  readonly meta = input.required<FieldMeta>();
  /** Any control will do: its type is that of the schema it belongs to. */
  readonly control = input.required<FormControl<unknown>>();
  readonly #tick = signal(0);
  readonly problem = computed(() => (this.#tick(), problemOf(this.control().errors)));
  readonly hint = computed(() => hintOf(this.meta()));
  readonly empty = computed(
    () => this.meta().placeholder ?? (this.meta().unsure ? 'not sure' : ''),
  );
  readonly matcher: ErrorStateMatcher = {
    isErrorState: (c) => c !== null && c.touched && problemOf(c.errors) !== null,
  };

  constructor() {
    effect((done) => {
      const sub = this.control().events.subscribe(() => this.#tick.update((n) => n + 1));
      done(() => sub.unsubscribe());
    });
  }
}
