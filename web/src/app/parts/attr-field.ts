import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { ReactiveFormsModule, type FormControl } from '@angular/forms';
import { MatFormFieldModule } from '@angular/material/form-field';
import { MatInputModule } from '@angular/material/input';
import { MatSelectModule } from '@angular/material/select';
import { type AttrMeta, type SourceNote, VALUE_SOURCES } from '@ruddy/core/parts';
import { day } from '../platform/shared/format';
import type { FieldValue } from './form-model';
import { SourceFields } from './source-fields';

/** One attribute: label above, control, unit, help and its error below. */
@Component({
  selector: 'rb-attr-field',
  imports: [ReactiveFormsModule, MatFormFieldModule, MatInputModule, MatSelectModule, SourceFields],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field">
      <label [attr.for]="meta().input === 'choice' ? null : key()" [id]="key() + '-l'">
        {{ meta().label }}{{ meta().unit ? ', ' + meta().unit : '' }}
      </label>
      <mat-form-field>
        @if (meta().input === 'choice') {
          <mat-select
            [id]="key()"
            [formControl]="control()"
            placeholder="not sure"
            [aria-labelledby]="key() + '-l'"
            [attr.aria-invalid]="error() !== null"
            [attr.aria-describedby]="key() + '-d'"
          >
            @if (meta().unsure) {
              <mat-option [value]="null">Not sure</mat-option>
            }
            @if (several(); as s) {
              <mat-option [value]="s">{{ severalWords() }}</mat-option>
            }
            @for (o of options() ?? meta().options ?? []; track o.value) {
              <mat-option [value]="o.value">{{ o.label }}</mat-option>
            }
          </mat-select>
        } @else {
          <input
            matInput
            [id]="key()"
            [formControl]="control()"
            [attr.inputmode]="meta().input === 'number' ? 'decimal' : null"
            [attr.aria-invalid]="error() !== null"
            [attr.aria-describedby]="key() + '-d'"
            [placeholder]="meta().unsure ? 'not sure' : ''"
            autocomplete="off"
          />
        }
      </mat-form-field>
      <span [id]="key() + '-d'" class="below">
        @if (error(); as why) {
          <span class="wrong">{{ why }}</span>
        } @else if (asks(); as question) {
          <span class="asks">{{ question }}</span>
        } @else {
          <span class="hint">{{ hint() }}</span>
        }
      </span>
      @if (sourced()) {
        <rb-source-fields
          [name]="meta().label"
          [source]="source()"
          (changed)="sourceChanged.emit($event)"
        />
      } @else if (sourceWords()) {
        <span class="below hint">{{ sourceWords() }}</span>
      }
    </div>
  `,
  styles: `
    .below {
      font-size: 12px;
      line-height: 16px;
    }
    .wrong {
      color: var(--plum);
      font-weight: 600;
    }
    .asks {
      border-left: 4px solid var(--ochre);
      padding-left: 4px;
    }
    input::placeholder {
      color: var(--ink2);
      font-style: italic;
    }
  `,
})
export class AttrField {
  readonly key = input.required<string>();
  readonly meta = input.required<AttrMeta>();
  /** The options that go with what other fields hold; without, all. */
  readonly options = input<AttrMeta['options']>();
  readonly control = input.required<FormControl<FieldValue>>();
  readonly error = input<string | null>(null);
  /** A question about the value: odd, but storable. */
  readonly asks = input<string | null>(null);
  /** Where the value came from, and whether that can be said here. */
  readonly source = input<SourceNote | null>(null);
  readonly sourced = input(false);
  readonly sourceChanged = output<SourceNote | null>();
  readonly sourceWords = computed(() => {
    const s = this.source();
    if (!s?.from) return '';
    return [VALUE_SOURCES[s.from], s.on && day(s.on), s.note].filter((w) => w).join(', ');
  });
  readonly several = computed(() => {
    const value = this.control().value;
    return Array.isArray(value) ? value : null;
  });
  readonly severalWords = computed(() => {
    const label = (v: string) => this.meta().options?.find((o) => o.value === v)?.label ?? v;
    return (this.several() ?? []).map(label).join(' or ');
  });
  /** Limits and help: both, where there are both. */
  readonly hint = computed(() => {
    const m = this.meta();
    const limits = m.input === 'number' ? `${m.min} to ${m.max}, or a range of them.` : '';
    return [limits, m.help ?? ''].filter((s) => s !== '').join(' ');
  });
}
