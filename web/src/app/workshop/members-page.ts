import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { PASSWORD_LEAST, ROLE_NAMES } from '@ruddy/core/workshop';
import type { MemberRow, Role } from '@ruddy/core/workshop/contract';
import { MEMBER_WORDS } from '@ruddy/core/workshop/text';
import type { ApiError } from '../platform/api/api-client';
import { MembersData } from './people';
import { Session } from '../platform/api/session';
import { pluralize, orEmpty } from '../platform/shared/format';
import { PasswordForm } from './password-form';
import { WorkshopNav } from './workshop-nav';

/** Who borrows and who signs in: roles, passwords, and who is here no more. */
@Component({
  imports: [WorkshopNav, MatButtonModule, RouterLink, PasswordForm],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './members-page.html',
  styleUrl: './people.scss',
})
export class MembersPage {
  readonly #data = inject(MembersData);
  readonly session = inject(Session);
  /** Opened to change one's own password. */
  readonly mine = input('', { transform: orEmpty });
  readonly rows = signal<readonly MemberRow[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly field = signal<{ name: string; why: string } | null>(null);
  /** Whose password is being given: an id, or none. */
  readonly giving = signal<string | null>(null);
  readonly roles = ROLE_NAMES;
  readonly words = MEMBER_WORDS;
  readonly least = PASSWORD_LEAST;
  readonly people = computed(() => (this.rows() ?? []).filter((m) => !m.builtIn));
  readonly own = computed(
    () => this.people().find((m) => m.id === this.session.member()?.id) ?? null,
  );
  readonly headline = computed(() => {
    if (!this.rows()) return 'Reading the members …';
    const here = this.people().filter((m) => m.active);
    const can = here.filter((m) => m.hasPassword).length;
    const keepers = here.filter((m) => m.hasPassword && m.role === 'keeper').length;
    const open = keepers === 0 ? ' No keeper has a password: other machines stay out.' : '';
    return `${pluralize(here.length, 'member')}, ${can} can sign in.${open}`;
  });

  constructor() {
    this.#load();
  }

  add(form: HTMLFormElement, name: string, role: string, password: string): void {
    this.#begin();
    const body = {
      id: v7(),
      name: name.trim(),
      role: role as Role,
      password: password === '' ? null : password,
    };
    this.#data.add(body).subscribe({
      next: (m) => {
        this.said.set(
          `${m.name} is a member${m.hasPassword ? ' and can sign in' : '; without a password nobody signs in as them'}.`,
        );
        form.reset();
        this.#load();
      },
      error: (e: ApiError) => this.#failed(e),
    });
  }

  change(m: MemberRow, patch: { name?: string; role?: Role; active?: boolean }): void {
    this.#begin();
    this.#data.change(m.id, patch, m.rev).subscribe({
      next: (next) => {
        this.said.set(
          next.active
            ? `${next.name}: ${MEMBER_WORDS[next.role]}.`
            : `${next.name} was let go and is signed out.`,
        );
        this.#load();
        if (next.id === this.session.member()?.id) this.session.look();
      },
      error: (e: ApiError) => {
        this.#failed(e);
        // The table shows again what is stored.
        this.#load();
      },
    });
  }

  given(words: string): void {
    this.giving.set(null);
    this.said.set(words);
    this.#load();
  }

  role(text: string): Role {
    return text as Role;
  }

  #begin(): void {
    this.problem.set(null);
    this.said.set(null);
    this.field.set(null);
  }

  #failed(e: ApiError): void {
    for (const name of ['name', 'password', 'role']) {
      const why = e.at(name);
      if (why) this.field.set({ name, why });
    }
    this.problem.set(`Nothing stored. ${this.field()?.why ?? e.message}`);
  }

  #load(): void {
    this.#data.list().subscribe({
      next: ({ items }) => this.rows.set(items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
