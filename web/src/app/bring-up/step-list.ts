import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  ElementRef,
  inject,
  input,
  output,
} from '@angular/core';
import type { StepId } from '@ruddy/core/base';
import { pluralize } from '@ruddy/core/base/text';
import { shortForm, type StepFacts, type StepStatus } from '@ruddy/core/bring-up';
import { PHASE_WORDS, STEP_WORDS, TOOL_WORDS } from '@ruddy/core/bring-up/text';
import { Fold } from '../platform/kit/fold';
import { MatButtonModule } from '@angular/material/button';

interface Row {
  readonly n: number;
  readonly id: StepId;
  readonly title: string;
  readonly word: string;
  readonly state: string;
  readonly phase: string;
  /** Steps that are done with it, in the short form. */
  readonly folded: readonly Row[];
}

/** The whole list: phases, each step with how it stands, and at its head tools, minutes and the point of no return. */
@Component({
  selector: 'rb-step-list',
  imports: [MatButtonModule, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <p class="head">{{ head() }}</p>
    @for (g of groups(); track g.phase) {
      <h3>{{ g.phase }}</h3>
      <ol>
        @for (r of g.rows; track r.id) {
          <li [class]="r.state" [class.here]="r.id === shown()">
            <button
              mat-button
              type="button"
              class="line"
              [attr.aria-current]="r.id === shown() ? 'step' : null"
              (click)="looked.emit(r.id)"
            >
              <span class="n">{{ r.n }}</span>
              <span class="title">{{ r.title }}</span>
              <span class="word">{{ r.word }}</span>
            </button>
            @if (r.folded.length > 0) {
              <rb-fold [inner]="true" name="{{ r.folded.length }} more with it">
                <ul>
                  @for (x of r.folded; track x.id) {
                    <li [class]="x.state" [class.here]="x.id === shown()">
                      <button mat-button class="line" type="button" (click)="looked.emit(x.id)">
                        <span></span>
                        <span class="title">{{ x.title }}</span>
                        <span class="word">{{ x.word }}</span>
                      </button>
                    </li>
                  }
                </ul>
              </rb-fold>
            }
          </li>
        }
      </ol>
    }
  `,
  styles: `
    .head {
      font-size: 13px;
      line-height: 18px;
      padding-bottom: 8px;
      border-bottom: 1px solid var(--line);
    }
    h3 {
      padding: 8px 0 2px;
      color: var(--ink2);
      font-size: 12px;
      line-height: 16px;
    }
    ol,
    ul {
      list-style: none;
    }
    rb-fold {
      padding-left: 32px;
    }
    li {
      border-left: 4px solid transparent;
    }
    .title {
      flex: 1;
    }
    .n {
      flex: 0 0 20px;
      text-align: right;
      color: var(--ink2);
    }
    .word {
      color: var(--ink2);
      font-size: 13px;
    }
    li.here {
      background: var(--select);
    }
    li.now {
      border-left-color: var(--brick);
      .title,
      .word {
        font-weight: 600;
        color: var(--ink);
      }
    }
    li.done {
      border-left-color: var(--reed);
    }
    li.failed {
      border-left-color: var(--plum);
    }
    li.skipped {
      border-left-color: var(--stone);
    }
  `,
})
export class StepList {
  readonly list = input.required<readonly StepStatus[]>();
  readonly facts = input.required<StepFacts>();
  /** Place of the step to do now; -1 while nothing is begun. */
  readonly at = input(-1);
  readonly shown = input<StepId | null>(null);
  readonly looked = output<StepId>();
  readonly #host = inject<ElementRef<HTMLElement>>(ElementRef);

  /** The short form: the rest is folded under the steps that lead. */
  readonly short = input(false);

  readonly rows = computed<Row[]>(() => {
    const list = this.list();
    const row = (s: StepStatus, n: number, folded: readonly Row[]): Row => {
      const now = list.indexOf(s) === this.at();
      return {
        n,
        id: s.step.id,
        phase: PHASE_WORDS[s.step.phase],
        title: STEP_WORDS[s.step.id](this.facts()).title,
        folded,
        state: now && s.state === 'open' ? 'now' : s.state,
        word: word(s, now),
      };
    };
    const groups = this.short() ? shortForm(list) : list.map((head) => ({ head, folded: [] }));
    return groups.map((g, i) =>
      row(
        g.head,
        i + 1,
        g.folded.map((s) => row(s, 0, [])),
      ),
    );
  });
  readonly groups = computed(() =>
    [...new Set(this.rows().map((r) => r.phase))].map((phase) => ({
      phase,
      rows: this.rows().filter((r) => r.phase === phase),
    })),
  );
  constructor() {
    // A long list scrolls in its own box: the step that is shown stays in sight.
    effect(() => {
      this.shown();
      queueMicrotask(() => {
        const box = this.#host.nativeElement.closest<HTMLElement>('.list');
        const here = this.#host.nativeElement.querySelector<HTMLElement>('.here');
        if (!box || !here) return;
        const b = box.getBoundingClientRect();
        const h = here.getBoundingClientRect();
        if (h.top < b.top || h.bottom > b.bottom) box.scrollTop += h.top - b.top - b.height / 2;
      });
    });
  }

  readonly head = computed(() => {
    const steps = this.list().map((s) => s.step);
    const tools = [...new Set(steps.flatMap((s) => s.tools))].map((t) => TOOL_WORDS[t]);
    const minutes = steps.reduce((sum, s) => sum + s.minutes, 0);
    const finals = this.rows().filter((r) => steps.some((s) => s.id === r.id && s.final));
    const timed = steps.filter((s) => s.timedIn > 0).length;
    return [
      tools.length > 0 ? `Have ready: ${tools.join(', ')}.` : 'No tools.',
      `${pluralize(minutes, 'minute')} in all${timed > 0 ? `, ${pluralize(timed, 'step')} by your own attempts` : ''}.`,
      finals.length > 0
        ? `Cannot be undone: ${finals.map((r) => `step ${r.n}, ${r.title.toLowerCase()}`).join('; ')}.`
        : 'No step is final.',
    ].join(' ');
  });
}

function word(s: StepStatus, now: boolean): string {
  if (s.changed.length > 0) return `again: ${s.changed.join(', ')} changed`;
  if (s.from !== null) return `done in ${s.from}`;
  if (s.state !== 'open') return s.state;
  return now ? 'now' : '';
}
