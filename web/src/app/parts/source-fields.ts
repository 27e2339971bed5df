import { ChangeDetectionStrategy, Component, inject, input, output, computed } from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import {
  MAT_DIALOG_DATA,
  MatDialog,
  MatDialogModule,
  MatDialogRef,
} from '@angular/material/dialog';
import { type SourceNote, VALUE_SOURCES, type ValueSource } from '@ruddy/core/parts';
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';

/** Source, date and note in words; empty without a source. */
export function sourceWords(s: SourceNote | null | undefined): string {
  if (!s?.from) return '';
  return [VALUE_SOURCES[s.from], s.on && day(s.on), s.note].filter((w) => w).join(', ');
}

interface SourceInput {
  readonly name: string;
  readonly source: SourceNote | null;
  readonly today: string;
}

/** The note of what `source` became: none without a source, unless an odd value was kept. */
export function noted(
  source: SourceNote | null,
  given: { from: ValueSource | null; on: string | null; note: string },
): SourceNote | null {
  const kept = source?.kept ?? false;
  if (given.from !== null)
    return { from: given.from, on: given.on ?? '', note: given.note.trim(), kept };
  return kept ? { from: null, on: '', note: '', kept } : null;
}

@Component({
  imports: [Field, MatButtonModule, MatDialogModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Source of {{ data.name }}</h2>
    <mat-dialog-content>
      @for (f of fields; track f[0].label) {
        <rb-field [meta]="f[0]" [control]="f[1]" />
      }
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button type="button" mat-dialog-close>Cancel</button>
      <button mat-flat-button type="button" (click)="use()">Use it</button>
    </mat-dialog-actions>
  `,
  styles: `
    mat-dialog-content {
      display: grid;
      gap: 8px;
    }
  `,
})
export class SourceDialog {
  readonly #ref = inject<MatDialogRef<SourceDialog, SourceNote | null>>(MatDialogRef);
  readonly data = inject<SourceInput>(MAT_DIALOG_DATA);
  readonly form = new FormGroup({
    from: new FormControl<ValueSource | null>(this.data.source?.from ?? null),
    on: new FormControl<string | null>(this.data.source?.on || this.data.today),
    note: new FormControl(this.data.source?.note ?? '', { nonNullable: true }),
  });
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [
      {
        label: 'Source',
        input: 'choice',
        placeholder: 'not set',
        options: optionsOf(VALUE_SOURCES),
      },
      this.form.controls.from,
    ],
    [{ label: 'Date', input: 'day' }, this.form.controls.on],
    [{ label: 'Note', input: 'text', max: 200 }, this.form.controls.note],
  ];

  use(): void {
    if (this.form.valid) this.#ref.close(noted(this.data.source, this.form.getRawValue()));
  }
}

/** Where one value came from, as a button that opens source, date and note. */
@Component({
  selector: 'rb-source-fields',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <button mat-button type="button" [attr.aria-label]="said()" (click)="open()">
      {{ words() || 'Add source' }}
    </button>
  `,
})
export class SourceFields {
  readonly #clock = inject(ServerClock);
  readonly #dialog = inject(MatDialog);
  readonly name = input.required<string>();
  readonly source = input<SourceNote | null>(null);
  readonly changed = output<SourceNote | null>();
  readonly words = computed(() => sourceWords(this.source()));
  readonly said = computed(() =>
    this.words() === ''
      ? `Add source of ${this.name()}`
      : `${this.words()}: source of ${this.name()}`,
  );

  open(): void {
    const data = { name: this.name(), source: this.source(), today: this.#clock.today() };
    this.#dialog
      .open<SourceDialog, SourceInput, SourceNote | null>(SourceDialog, { data, width: '360px' })
      .afterClosed()
      .subscribe((note) => {
        if (note !== undefined) this.changed.emit(note);
      });
  }
}
