import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { filter, switchMap, type Observable } from 'rxjs';
import type { AnySpec, PartKind } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { PartsData } from '../parts/parts';
import { PartDialog, type PartDialogInput } from './part-dialog';

/** Describe a part that is not in the catalogue; what comes is the part stored, nothing when the person went back. */
@Injectable({ providedIn: 'root' })
export class PartDescriber {
  readonly #dialog = inject(MatDialog);
  readonly #parts = inject(PartsData);

  open(kind: PartKind, spec: Partial<AnySpec> = {}): Observable<Part> {
    return this.#open({ kind, spec, part: null });
  }

  /** Edit a part as it is stored now; what comes is the part after it. */
  edit(id: string): Observable<Part> {
    return this.#parts
      .one(id)
      .pipe(switchMap((part) => this.#open({ kind: part.kind, spec: part.spec, part })));
  }

  #open(data: PartDialogInput): Observable<Part> {
    return this.#dialog
      .open<PartDialog, PartDialogInput, Part>(PartDialog, {
        data,
        width: '760px',
        maxWidth: '96vw',
      })
      .afterClosed()
      .pipe(filter((part) => part !== undefined));
  }
}
