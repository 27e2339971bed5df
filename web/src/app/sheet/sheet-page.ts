import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { PURPOSE_WORDS } from '@ruddy/core/bring-up/text';
import type { CostLine } from '@ruddy/core/buy';
import { money } from '@ruddy/core/buy/text';
import { SOFTWARE_NAMES, type SoftwareRole } from '@ruddy/core/parts';
import { decidingOf, preFlight } from '@ruddy/core/plan';
import {
  coverageWords,
  verdictSentence,
  minutesOf,
  PRE_FLIGHT,
  sentence,
} from '@ruddy/core/plan/text';
import { FORGOTTEN } from '@ruddy/core/setups';
import { stripModel } from '../chain/strip/strip-model';
import { copyLine } from '../chain/strip/strip-text';
import { BringUpRun } from '../bring-up/bring-up-run';
import { PlanCost } from '../plan/plan-cost';
import { SetupEditor } from '../setups/setup-editor';
import { lineAmount, lineWords, nounOf } from '../plan/cost-words';
import { AnswerList } from '../plan/answer-list';
import { day, orEmpty } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { QuestionPack } from './question-pack';
import { SetupCard } from './setup-card';
import { StepsSheet } from './steps-sheet';

const KINDS = [
  { only: '', name: 'The whole sheet' },
  { only: 'buy', name: 'Only what is still to buy' },
  { only: 'steps', name: 'The list of steps' },
  { only: 'card', name: 'The setup card' },
  { only: 'ask', name: 'The question pack' },
];

/** A plan on paper: what it is, what to do about it, what it costs, or only what is still to buy. */
@Component({
  imports: [MatButtonModule, RouterLink, AnswerList, QuestionPack, SetupCard, StepsSheet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './sheet-page.html',
  styleUrl: './sheet-page.scss',
})
export class SheetPage {
  readonly #clock = inject(ServerClock);
  readonly editor = inject(SetupEditor);
  readonly plan = inject(PlanCost);
  readonly #run = inject(BringUpRun);
  readonly only = input('', { transform: orEmpty });
  /** Which list of steps is printed. */
  readonly list = input('', { transform: orEmpty });
  readonly kinds = KINDS;
  readonly money = money;
  readonly noun = nounOf;
  readonly words = lineWords;
  readonly buying = computed(() => this.only() === 'buy');
  readonly today = computed(() => day(this.#clock.today()));
  readonly evaluation = computed(() => this.editor.judgement()?.evaluation ?? null);
  readonly toBuy = computed(() =>
    (this.plan.cost()?.lines ?? []).filter(
      (l) => l.state !== 'owned' && !(l.state === 'not-priced' && l.part.kind === 'system'),
    ),
  );
  readonly forgotten = computed(() =>
    (this.plan.cost()?.forgotten ?? [])
      .filter((f) => !f.have)
      .map((f) => ({ ...f, name: FORGOTTEN[f.code] })),
  );
  readonly extras = computed(() => this.editor.fields()?.cost.extras ?? []);
  /** How much of the chain is known, beside its verdict. */
  readonly coverage = computed(() => {
    const e = this.editor.judgement()?.evaluation;
    return e ? coverageWords(e.predicted.coverage) : null;
  });
  readonly sentence = computed(() => {
    const e = this.evaluation();
    const c = this.plan.cost();
    if (!e || !c) return 'Reading the plan …';
    if (this.only() === 'card')
      return `Setup card: ${this.editor.fields()?.name ?? ''}, as on ${this.today()}.`;
    if (this.only() === 'ask') return `Question pack, as on ${this.today()}.`;
    if (this.only() === 'steps') return this.#stepsWords();
    if (!this.buying()) return verdictSentence(e);
    const n = this.toBuy().length + this.forgotten().length + this.extras().length;
    return n === 0
      ? 'Nothing to buy: all of it is here.'
      : `${n} to buy, ${this.here(c.totalMinor)}${c.open.length > 0 ? ` and ${c.open.length} without a price` : ''}.`;
  });
  readonly strip = computed(() => {
    const j = this.editor.judgement();
    const f = this.editor.fields();
    return j && f ? copyLine(stripModel(f.name, j.chain, j.evaluation)) : '';
  });
  readonly findings = computed(() =>
    (this.evaluation()?.findings ?? [])
      .filter((f) => f.severity !== 'note' && f.code !== 'plan/unchosen')
      .map((f) => ({
        ...sentence(f),
        key: `${f.code} ${f.about ?? ''}`,
        stops: f.severity === 'blocks',
      })),
  );
  readonly preFlight = computed(() => {
    const e = this.evaluation();
    return e ? preFlight(e).map((i) => PRE_FLIGHT[i.id]) : [];
  });
  /** What would have to be known: blanks on paper, answered on the screen. */
  readonly asks = computed(() => {
    const e = this.evaluation();
    return e ? decidingOf(e) : [];
  });
  readonly minutes = minutesOf;
  readonly installed = computed(() => {
    const versions = this.editor.fields()?.installed;
    return (Object.keys(SOFTWARE_NAMES) as SoftwareRole[]).map((r) => ({
      name: SOFTWARE_NAMES[r],
      version: versions?.[r] ?? '',
    }));
  });

  #stepsWords(): string {
    const p = this.#run.progress();
    const title = PURPOSE_WORDS[this.#run.purpose()];
    return this.#run.attempt()
      ? `${title}: ${p.n} steps, ${p.done + p.skipped} settled.`
      : `${title}: ${p.n} steps.`;
  }

  here(minor: number): string {
    return money({ minor, currency: this.plan.cost()?.currency ?? 'EUR' });
  }

  amount(l: CostLine): string {
    return lineAmount(l, this.plan.cost()?.currency ?? 'EUR');
  }

  print(): void {
    window.print();
  }
}
