import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { FormControl } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';

const REASONS = ['typed wrongly', 'another setup', 'did not happen so'];

/** Take a fact back, with a reason: chosen, or in words. Both stay on record. */
@Component({
  selector: 'rb-take-back',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!open()) {
      <button
        mat-button
        type="button"
        (click)="open.set(true)"
        [attr.aria-label]="'Delete ' + what()"
      >
        Delete
      </button>
    } @else {
      <div class="box">
        <p class="hint">It stays on record and no longer counts.</p>
        <rb-field [meta]="meta" [control]="reason" />
        <div class="own">
          <button mat-stroked-button type="button" (click)="say()">Delete</button>
          <button mat-button type="button" (click)="open.set(false)">Cancel</button>
        </div>
        @if (empty()) {
          <p class="problem" role="alert">Not deleted. Enter a reason.</p>
        }
      </div>
    }
  `,
  styles: `
    .box {
      display: grid;
      gap: 4px;
      padding: 4px 0;
    }
    .own {
      display: flex;
      gap: 4px;
      flex-wrap: wrap;
    }
  `,
})
export class TakeBack {
  /** "the reading of 3 Nov". */
  readonly what = input.required<string>();
  readonly said = output<string>();
  readonly open = signal(false);
  readonly empty = signal(false);
  readonly reason = new FormControl('', { nonNullable: true });
  readonly meta: FieldMeta = {
    label: 'Reason',
    input: 'suggest',
    max: 300,
    options: REASONS.map((r) => ({ value: r, label: r })),
    placeholder: 'typed wrongly, …',
  };

  say(): void {
    const reason = this.reason.value.trim();
    this.empty.set(reason === '');
    if (reason === '') return;
    this.open.set(false);
    this.said.emit(reason);
  }
}
