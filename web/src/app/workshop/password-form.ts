import {
  afterNextRender,
  ChangeDetectionStrategy,
  Component,
  ElementRef,
  inject,
  input,
  output,
  signal,
  viewChild,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { PASSWORD_LEAST } from '@ruddy/core/workshop';
import type { MemberRow } from '@ruddy/core/workshop/contract';
import type { ApiError } from '../platform/api/api-client';
import { MembersData } from './people';

/** A new password: one's own with the current one, or that of another. */
@Component({
  selector: 'rb-password-form',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <form
      class="add"
      [attr.aria-label]="'Password of ' + member().name"
      (submit)="$event.preventDefault(); give(current()?.nativeElement?.value ?? '', next.value)"
    >
      @if (own()) {
        <label>
          Current password
          <input
            #current
            type="password"
            maxlength="200"
            required
            autocomplete="current-password"
          />
        </label>
      }
      <label>
        New password
        <input
          #next
          type="password"
          maxlength="200"
          required
          autocomplete="new-password"
          [attr.aria-describedby]="'least-' + member().id"
        />
      </label>
      <button mat-stroked-button type="submit">Store the password</button>
      <p class="hint" [id]="'least-' + member().id">
        At least {{ least }} characters. Every session under the old one ends.
      </p>
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
    </form>
  `,
  styleUrl: './people.scss',
})
export class PasswordForm {
  readonly #data = inject(MembersData);
  readonly member = input.required<MemberRow>();
  readonly own = input.required<boolean>();
  readonly focus = input(false);
  readonly given = output<string>();
  readonly current = viewChild<ElementRef<HTMLInputElement>>('current');
  readonly next = viewChild.required<ElementRef<HTMLInputElement>>('next');
  readonly problem = signal<string | null>(null);
  readonly least = PASSWORD_LEAST;

  constructor() {
    afterNextRender(() => {
      if (this.focus()) (this.current() ?? this.next()).nativeElement.focus();
    });
  }

  give(current: string, password: string): void {
    this.problem.set(null);
    this.#data.password(this.member().id, { current, password }).subscribe({
      next: (m) => {
        for (const f of [this.current(), this.next()]) if (f) f.nativeElement.value = '';
        this.given.emit(`${m.name} has a new password; earlier sessions ended.`);
      },
      error: (e: ApiError) =>
        this.problem.set(`Nothing stored. ${e.at('password') ?? e.at('current') ?? e.message}`),
    });
  }
}
