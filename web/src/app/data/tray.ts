import { computed, Injectable, signal } from '@angular/core';

/** Something put aside to be compared. */
export interface Aside {
  readonly id: string;
  readonly name: string;
}

const KEY = 'ruddy.tray.plans';
/** Most plans that stand side by side on one page. */
export const MOST_ASIDE = 4;

function kept(): Aside[] {
  try {
    const list: unknown = JSON.parse(localStorage.getItem(KEY) ?? '[]');
    return Array.isArray(list)
      ? list.filter((x): x is Aside => typeof (x as Aside)?.id === 'string' && typeof (x as Aside).name === 'string')
      : [];
  } catch {
    // What is kept there is no list: nothing was put aside.
    return [];
  }
}

/** Plans put aside with `x`; they outlive pages and reloads. The first is the base of a comparison. */
@Injectable({ providedIn: 'root' })
export class Tray {
  readonly plans = signal<readonly Aside[]>(kept());
  readonly full = computed(() => this.plans().length >= MOST_ASIDE);

  has(id: string): boolean {
    return this.plans().some((p) => p.id === id);
  }

  /** Put a plan aside, or take it back. A full tray lets the oldest go. */
  toggle(plan: Aside): void {
    const rest = this.plans().filter((p) => p.id !== plan.id);
    this.#keep(this.has(plan.id) ? rest : [...rest, plan].slice(-MOST_ASIDE));
  }

  clear(): void {
    this.#keep([]);
  }

  #keep(list: readonly Aside[]): void {
    this.plans.set(list);
    localStorage.setItem(KEY, JSON.stringify(list));
  }
}
