import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import type { BringUp } from '@ruddy/core/bring-up/contract';
import { ApiClient, ApiError } from '../api/api-client';

/** Something noted at the bench that the server has not confirmed yet. */
export interface Waiting {
  readonly setup: string;
  /** Path after the setup: "steps", "attempts". */
  readonly path: string;
  readonly body: Readonly<Record<string, unknown>>;
}

const RETRY_MS = 3000;
const key = (setup: string) => `ruddy.bench.${setup}`;

function kept(setup: string): Waiting[] {
  const text = localStorage.getItem(key(setup));
  return text ? (JSON.parse(text) as Waiting[]) : [];
}

/**
 * What was noted goes to the server one after another, in the order it was noted. While the server is not reached it waits in local
 * storage, over a reload too: at the bench the machine that is being restarted may be the one this page talks to. Every body has an id
 * made here, so that sending it again stores it once.
 */
@Injectable()
export class OfflineQueue {
  readonly #api = inject(ApiClient);
  readonly waiting = signal<readonly Waiting[]>([]);
  /** Why the last one was refused; nothing of it was stored. */
  readonly refused = signal<string | null>(null);
  /** The server was not reached; it is tried again. */
  readonly unreached = signal(false);
  #setup: string | null = null;
  #busy = false;
  #timer: ReturnType<typeof setTimeout> | undefined;
  #taken: (answer: BringUp) => void = () => undefined;
  /** Answers of other paths, by how the path begins. */
  readonly #others = new Map<string, (answer: unknown) => void>();

  constructor() {
    const again = () => this.#next();
    window.addEventListener('online', again);
    inject(DestroyRef).onDestroy(() => {
      window.removeEventListener('online', again);
      clearTimeout(this.#timer);
      this.#setup = null;
    });
  }

  /** Work for a setup from now on; `taken` gets every answer. What waited for it goes out. */
  open(setup: string, taken: (answer: BringUp) => void): void {
    this.#setup = setup;
    this.#taken = taken;
    this.refused.set(null);
    this.unreached.set(false);
    this.waiting.set(kept(setup));
    this.#next();
  }

  /** Answers to what is sent under a path that begins so go to another taker, as long as it listens. */
  answer(begins: string, taken: (answer: unknown) => void): () => void {
    this.#others.set(begins, taken);
    return () => void (this.#others.get(begins) === taken && this.#others.delete(begins));
  }

  #take(sent: Waiting, answer: unknown): void {
    const other = [...this.#others].find(([begins]) => sent.path.startsWith(begins));
    if (other) other[1](answer);
    else if (!sent.path.startsWith('troubles')) this.#taken(answer as BringUp);
  }

  send(path: string, body: Readonly<Record<string, unknown>>): void {
    if (this.#setup === null) return;
    this.refused.set(null);
    this.#keep([...this.waiting(), { setup: this.#setup, path, body }]);
    this.#next();
  }

  #keep(list: readonly Waiting[]): void {
    this.waiting.set(list);
    if (this.#setup === null) return;
    if (list.length === 0) localStorage.removeItem(key(this.#setup));
    else localStorage.setItem(key(this.#setup), JSON.stringify(list));
  }

  #next(): void {
    clearTimeout(this.#timer);
    const first = this.waiting()[0];
    if (!first || this.#busy || first.setup !== this.#setup) return;
    this.#busy = true;
    this.#api.resend(`/setups/${first.setup}/${first.path}`, first.body).subscribe({
      next: (answer) => this.#done(first, () => this.#take(first, answer)),
      error: (e: ApiError) => this.#failed(first, e),
    });
  }

  #done(sent: Waiting, then: () => void): void {
    this.#busy = false;
    if (sent.setup !== this.#setup) return this.#next();
    this.unreached.set(false);
    this.#keep(this.waiting().filter((w) => w !== sent));
    then();
    this.#next();
  }

  #failed(sent: Waiting, e: ApiError): void {
    const { status } = e.problem;
    // Not reached, or the server is going down: it waits. Anything else was judged and refused.
    if (status <= 0 || status >= 500) {
      this.#busy = false;
      this.unreached.set(true);
      this.#timer = setTimeout(() => this.#next(), RETRY_MS);
      return;
    }
    this.#done(sent, () => this.refused.set(`Not saved. ${e.message}`));
  }
}
