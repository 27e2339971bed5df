import { ChangeDetectionStrategy, Component, inject, type Injector } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MatDialog, MatDialogModule } from '@angular/material/dialog';
import { Keys } from './keys';

@Component({
  imports: [MatDialogModule, MatButtonModule, MatCheckboxModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Keyboard shortcuts</h2>
    <mat-dialog-content>
      <dl>
        @for (b of keys.bindings(); track b.key) {
          <div [hidden]="b.what === ''">
            <dt>
              <kbd>{{ b.key }}</kbd>
            </dt>
            <dd>{{ b.what }}</dd>
          </div>
        }
        @for (p of keys.places(); track p.key) {
          <div>
            <dt>
              <kbd>g</kbd>
              <kbd>{{ p.key }}</kbd>
            </dt>
            <dd>{{ p.what }}</dd>
          </div>
        }
      </dl>
      <mat-checkbox [checked]="keys.lettersOff()" (change)="keys.switchLetters($event.checked)"
        >Switch single-letter keys off</mat-checkbox
      >
    </mat-dialog-content>
    <mat-dialog-actions align="end"
      ><button mat-flat-button mat-dialog-close>Close</button></mat-dialog-actions
    >
  `,
  styles: `
    dl {
      display: grid;
      gap: 4px;
      margin-bottom: 12px;
    }
    dl div {
      display: flex;
      gap: 12px;
    }
    dt {
      min-width: 96px;
    }
  `,
})
export class KeysDialog {
  readonly keys = inject(Keys);
}

/** Shows the keyboard shortcuts of the page in a dialog. */
export function openKeys(injector: Injector): void {
  injector.get(MatDialog).open(KeysDialog);
}
