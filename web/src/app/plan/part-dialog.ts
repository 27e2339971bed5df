import { ChangeDetectionStrategy, Component, inject, signal } from '@angular/core';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { MatButtonModule } from '@angular/material/button';
import { catchError, EMPTY } from 'rxjs';
import { v7 } from 'uuid';
import type { AnySpec, PartKind } from '@ruddy/core/parts';
import type { Part, PartBody } from '@ruddy/core/parts/contract';
import type { ApiError } from '../platform/api/api-client';
import { PartsData } from '../parts/parts';
import { PartForm, type FormPart } from '../parts/part-form';
import { KIND_WORDS } from '../parts/part-facts';
import { partRefusals, type Errors } from '../parts/form-model';

export interface PartDialogInput {
  kind: PartKind;
  spec: Partial<AnySpec>;
  /** The part that is edited; null where a new one is described. */
  part: Part | null;
}

/** Describe a part that is not in the catalogue, which is then added and chosen; or edit one that is. */
@Component({
  imports: [MatDialogModule, MatButtonModule, PartForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ data.part ? 'Edit' : 'Describe' }} the {{ word }}</h2>
    <mat-dialog-content>
      <p class="quiet">
        "Not sure" is a good answer: the plan says which of them matter and how to find out.
      </p>
      @if (data.part && data.part.usedIn > 1) {
        <p class="quiet">
          It stands in {{ data.part.usedIn }} setups: all of them are judged with what you save.
        </p>
      }
      <rb-part-form
        [kind]="data.kind"
        [spec]="data.spec"
        [sources]="data.part?.sources ?? {}"
        [refused]="refused()"
        [action]="data.part ? 'Save' : 'Add and choose it'"
        (saved)="save($event)"
      >
        <button mat-button type="button" mat-dialog-close>Cancel</button>
      </rb-part-form>
    </mat-dialog-content>
  `,
  styles: `
    p {
      margin-bottom: 8px;
    }
  `,
})
export class PartDialog {
  readonly #parts = inject(PartsData);
  readonly #ref = inject<MatDialogRef<PartDialog, Part>>(MatDialogRef);
  readonly data = inject<PartDialogInput>(MAT_DIALOG_DATA);
  readonly word = KIND_WORDS[this.data.kind].one;
  readonly refused = signal<Errors>(new Map());

  save({ spec, sources }: FormPart): void {
    const { part, kind } = this.data;
    const sent = part
      ? this.#parts.patch(
          part.id,
          { spec: spec as unknown as Record<string, unknown>, sources },
          part.rev,
        )
      : this.#parts.create({ id: v7(), kind, spec, sources } as PartBody);
    sent
      .pipe(
        catchError((e: ApiError) => {
          this.refused.set(partRefusals(e));
          return EMPTY;
        }),
      )
      .subscribe((part) => this.#ref.close(part));
  }
}
