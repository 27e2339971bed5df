import {
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  afterNextRender,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { ApiError } from '../api/api-client';
import { Session } from '../api/session';

/** Name and password. Over a page that was open already, which stays as it is behind it. */
@Component({
  selector: 'rb-sign-in',
  imports: [MatButtonModule],
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
      <form (submit)="$event.preventDefault(); enter(name.value, password.value)">
        <label
          >Name <input #name name="username" required maxlength="60" autocomplete="username"
        /></label>
        <label>
          Password
          <input
            #password
            name="password"
            type="password"
            required
            maxlength="200"
            autocomplete="current-password"
          />
        </label>
        @if (problem(); as why) {
          <p class="problem" role="alert">{{ why }}</p>
        }
        <button mat-flat-button type="submit" [disabled]="working()">
          {{ working() ? 'Signing in …' : 'Sign in' }}
        </button>
      </form>
      <p class="quiet">No password, or forgotten? A keeper of this workshop gives you one.</p>
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
    form,
    label {
      display: grid;
      gap: 4px;
    }
    form {
      gap: 12px;
    }
    input {
      font-size: 16px;
      min-height: 40px;
    }
  `,
})
export class SignIn {
  readonly #session = inject(Session);
  readonly again = input.required<boolean>();
  readonly problem = signal<string | null>(null);
  readonly working = signal(false);
  readonly name = viewChild.required<ElementRef<HTMLInputElement>>('name');
  readonly password = viewChild.required<ElementRef<HTMLInputElement>>('password');

  constructor() {
    afterNextRender(() => this.name().nativeElement.focus());
  }

  enter(name: string, password: string): void {
    this.problem.set(null);
    this.working.set(true);
    this.#session.signIn(name, password).subscribe({
      error: (e: ApiError) => {
        this.working.set(false);
        this.problem.set(`Not signed in. ${e.message}`);
        this.password().nativeElement.value = '';
        this.password().nativeElement.focus();
      },
    });
  }
}
