import { inject, Injectable } from '@angular/core';
import { MatDialog } from '@angular/material/dialog';
import { filter, type Observable } from 'rxjs';
import type { Part } from '@ruddy/core/api';
import type { AnySpec, PartKind } from '@ruddy/core/schema';
import { PartDialog, type PartDialogInput } from './part-dialog';

/** Describe a part that is not in the catalogue; what comes is the part stored, nothing when the person went back. */
@Injectable({ providedIn: 'root' })
export class PartDescriber {
  readonly #dialog = inject(MatDialog);

  open(kind: PartKind, spec: Partial<AnySpec> = {}): Observable<Part> {
    return this.#dialog
      .open<PartDialog, PartDialogInput, Part>(PartDialog, { data: { kind, spec }, width: '760px', maxWidth: '96vw' })
      .afterClosed()
      .pipe(filter((part) => part !== undefined));
  }
}
