import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  untracked,
} from '@angular/core';
import { type Purpose, PURPOSES } from '@ruddy/core/base';
import { CAUTION_TEXTS, ORDER_WORDS, PHASE_WORDS, STEP_WORDS } from '@ruddy/core/bring-up/text';
import { OpeningPanel } from '../bring-up/opening-panel';
import { BringUpRun } from '../bring-up/bring-up-run';

/** The list on paper: what is left to do, with its cautions, what must be seen and what to try if not. */
@Component({
  selector: 'rb-steps-sheet',
  imports: [OpeningPanel],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p>Order: {{ order() }}</p>
    <rb-opening-panel />
    @for (r of rows(); track r.id) {
      @if (r.phase) {
        <h2>{{ r.phase }}</h2>
      }
      <div class="step">
        <p>
          <span class="box" [class.full]="r.state !== 'open'" aria-hidden="true"></span>
          <b>{{ r.n }}. {{ r.words.title }}</b> {{ r.state === 'open' ? '' : '(' + r.state + ')' }}
        </p>
        @for (c of r.cautions; track c) {
          <p class="caution">{{ c }}</p>
        }
        @for (d of r.words.do; track $index) {
          <p>{{ d }}</p>
        }
        <p><b>See:</b> {{ r.words.see }} <b>If not:</b> {{ r.words.ifNot }}</p>
      </div>
    }
    <h2>If the screen stays dark</h2>
    <ol>
      <li>
        Wait three minutes. Then hold the power button of the host as its maker says, until it is
        off.
      </li>
      <li>Dock off, mains out, link cable out.</li>
      <li>
        Start the host undocked. Picture back: go on from the step you were at, in another order.
      </li>
      <li>
        Still dark: hold the power button for ten seconds with the charger out, then start again.
      </li>
    </ol>
  `,
  styles: `
    .step {
      padding: 6px 0;
      border-bottom: 1px solid var(--line);
      break-inside: avoid;
      display: grid;
      gap: 2px;
    }
    .box {
      display: inline-block;
      width: 14px;
      height: 14px;
      border: 1.5px solid var(--ink);
      vertical-align: -2px;
      margin-right: 8px;
    }
    .full {
      background: var(--ink);
    }
    .caution {
      padding: 2px 8px;
    }
    ol {
      padding-left: 24px;
    }
  `,
})
export class StepsSheet {
  readonly run = inject(BringUpRun);
  readonly list = input('');
  readonly order = computed(
    () => `${ORDER_WORDS[this.run.order()].name}. ${ORDER_WORDS[this.run.order()].what}`,
  );
  readonly rows = computed(() => {
    const facts = this.run.facts();
    if (!facts) return [];
    let phase = '';
    return this.run.list().map((s, i) => {
      const name = PHASE_WORDS[s.step.phase];
      const head = name === phase ? null : name;
      phase = name;
      return {
        id: s.step.id,
        n: i + 1,
        phase: head,
        state: s.state,
        words: STEP_WORDS[s.step.id](facts),
        cautions: s.step.cautions.map((c) => CAUTION_TEXTS[c]),
      };
    });
  });

  constructor() {
    effect(() => {
      const purpose: Purpose = PURPOSES.find((p) => p === this.list()) ?? 'bring-up';
      untracked(() => this.run.purpose.set(purpose));
    });
  }
}
