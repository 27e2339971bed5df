import { computed, DestroyRef, inject, Injectable, signal } from '@angular/core';
import { Router } from '@angular/router';

export interface KeyBinding {
  readonly key: string;
  readonly what: string;
  run(): void;
}

const OFF = 'ruddy.letter-keys-off';
/** Where `g` and a letter lead; an entry appears with its page. */
const PLACES: Record<string, { what: string; path: string | null }> = {
  s: { what: 'Setups', path: '/setups' },
  p: { what: 'Plan of this setup', path: null },
  b: { what: 'Bring-up of this setup', path: null },
  r: { what: 'Runs of this setup', path: null },
  t: { what: 'Troubleshoot this setup, or without one', path: '/trouble' },
  e: { what: 'Record of this setup', path: null },
  o: { what: 'Scout', path: '/scout' },
  c: { what: 'Compatibility', path: '/compatibility/table' },
  a: { what: 'Parts', path: '/parts/host' },
  n: { what: 'Bench', path: '/bench' },
  w: { what: 'Workshop', path: '/workshop/loans' },
  v: { what: 'Compare', path: '/compare/plans' },
};

/** Pages of a setup by their letter. */
const PAGES: Record<string, string> = {
  p: 'plan',
  b: 'bring-up',
  r: 'runs',
  t: 'troubleshoot',
  e: 'record',
};

function typing(target: EventTarget | null): boolean {
  return (
    target instanceof HTMLElement &&
    (target.isContentEditable ||
      ['INPUT', 'TEXTAREA', 'SELECT'].includes(target.tagName) ||
      target.closest('[role=combobox],[role=listbox],mat-dialog-container') !== null)
  );
}

function pressable(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('a, button, summary') !== null;
}

function scrollable(target: EventTarget | null): boolean {
  return target instanceof HTMLElement && target.closest('[role=region][tabindex]') !== null;
}

/** The keyboard: letters of the page, `g` and a letter to go somewhere. None acts while typing; all can be switched off. */
@Injectable({ providedIn: 'root' })
export class Keys {
  readonly #router = inject(Router);
  readonly #bindings = signal<readonly KeyBinding[]>([]);
  readonly waiting = signal(false);
  readonly lettersOff = signal(localStorage.getItem(OFF) === '1');
  /** What each key does now: what was bound last, by the page within, comes before the frame around it. */
  readonly bindings = computed(() =>
    this.#bindings().filter((b, i, all) => all.findLastIndex((o) => o.key === b.key) === i),
  );

  constructor() {
    const listen = (e: KeyboardEvent) => this.#pressed(e);
    document.addEventListener('keydown', listen);
    inject(DestroyRef).onDestroy(() => document.removeEventListener('keydown', listen));
  }

  /** Bind keys for as long as the caller lives. Call it in an injection context. */
  bind(list: readonly KeyBinding[]): void {
    this.#bindings.update((b) => [...b, ...list]);
    inject(DestroyRef).onDestroy(() =>
      this.#bindings.update((b) => b.filter((k) => !list.includes(k))),
    );
  }

  switchLetters(off: boolean): void {
    this.lettersOff.set(off);
    localStorage.setItem(OFF, off ? '1' : '0');
  }

  /** The places `g` leads to from here. */
  places(): { key: string; what: string }[] {
    const inSetup = this.#setup() !== null;
    return Object.entries(PLACES).flatMap(([key, p]) =>
      p.path || inSetup ? [{ key, what: p.what }] : [],
    );
  }

  #setup(): string | null {
    return /^\/setups\/([^/?]+)/.exec(this.#router.url)?.[1] ?? null;
  }

  #pressed(e: KeyboardEvent): void {
    if (e.defaultPrevented) return;
    const found = this.bindings().find((b) => b.key === combination(e));
    if (found && (e.ctrlKey || e.metaKey) && !typing(e.target)) {
      e.preventDefault();
      found.run();
      return;
    }
    if (e.ctrlKey || e.metaKey || e.altKey || typing(e.target) || this.lettersOff()) return;
    if (this.waiting()) {
      this.waiting.set(false);
      this.#go(e.key);
      e.preventDefault();
      return;
    }
    if (e.key === 'g') {
      this.waiting.set(true);
      return;
    }
    // Enter belongs to what has the focus, arrows to what they scroll.
    const taken =
      (e.key === 'Enter' && pressable(e.target)) ||
      (e.key.startsWith('Arrow') && scrollable(e.target));
    if (found && !taken) {
      e.preventDefault();
      found.run();
    }
  }

  #go(letter: string): void {
    const place = PLACES[letter];
    const setup = this.#setup();
    if (!place) return;
    const page = PAGES[letter];
    if (page && setup) void this.#router.navigateByUrl(`/setups/${setup}/${page}`);
    else if (place.path) void this.#router.navigateByUrl(place.path);
  }
}

function combination(e: KeyboardEvent): string {
  if (!(e.ctrlKey || e.metaKey)) return e.key;
  return `Ctrl+${e.shiftKey ? 'Shift+' : ''}${e.key.toUpperCase()}`;
}
