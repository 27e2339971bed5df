import { computed, inject, Injectable, signal } from '@angular/core';
import { tap, type Observable } from 'rxjs';
import type { Me, Role } from '@ruddy/core/workshop/contract';
import { ApiClient } from './api-client';

const RANK: Record<Role, number> = { reader: 0, member: 1, keeper: 2 };

/** Who sits here. Where only this machine reaches the server nobody signs in, and it is the keeper. */
@Injectable({ providedIn: 'root' })
export class Session {
  readonly #api = inject(ApiClient);
  readonly #me = signal<Me | null>(null);
  /** Somebody has been here since the page was opened: what they had open stays open behind the sign-in. */
  readonly #begun = signal(false);
  /** Nothing is known yet, nobody signed in, or here. */
  readonly state = computed(() => {
    const me = this.#me();
    if (!me) return 'asking' as const;
    return me.signIn && !me.member ? ('out' as const) : ('in' as const);
  });
  readonly open = computed(() => this.state() === 'in' || this.#begun());
  readonly member = computed(() => this.#me()?.member ?? null);
  readonly signsIn = computed(() => this.#me()?.signIn ?? false);
  readonly problem = signal<string | null>(null);

  constructor() {
    this.#api.signedOut.subscribe(() =>
      this.#me.update((me) => (me ? { ...me, member: null } : me)),
    );
    this.look();
  }

  /** Ask who is here. */
  look(): void {
    this.#api.call('GET /api/me').subscribe({
      next: (me) => {
        this.problem.set(null);
        this.#take(me);
      },
      error: (e: Error) => this.problem.set(e.message),
    });
  }

  /** May whoever sits here do what needs this role? */
  may(role: Role): boolean {
    const member = this.member();
    return member !== null && RANK[member.role] >= RANK[role];
  }

  signIn(name: string, password: string, code: string): Observable<Me> {
    return this.#api
      .call('POST /api/sign-in', { body: { name, password, code } })
      .pipe(tap((me) => this.#take(me)));
  }

  signOut(): Observable<Me> {
    return this.#api.call('POST /api/sign-out', { body: {} }).pipe(
      tap((me) => {
        // What was open belongs to who left.
        this.#begun.set(false);
        this.#me.set(me);
      }),
    );
  }

  #take(me: Me): void {
    this.#me.set(me);
    if (me.member) this.#begun.set(true);
  }
}
