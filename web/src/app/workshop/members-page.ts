import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
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
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { PASSWORD_LEAST, ROLE_NAMES } from '@ruddy/core/workshop';
import type { MemberRow, Role } from '@ruddy/core/workshop/contract';
import { MEMBER_WORDS } from '@ruddy/core/workshop/text';
import { MembersData } from './people';
import { Session } from '../platform/api/session';
import { pluralize } from '../platform/shared/format';
import { PasswordForm } from './password-form';
import { Acts } from '../platform/kit/ask';
import { Confirm } from '../platform/kit/confirm';
import { readyToSend } from '../platform/kit/problems';
import { WorkshopNav } from './workshop-nav';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

const ROLE: FieldMeta = {
  label: 'Role',
  input: 'choice',
  options: ROLE_NAMES.map((r) => ({ value: r, label: MEMBER_WORDS[r] })),
};

/** Who borrows and who signs in: roles, passwords, and who is here no more. */
@Component({
  imports: [
    Field,
    ReactiveFormsModule,
    Cell,
    Rows,
    WorkshopNav,
    MatButtonModule,
    RouterLink,
    PasswordForm,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './members-page.html',
  styleUrl: './people.scss',
})
export class MembersPage {
  readonly membersPageColumns: readonly ShortColumn[] = [
    { key: 'member', name: 'Member' },
    { key: 'role', name: 'Role' },
    { key: 'signsIn', name: 'Signs in' },
    { key: 'has', name: 'Has', figure: true },
    { key: 'do', name: 'Do', silent: true },
  ];
  readonly #data = inject(MembersData);
  readonly #acts = inject(Acts);
  readonly #confirm = inject(Confirm);
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef).nativeElement;
  readonly session = inject(Session);
  readonly rows = signal<readonly MemberRow[] | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  /** Whose password is being given: an id, or none. */
  readonly giving = signal<string | null>(null);
  readonly form = new FormGroup({
    name: new FormControl('', { nonNullable: true, validators: Validators.required }),
    role: new FormControl<Role>('member', { nonNullable: true }),
    password: new FormControl('', { nonNullable: true }),
  });
  readonly fields: readonly (readonly [FieldMeta, FormControl])[] = [
    [{ label: 'Name', input: 'text', max: 60 }, this.form.controls.name],
    [ROLE, this.form.controls.role],
    [
      {
        label: 'Password',
        input: 'password',
        placeholder: 'none',
        max: 200,
        autocomplete: 'new-password',
      },
      this.form.controls.password,
    ],
  ];
  readonly words = MEMBER_WORDS;
  readonly least = PASSWORD_LEAST;
  readonly people = computed(() => (this.rows() ?? []).filter((m) => !m.builtIn));
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

  signsIn(m: MemberRow): string {
    if (!m.hasPassword) return 'no password';
    const codes = m.oneTimeCodes ? ', with one-time codes' : '';
    return `${m.signedIn > 0 ? `yes, in ${m.signedIn} now` : 'yes'}${codes}`;
  }

  askCodes(m: MemberRow): void {
    this.#confirm.before(
      {
        title: `Take the one-time codes off ${m.name}?`,
        loses: `From then on the password alone lets ${m.name} in.`,
        more: 'Make sure it is really they who ask.',
        act: 'Take them off',
      },
      () =>
        this.#acts.run(this.#data.dropCodes(m.id), {
          line: this.problem,
          then: () => {
            this.said.set(`${m.name} signs in with the password alone.`);
            this.#load();
          },
        }),
    );
  }

  roleMeta(m: MemberRow): FieldMeta {
    return { ...ROLE, label: `Role of ${m.name}` };
  }

  add(of: FormGroupDirective): void {
    if (!readyToSend(this.form, this.#el)) return;
    const { name, role, password } = this.form.getRawValue();
    const body = { id: v7(), name: name.trim(), role, password: password || null };
    this.#acts.send(this.form, this.#data.add(body), {
      line: this.problem,
      then: (m) => {
        const signs = m.hasPassword
          ? ' and can sign in'
          : '; without a password nobody signs in as them';
        this.said.set(`${m.name} is a member${signs}.`);
        of.resetForm();
        this.#load();
      },
    });
  }

  change(m: MemberRow, patch: { name?: string; role?: Role; active?: boolean }): void {
    this.said.set(null);
    this.#acts.run(this.#data.change(m.id, patch, m.rev), {
      line: this.problem,
      // The table shows again what is stored.
      otherwise: () => this.#load(),
      then: (next) => {
        this.said.set(
          next.active
            ? `${next.name}: ${MEMBER_WORDS[next.role]}.`
            : `${next.name} was deactivated and is signed out.`,
        );
        this.#load();
        if (next.id === this.session.member()?.id) this.session.look();
      },
    });
  }

  given(words: string): void {
    this.giving.set(null);
    this.said.set(words);
    this.#load();
  }

  #load(): void {
    this.#acts.read(this.#data.list(), {
      line: this.problem,
      then: ({ items }) => this.rows.set(items),
    });
  }
}
