import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  inject,
  Injector,
  input,
  signal,
} from '@angular/core';
import { FormControl, FormGroup, ReactiveFormsModule, Validators } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { readyToSend } from '../kit/problems';
import { ApiError } from '../api/api-client';
import { Session } from '../api/session';
import { Field } from '../kit/field';
import type { FieldMeta } from '../kit/meta';
import { Acts } from '../kit/ask';
import { CODE_META } from './one-time-code';

/** Name and password. Over a page that was open already, which stays as it is behind it. */
@Component({
  selector: 'rb-sign-in',
  imports: [Field, ReactiveFormsModule, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="sign-in-h">
      <h1 id="sign-in-h">
        {{
          again()
            ? '0 changes are lost: sign in again to go on.'
            : 'Sign in: 0 pages are open to guests.'
        }}
      </h1>
      <form [formGroup]="form" (ngSubmit)="enter()">
        <rb-field [meta]="nameMeta" [control]="form.controls.name" />
        <rb-field [meta]="passwordMeta" [control]="form.controls.password" />
        @if (codeAsked()) {
          <rb-field class="code" [meta]="codeMeta" [control]="form.controls.code" />
        }
        @if (problem(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
        <button mat-flat-button type="submit" [disabled]="working()">
          {{ working() ? 'Signing in …' : 'Sign in' }}
        </button>
      </form>
      <p class="quiet">
        @if (codeAsked()) {
          No device at hand? A recovery code stands in once. Without one, a keeper takes the codes
          off.
        } @else {
          No password, or forgotten? A keeper of this workshop gives you one.
        }
      </p>
    </section>
  `,
  styles: `
    :host {
      position: fixed;
      inset: 48px 0 0;
      z-index: 15;
      display: grid;
      place-items: start center;
      padding: 32px 12px;
      overflow: auto;
      background: color-mix(in srgb, var(--ground, var(--sunk)) 88%, transparent);
    }
    section {
      padding: 16px 20px;
      display: grid;
      gap: 12px;
      width: min(400px, 100%);
    }
    form {
      display: grid;
      gap: 12px;
    }
  `,
})
export class SignIn {
  readonly #acts = inject(Acts);
  readonly #session = inject(Session);
  readonly #injector = inject(Injector);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly again = input.required<boolean>();
  readonly problem = signal<string | null>(null);
  readonly working = signal(false);
  readonly form = new FormGroup({
    name: new FormControl('', { nonNullable: true, validators: Validators.required }),
    password: new FormControl('', { nonNullable: true, validators: Validators.required }),
    code: new FormControl('', { nonNullable: true }),
  });
  /** Name and password were right; a one-time code is missing. */
  readonly codeAsked = signal(false);
  readonly codeMeta = CODE_META;
  readonly nameMeta: FieldMeta = {
    label: 'Name',
    input: 'text',
    max: 60,
    autocomplete: 'username',
  };
  readonly passwordMeta: FieldMeta = {
    label: 'Password',
    input: 'password',
    max: 200,
    autocomplete: 'current-password',
  };

  constructor() {
    afterNextRender(() => this.#el.querySelector('input')?.focus());
  }

  enter(): void {
    this.problem.set(null);
    if (!readyToSend(this.form, this.#el)) return;
    const { name, password, code } = this.form.getRawValue();
    this.#acts.run(this.#session.signIn(name, password, code), {
      line: this.problem,
      running: this.working,
      failed: 'Not signed in.',
      otherwise: (e) => {
        if (e instanceof ApiError && e.code === 'code-needed') this.#askCode(e);
        else this.#again('password');
      },
    });
  }

  #again(name: 'password' | 'code'): void {
    this.form.controls[name].reset();
    this.#focus(name === 'code' ? '.code input' : '[type=password]');
  }

  #askCode(e: ApiError): void {
    // Asked for the first time, nothing is wrong yet.
    if (e.at('code') === null) this.problem.set(null);
    this.codeAsked.set(true);
    afterNextRender(() => this.#again('code'), { injector: this.#injector });
  }

  #focus(what: string): void {
    this.#el.querySelector<HTMLElement>(what)?.focus();
  }
}
