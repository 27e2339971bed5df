import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { openingPlan } from '@ruddy/core/bring-up';
import { openingWords } from '@ruddy/core/bring-up/text';
import { BringUpRun } from './bring-up-run';

/** The plan for opening the host: what comes out, what holds it, dangers, how far the maker goes, and the way back. */
@Component({
  selector: 'rb-opening-panel',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (rows(); as list) {
      <section aria-labelledby="opening-h">
        <h3 id="opening-h">Opening plan</h3>
        <dl>
          @for (r of list; track r.what) {
            <dt>{{ r.what }}</dt>
            <dd>{{ r.words }}</dd>
          }
        </dl>
      </section>
    }
  `,
  styles: `
    section {
      border: 1px solid var(--line);
      padding: 8px;
    }
    dl {
      display: grid;
      grid-template-columns: minmax(100px, max-content) minmax(0, 1fr);
      gap: 2px 12px;
    }
    dt {
      color: var(--ink2);
    }
  `,
})
export class OpeningPanel {
  readonly #run = inject(BringUpRun);
  readonly rows = computed(() => {
    const facts = this.#run.facts();
    const plan = facts ? openingPlan(facts.chain) : null;
    return plan ? openingWords(plan) : null;
  });
}
