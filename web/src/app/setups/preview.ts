import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { Subscription } from 'rxjs';
import type { FixRow, SetupChange } from '@ruddy/core/plan/contract';
import type { SetupPatch } from '@ruddy/core/setups/contract';
import { SetupEditor } from './setup-editor';
import { applyPatch, type Fields } from './setup-patches';
import { SetupsData, type Judgement } from './setups';
import { Acts } from '../platform/kit/ask';

export interface Trying {
  readonly fix: FixRow;
  readonly patch: SetupPatch;
  readonly judgement: Judgement;
}

/** The patch of a setup that a change amounts to. */
export function patchOf(fields: Fields, c: SetupChange): SetupPatch {
  const { slots } = fields;
  const put = <T>(list: readonly T[], index: number, value: T): T[] =>
    index >= list.length ? [...list, value] : list.map((x, i) => (i === index ? value : x));
  const patch: SetupPatch = {};
  if (c.settings) patch.settings = { ...fields.settings, ...c.settings };
  if (c.installed) patch.installed = { ...fields.installed, ...c.installed };
  if (c.dropLoad !== undefined) patch.loads = fields.loads.filter((_, i) => i !== c.dropLoad);
  if (c.socket !== undefined) patch.slots = { socket: c.socket };
  const { screen, part } = c;
  if (screen)
    patch.slots = {
      screens: slots.screens.map((s, i) =>
        i === screen.index ? { ...s, by: screen.by ?? s.by, plug: screen.plug ?? s.plug } : s,
      ),
    };
  if (!part) return patch;
  switch (part.slot) {
    case 'path':
      return { ...patch, slots: { path: put(slots.path ?? [], part.index, part.id) } };
    case 'supply': {
      const feeds = slots.supplies[part.index]?.feeds ?? 'both';
      return {
        ...patch,
        slots: { supplies: put(slots.supplies, part.index, { part: part.id, feeds }) },
      };
    }
    case 'screen':
      return {
        ...patch,
        slots: {
          screens: slots.screens.map((s, i) => (i === part.index ? { ...s, part: part.id } : s)),
        },
      };
    default:
      return { ...patch, slots: { [part.slot]: part.id } };
  }
}

/**
 * A change tried on a setup: everything shows what it would lead to beside what is, until it is kept or put back. Nothing is stored
 * while it is tried; any other edit puts it back.
 */
@Injectable()
export class Preview {
  readonly #acts = inject(Acts);
  readonly #editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  readonly now = signal<Trying | null>(null);
  readonly problem = signal<string | null>(null);
  /** Only what was asked last counts: an answer still on its way is let go. */
  #asked: Subscription | null = null;
  /** What the strip, the sentence and the budgets show. */
  readonly shown = computed<Judgement | null>(
    () => this.now()?.judgement ?? this.#editor.judgement(),
  );
  /** What is, while something is tried. */
  readonly before = computed<Judgement | null>(() =>
    this.now() ? this.#editor.judgement() : null,
  );

  constructor() {
    effect(() => {
      this.#editor.fields();
      untracked(() => this.putBack());
    });
  }

  start(fix: FixRow): void {
    const fields = this.#editor.fields();
    if (!fields) return;
    const patch = patchOf(fields, fix.change);
    this.problem.set(null);
    this.#asked?.unsubscribe();
    this.#asked = this.#acts.read(this.#data.judge(applyPatch(fields, patch)), {
      line: this.problem,
      then: (judgement) => this.now.set({ fix, patch, judgement }),
    });
  }

  keep(): void {
    const trying = this.now();
    if (!trying) return;
    this.now.set(null);
    this.#editor.change(trying.patch);
  }

  putBack(): void {
    this.#asked?.unsubscribe();
    this.now.set(null);
    this.problem.set(null);
  }
}
