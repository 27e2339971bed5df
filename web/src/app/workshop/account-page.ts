import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { filter, map } from 'rxjs';
import type { Account, MemberRow } from '@ruddy/core/workshop/contract';
import { Session } from '../platform/api/session';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';
import { clock, day, pluralize } from '../platform/shared/format';
import { OneTimeCodes } from './one-time-codes';
import { PasswordForm } from './password-form';
import { AccountData, MembersData } from './people';

type Browser = Account['sessions'][number];

/** One's own account: password, one-time codes, and the browsers that are signed in. */
@Component({
  imports: [Cell, MatButtonModule, OneTimeCodes, PasswordForm, Rows, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './account-page.html',
  styleUrl: './people.scss',
})
export class AccountPage {
  readonly #data = inject(AccountData);
  readonly #members = inject(MembersData);
  readonly #acts = inject(Acts);
  readonly session = inject(Session);
  readonly account = ask(
    () => this.#data.read(),
    () => (this.session.signsIn() ? true : undefined),
  );
  readonly now = computed(() => valueOf(this.account) ?? null);
  readonly #mine = ask(
    (id) =>
      this.#members.list().pipe(
        map(({ items }) => items.find((m) => m.id === id)),
        filter((m): m is MemberRow => m !== undefined),
      ),
    () => (this.session.signsIn() ? this.session.member()?.id : undefined),
  );
  readonly me = computed(() => valueOf(this.#mine) ?? null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly columns: readonly ShortColumn<Browser>[] = [
    { key: 'browser', name: 'Browser', text: (b) => b.browser || 'does not say' },
    { key: 'address', name: 'Signed in from', text: (b) => b.address },
    { key: 'begun', name: 'Signed in', text: (b) => when(b.begunAt) },
    { key: 'seen', name: 'Last used', text: (b) => (b.here ? 'this browser' : when(b.seenAt)) },
    { key: 'do', name: 'Do', silent: true },
  ];
  readonly isHere = (b: Browser) => b.here;
  readonly headline = computed(() => {
    const m = this.session.member();
    if (!this.session.signsIn())
      return '0 accounts: only this machine reaches the server, so nobody signs in.';
    const a = this.now();
    if (!m || !a) return 'Reading your account …';
    const codes = a.oneTimeCodes ? 'with one-time codes' : 'by password alone';
    return `${m.name}, ${m.role}: signed in ${codes}, in ${pluralize(a.sessions.length, 'browser')}.`;
  });
  readonly others = computed(() => (this.now()?.sessions.length ?? 1) - 1);

  given(words: string): void {
    this.said.set(words);
    this.account.reload();
  }

  end(b: Browser | null): void {
    this.said.set(null);
    this.#acts.run(this.#data.end(b?.id ?? null), {
      line: this.problem,
      failed: 'Not ended.',
      then: (a) => {
        this.account.set(a);
        this.said.set(b ? 'That session ended.' : 'All other sessions ended.');
      },
    });
  }
}

function when(iso: string): string {
  return `${day(iso)}, ${clock(iso)}`;
}
