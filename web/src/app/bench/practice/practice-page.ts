import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import { CAUSE_IDS, type CauseId, type TestId } from '@ruddy/core/base';
import { type FaultId, stepMinutes } from '@ruddy/core/bench';
import type { Practice } from '@ruddy/core/bench/contract';
import { FAULT_WORDS, leftWords, TEST_GROUPS } from '@ruddy/core/bench/text';
import { CAUTION_TEXTS } from '@ruddy/core/bring-up/text';
import { chainNames } from '@ruddy/core/chain';
import { CAUSES, chainFacts, netFor, NO_OBSERVATIONS, openTests } from '@ruddy/core/troubleshoot';
import {
  CAUSE_WORDS,
  cautionsOfTest,
  SYMPTOM_WORDS,
  TEST_WORDS,
} from '@ruddy/core/troubleshoot/text';
import { TroubleData } from '../../troubleshoot/trouble';
import { pluralize } from '../../platform/shared/format';
import { Fold } from '../../platform/kit/fold';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { Acts } from '../../platform/kit/ask';

/** A step as the lists show it. */
const shown = (s: Practice['steps'][number]) => ({
  what: TEST_WORDS[s.test].what,
  says: s.says === 'cannot' ? 'nothing of the kind on this bench' : TEST_WORDS[s.test][s.says],
  minutes: stepMinutes(s.test),
});

/** One practice: what is complained of, the tests that can be made, what the bench answered; after naming, what was hidden. */
@Component({
  imports: [Field, Fold, MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './practice-page.html',
  styleUrl: './practice-page.scss',
})
export class PracticePage {
  readonly #acts = inject(Acts);
  readonly #data = inject(TroubleData);
  readonly id = input.required<string>();
  readonly practice = signal<Practice | null>(null);
  readonly problem = signal<string | null>(null);
  readonly busy = signal<TestId | 'name' | null>(null);
  readonly naming = signal<CauseId | null>(null);
  readonly causeMeta = computed<FieldMeta>(() => ({
    label: 'Cause',
    input: 'choice',
    placeholder: `choose one of ${this.able().length}`,
    options: this.able().map((c) => ({ value: c.id, label: c.what })),
  }));
  readonly words = TEST_WORDS;
  readonly causes = CAUSE_WORDS;
  readonly symptoms = SYMPTOM_WORDS;
  readonly minutesOf = stepMinutes;
  readonly counted = pluralize;

  readonly headline = computed(() => {
    const p = this.practice();
    if (!p)
      return this.problem()
        ? 'The practice could not be read; 0 steps shown.'
        : 'Reading the practice …';
    const done = `${pluralize(p.steps.length, 'step')}, ${pluralize(p.minutes, 'minute')}`;
    const e = p.ended;
    if (!e) return `${p.name}: ${done} so far. What is behind it?`;
    const truth = e.truth.map((c) => CAUSE_WORDS[c].what).join('; ');
    return `${p.right ? 'Found' : 'Not found'} in ${done}; the best path takes ${e.best.minutes}. Hidden was: ${truth}.`;
  });
  readonly chain = computed(() => {
    const p = this.practice();
    if (!p) return [];
    const n = chainNames(p.chain);
    return (['host', 'port', 'cable', 'dock', 'card'] as const).flatMap((k) =>
      n[k] === '' ? [] : [`${k}: ${n[k]}`],
    );
  });
  readonly answers = computed(() => (this.practice()?.steps ?? []).map(shown));
  /** Tests that make sense for this complaint on this chain, by where somebody would go for them. */
  readonly groups = computed(() => {
    const p = this.practice();
    if (!p) return [];
    const open = openTests(
      netFor(p.chain),
      { ...NO_OBSERVATIONS, symptoms: p.symptoms },
      new Set(p.steps.map((s) => s.test)),
    );
    return TEST_GROUPS.map((g) => ({
      name: g.name,
      of: g.of.filter((t) => open.includes(t)),
    })).filter((g) => g.of.length > 0);
  });
  readonly able = computed(() => {
    const p = this.practice();
    if (!p) return [];
    const facts = chainFacts(p.chain);
    return CAUSE_IDS.filter((c) => facts[CAUSES[c].on])
      .map((id) => ({ id, what: CAUSE_WORDS[id].what }))
      .sort((a, b) => a.what.localeCompare(b.what));
  });
  readonly hidden = computed(() =>
    Object.entries(this.practice()?.ended?.faults ?? {}).map(
      ([f, s]) => `${FAULT_WORDS[f as FaultId]}, strength ${Math.round(s * 100)} %`,
    ),
  );
  readonly best = computed(() => (this.practice()?.ended?.best.steps ?? []).map(shown));
  readonly left = computed(() => {
    const e = this.practice()?.ended;
    return e ? leftWords(e.left, this.practice()?.steps ?? []) : '';
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => {
        this.practice.set(null);
        this.#take(this.#data.practice(id));
      });
    });
  }

  caution(test: TestId): string {
    const p = this.practice();
    return (p ? cautionsOfTest(test, chainFacts(p.chain)) : [])
      .map((c) => CAUTION_TEXTS[c])
      .join(' ');
  }

  test(test: TestId): void {
    if (this.busy()) return;
    this.busy.set(test);
    this.#take(this.#data.tryTest(this.id(), { id: v7(), test }));
  }

  name(): void {
    const cause = this.naming();
    if (cause === null) return this.problem.set('Nothing named: choose the cause first.');
    this.busy.set('name');
    this.#take(this.#data.name(this.id(), cause));
  }

  #take(answer: ReturnType<TroubleData['practice']>): void {
    this.#acts.run(answer, {
      line: this.problem,
      failed: this.busy() === null ? 'Not read.' : 'Not done.',
      otherwise: () => this.busy.set(null),
      then: (p) => {
        this.busy.set(null);
        this.practice.set(p);
      },
    });
  }
}
