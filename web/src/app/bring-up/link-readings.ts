import { computed, effect, inject, Injectable, signal, untracked } from '@angular/core';
import type { HouseRules } from '@ruddy/core/base';
import { linkCheck, type LinkCheck, type Reading } from '@ruddy/core/bring-up';
import type { ReadingEntry } from '@ruddy/core/bring-up/contract';
import { HouseRulesData } from '../setups/house-rules';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData } from '../setups/setups';
import { Acts } from '../platform/kit/ask';

/**
 * Readings of the setup that is open: those stored, and the one being taken. In: the setup, what a person typed or pasted. Out: the
 * check of the newest of them against the chain as it stands. Lives as long as the frame, so that the strip shows what the page reads.
 */
@Injectable()
export class LinkReadings {
  readonly #acts = inject(Acts);
  readonly #data = inject(SetupsData);
  readonly #editor = inject(SetupEditor);
  readonly entries = signal<ReadingEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  /** What is being read now; null while nothing whole is typed. */
  readonly draft = signal<Reading | null>(null);
  readonly house = signal<HouseRules>({});
  readonly #id = computed(() => this.#editor.stored()?.id ?? null);

  readonly shown = computed<Reading | null>(
    () => this.draft() ?? this.entries()?.[0]?.reading ?? null,
  );
  readonly check = computed<LinkCheck | null>(() => {
    const reading = this.shown();
    const judged = this.#editor.judgement();
    return reading && judged
      ? linkCheck(reading, judged.chain, judged.evaluation, this.house())
      : null;
  });

  constructor() {
    this.#acts.read(inject(HouseRulesData).rules(), {
      line: this.problem,
      failed: 'House rules were not read, so the defaults grade:',
      then: ({ items }) =>
        this.house.set(
          Object.fromEntries(items.flatMap((r) => (r.value === null ? [] : [[r.id, r.value]]))),
        ),
    });
    effect(() => {
      const id = this.#id();
      untracked(() => {
        this.draft.set(null);
        this.entries.set(null);
        if (id) this.#load(id);
      });
    });
  }

  /** Take a list that a save answered with. */
  stored(items: ReadingEntry[]): void {
    this.draft.set(null);
    this.entries.set(items);
  }

  /** Look again, after one was taken back. */
  reload(): void {
    const id = this.#id();
    if (id) this.#load(id);
  }

  #load(id: string): void {
    this.#acts.read(this.#data.readings(id), {
      line: this.problem,
      failed: 'Saved readings were not read:',
      then: ({ items }) => {
        if (this.#id() === id) this.entries.set(items);
      },
    });
  }
}
