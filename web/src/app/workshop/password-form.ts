import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import {
  FormControl,
  FormGroup,
  type FormGroupDirective,
  ReactiveFormsModule,
  Validators,
} from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { PASSWORD_LEAST } from '@ruddy/core/workshop';
import type { MemberRow } from '@ruddy/core/workshop/contract';
import { Acts } from '../platform/kit/ask';
import { readyToSend } from '../platform/kit/problems';
import { MembersData } from './people';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

/** A new password: one's own with the current one, or that of another. */
@Component({
  selector: 'rb-password-form',
  imports: [Field, ReactiveFormsModule, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form
      class="add"
      [formGroup]="form"
      #of="ngForm"
      [attr.aria-label]="'Password of ' + member().name"
      (ngSubmit)="give(of)"
    >
      @if (own()) {
        <rb-field [meta]="currentMeta" [control]="form.controls.current" />
      }
      <rb-field [meta]="nextMeta" [control]="form.controls.password" />
      <button mat-stroked-button type="submit">Save password</button>
      <p class="hint">Every session under the old one ends.</p>
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
    </form>
  `,
  styleUrl: './people.scss',
})
export class PasswordForm {
  readonly #data = inject(MembersData);
  readonly #acts = inject(Acts);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly member = input.required<MemberRow>();
  readonly own = input.required<boolean>();
  readonly focus = input(false);
  readonly given = output<string>();
  readonly form = new FormGroup({
    current: new FormControl('', { nonNullable: true }),
    password: new FormControl('', { nonNullable: true, validators: Validators.required }),
  });
  readonly currentMeta: FieldMeta = {
    label: 'Current password',
    input: 'password',
    max: 200,
    autocomplete: 'current-password',
  };
  readonly nextMeta: FieldMeta = {
    label: 'New password',
    input: 'password',
    max: 200,
    autocomplete: 'new-password',
    help: `At least ${PASSWORD_LEAST} characters`,
  };
  readonly problem = signal<string | null>(null);

  constructor() {
    afterNextRender(() => {
      if (this.focus()) this.#el.querySelector('input')?.focus();
    });
  }

  give(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const call = this.#data.password(this.member().id, this.form.getRawValue());
    this.#acts.send(this.form, call, {
      line: this.problem,
      then: (m) => {
        of.resetForm();
        this.given.emit(`${m.name} has a new password; earlier sessions ended.`);
      },
    });
  }
}
