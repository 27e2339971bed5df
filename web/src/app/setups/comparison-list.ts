import { computed, Injectable, signal, type Signal } from '@angular/core';

/** Something put aside to be compared. */
export interface Aside {
  readonly id: string;
  readonly name: string;
}

/** Most plans that stand side by side on one page. */
export const MAX_ASIDE = 4;
/** Most runs that are compared at once. */
export const MAX_RUNS = 120;

function kept(key: string): Aside[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(key) ?? '[]');
    return Array.isArray(list)
      ? list.filter(
          (x): x is Aside =>
            typeof (x as Aside)?.id === 'string' && typeof (x as Aside).name === 'string',
        )
      : [];
  } catch {
    // What is kept there is no list: nothing was put aside.
    return [];
  }
}

/** Things of one kind put aside; the first is the base of a comparison. They outlive pages and reloads. A full shelf lets the oldest go. */
class StoredList {
  readonly #list;
  readonly list: Signal<readonly Aside[]>;

  constructor(
    readonly key: string,
    readonly most: number,
  ) {
    this.#list = signal<readonly Aside[]>(kept(key));
    this.list = this.#list.asReadonly();
  }

  has(id: string): boolean {
    return this.list().some((p) => p.id === id);
  }

  /** Put things aside that are not there yet. */
  add(things: readonly Aside[]): void {
    this.#keep([...this.list(), ...things.filter((t) => !this.has(t.id))].slice(-this.most));
  }

  remove(ids: readonly string[]): void {
    this.#keep(this.list().filter((p) => !ids.includes(p.id)));
  }

  clear(): void {
    this.#keep([]);
  }

  #keep(list: readonly Aside[]): void {
    this.#list.set(list);
    localStorage.setItem(this.key, JSON.stringify(list));
  }
}

/** Plans and runs put aside with `x`. */
@Injectable({ providedIn: 'root' })
export class ComparisonList {
  readonly #plans = new StoredList('ruddy.tray.plans', MAX_ASIDE);
  readonly runs = new StoredList('ruddy.tray.runs', MAX_RUNS);
  readonly plans = this.#plans.list;
  readonly full = computed(() => this.plans().length >= MAX_ASIDE);
  readonly size = computed(() => this.plans().length + this.runs.list().length);

  has(id: string): boolean {
    return this.#plans.has(id);
  }

  /** Put a plan aside, or take it back. A full list lets the oldest go. */
  toggle(plan: Aside): void {
    if (this.has(plan.id)) this.#plans.remove([plan.id]);
    else this.#plans.add([plan]);
  }

  clear(): void {
    this.#plans.clear();
  }
}
