import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import equal from 'fast-deep-equal';
import { forkJoin } from 'rxjs';
import { pluralize, rate } from '@ruddy/core/base/text';
import { partName } from '@ruddy/core/chain';
import { pairQuestions } from '@ruddy/core/parts';
import type { Part } from '@ruddy/core/parts/contract';
import { questionText } from '@ruddy/core/parts/text';
import { type Finding, swapSteps } from '@ruddy/core/plan';
import { sentence, swapWords } from '@ruddy/core/plan/text';
import { SetupEditor } from '../setups/setup-editor';
import { SetupsData, type Judgement } from '../setups/setups';
import { VerdictChip } from '../chain/verdict/verdict-chip';
import { PartDescriber } from './describe';
import { PartPicker } from './part-picker';
import { Fold } from '../platform/kit/fold';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Acts } from '../platform/kit/ask';

/** Subjects another card changes: only these are told of it here. */
const OF_A_CARD: readonly Finding['area'][] = [
  'power',
  'fit',
  'cooling',
  'screen',
  'software',
  'card',
];

/** One dock, several cards by purpose: what each would run into, and the steps of the swap. */
@Component({
  selector: 'rb-other-cards',
  imports: [Field, Fold, MatButtonModule, PartPicker, VerdictChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './other-cards.html',
  styleUrl: './other-cards.scss',
})
export class OtherCards {
  readonly purpose: FieldMeta = {
    label: 'Purpose',
    input: 'text',
    max: 80,
    placeholder: 'not set',
  };
  readonly counted = pluralize;
  readonly #acts = inject(Acts);
  readonly editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  readonly #describer = inject(PartDescriber);
  readonly #chosen = computed(
    () => {
      const f = this.editor.fields();
      if (!f) return null;
      const { slots, loads, installed, settings, uses } = f;
      return { slots, loads, installed, settings, uses };
    },
    { equal },
  );
  readonly judged = signal<Judgement[]>([]);
  readonly problem = signal<string | null>(null);
  readonly spares = computed(() => this.editor.fields()?.slots.spares ?? []);
  readonly rate = rate;
  readonly rows = computed(() => {
    const now = this.editor.judgement();
    // The names stand once the cards are judged; a card that is still read is no namesake.
    const names = this.spares().map(
      (_, i) => partName(this.judged()[i]?.chain.card) || `another ${i}`,
    );
    const asked = pairQuestions(partName(now?.chain.card) || null, names);
    return this.spares().map((s, i) => {
      const j = this.judged()[i];
      const card = j?.chain.card ?? null;
      const against = (j?.evaluation.findings ?? []).filter(
        (f) => f.severity !== 'note' && OF_A_CARD.includes(f.area),
      );
      return {
        ...s,
        i,
        name: card ? partName(card) : 'reading …',
        verdict: j?.evaluation.predicted.verdict.state ?? null,
        asks: asked.filter((q) => q.path === `spares/${i}`).map(questionText),
        against: against.map((f) => sentence(f).what),
        steps: j && card && now ? swapSteps(now.chain, card, j.evaluation).map(swapWords) : [],
      };
    });
  });
  readonly summary = computed(() => {
    const rows = this.rows();
    if (rows.length === 0) return 'Other cards for this dock: none';
    const stopped = rows.filter((r) => r.verdict === 'blocked');
    return `Other cards for this dock ${rows.length}: ${stopped.length === 0 ? 'none is stopped' : `${stopped.map((r) => r.name).join(', ')} won't work`}`;
  });

  constructor() {
    effect((onCleanup) => {
      const fields = this.#chosen();
      const spares = fields?.slots.spares ?? [];
      // Judged again with every change of the chain, one request a card; notes and names do not count.
      if (!fields || spares.length === 0) {
        untracked(() => this.judged.set([]));
        return;
      }
      const cards = forkJoin(spares.map((s) => this.#data.judgeWithCard(fields, s.part)));
      const asked = this.#acts.read(cards, {
        line: this.problem,
        then: (list) => {
          this.judged.set(list);
          this.problem.set(null);
        },
      });
      onCleanup(() => asked.unsubscribe());
    });
  }

  add(part: Part | null): void {
    if (part) this.#store([...this.spares(), { part: part.id, purpose: '' }]);
  }

  describe(): void {
    this.#describer.open('card').subscribe((p) => this.add(p));
  }

  setPurpose(index: number, purpose: string): void {
    this.#store(
      this.spares().map((s, i) =>
        i === index ? { ...s, purpose: purpose.trim().slice(0, 80) } : s,
      ),
    );
  }

  remove(index: number): void {
    this.#store(this.spares().filter((_, i) => i !== index));
  }

  /** Put this card into the dock; the one that was in it takes its place here. */
  swap(index: number): void {
    const slots = this.editor.fields()?.slots;
    const next = slots?.spares[index];
    if (!slots || !next) return;
    const out = slots.card;
    const spares = out
      ? slots.spares.map((s, i) => (i === index ? { part: out, purpose: '' } : s))
      : slots.spares.filter((_, i) => i !== index);
    this.editor.change({ slots: { card: next.part, spares } });
  }

  #store(spares: { part: string; purpose: string }[]): void {
    this.editor.change({ slots: { spares } });
  }
}
