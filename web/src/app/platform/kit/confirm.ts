import { ChangeDetectionStrategy, Component, inject, Injectable } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialog, MatDialogModule } from '@angular/material/dialog';

/** What is asked before an act that cannot be undone. */
export interface Confirmation {
  readonly title: string;
  /** What is lost, first. */
  readonly loses: string;
  /** What stays, or what else to know. */
  readonly more?: string;
  /** Name of the act, on its button. */
  readonly act: string;
}

@Component({
  selector: 'rb-confirm',
  imports: [MatDialogModule, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>{{ asked.title }}</h2>
    <mat-dialog-content>
      <p class="caution">
        <strong>{{ asked.loses }}</strong> {{ asked.more }}
      </p>
    </mat-dialog-content>
    <mat-dialog-actions align="end">
      <button mat-button [mat-dialog-close]="false" cdkFocusInitial>Cancel</button>
      <button mat-flat-button [mat-dialog-close]="true">{{ asked.act }}</button>
    </mat-dialog-actions>
  `,
})
export class ConfirmDialog {
  readonly asked = inject<Confirmation>(MAT_DIALOG_DATA);
}

/** Asks before an act that cannot be undone: the caution stands first, and the focus on "Cancel". */
@Injectable({ providedIn: 'root' })
export class Confirm {
  readonly #dialog = inject(MatDialog);

  /**
   * Runs an act once it was confirmed.
   * @example confirm.before({ title: 'Delete Table 1?', loses: 'It cannot be undone.', act: 'Delete' }, () => this.delete())
   */
  before(asked: Confirmation, act: () => void): void {
    this.#dialog
      .open<ConfirmDialog, Confirmation, boolean>(ConfirmDialog, { data: asked, width: '480px' })
      .afterClosed()
      .subscribe((confirmed) => {
        if (confirmed) act();
      });
  }
}
