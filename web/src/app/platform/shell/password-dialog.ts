import { ChangeDetectionStrategy, Component, inject, type Injector, signal } from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatDialog, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { map, type Observable } from 'rxjs';
import { ApiClient, ApiError } from '../api/api-client';
import { Acts } from '../kit/ask';
import { Field } from '../kit/field';
import type { FieldMeta } from '../kit/meta';
import { CODE_META } from './one-time-code';

/** The password again, before an act that asks for it. */
@Component({
  imports: [Field, MatButtonModule, MatDialogModule, ReactiveFormsModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Give your password again</h2>
    <form [formGroup]="form" (ngSubmit)="give()">
      <mat-dialog-content>
        <p>This changes who may do what, or takes something away. It counts for 5 minutes.</p>
        @if (problem(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
        <rb-field [meta]="passwordMeta" [control]="form.controls.password" />
        @if (codeAsked()) {
          <rb-field [meta]="codeMeta" [control]="form.controls.code" />
        }
      </mat-dialog-content>
      <mat-dialog-actions align="end">
        <button mat-button type="button" [mat-dialog-close]="false">Cancel</button>
        <button mat-flat-button type="submit" [disabled]="working()">Go on</button>
      </mat-dialog-actions>
    </form>
  `,
  styles: `
    rb-field {
      margin-top: 12px;
    }
  `,
})
export class PasswordDialog {
  readonly #api = inject(ApiClient);
  readonly #acts = inject(Acts);
  readonly #dialog = inject<MatDialogRef<PasswordDialog, boolean>>(MatDialogRef);
  readonly problem = signal<string | null>(null);
  readonly working = signal(false);
  readonly codeAsked = signal(false);
  readonly form = new FormGroup({
    password: new FormControl('', { nonNullable: true, validators: Validators.required }),
    code: new FormControl('', { nonNullable: true }),
  });
  readonly passwordMeta: FieldMeta = {
    label: 'Your password',
    input: 'password',
    max: 200,
    autocomplete: 'current-password',
  };
  readonly codeMeta = CODE_META;

  give(): void {
    this.form.markAllAsTouched();
    if (this.form.invalid || this.working()) return;
    const call = this.#api.call('POST /api/me/confirm', { body: this.form.getRawValue() });
    this.#acts.send(this.form, call, {
      line: this.problem,
      running: this.working,
      failed: 'Not confirmed.',
      then: () => this.#dialog.close(true),
      otherwise: (e) => {
        if (!(e instanceof ApiError) || e.code !== 'code-needed') return;
        // The password was right: nothing is wrong yet.
        this.problem.set(null);
        this.codeAsked.set(true);
      },
    });
  }
}

/** Asks for the password; true once it was right. */
export function askPassword(injector: Injector): Observable<boolean> {
  return injector
    .get(MatDialog)
    .open<PasswordDialog, unknown, boolean>(PasswordDialog, { width: '420px' })
    .afterClosed()
    .pipe(map((given) => given === true));
}
