import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { type Evaluation, preFlight } from '@ruddy/core/plan';
import { PRE_FLIGHT, PRE_FLIGHT_STATES, sentence } from '@ruddy/core/plan/text';
import { Fold } from '../platform/kit/fold';

/** What to see to before the first plug goes in, in order; it prints. */
@Component({
  selector: 'rb-pre-flight-list',
  imports: [Fold, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [name]="summary()">
      <ol>
        @for (i of items(); track $index) {
          <li [class]="i.state">
            <b>{{ i.what }}</b>
            <span class="state">{{ i.word }}</span>
            <p class="quiet">{{ i.why }}</p>
          </li>
        }
      </ol>
      <button mat-stroked-button type="button" (click)="print()">
        Print this page before you begin
      </button>
    </rb-fold>
  `,
  styles: `
    ol {
      display: grid;
      gap: 6px;
      margin: 8px 0;
      padding-left: 24px;
    }
    .state {
      margin-left: 8px;
      font-size: 12px;
      color: var(--ink2);
    }
    .must b {
      text-decoration: underline 2px var(--ochre);
      text-underline-offset: 3px;
    }
  `,
})
export class PreFlightList {
  readonly evaluation = input.required<Evaluation>();
  readonly items = computed(() => {
    const e = this.evaluation();
    return preFlight(e).map((i) => {
      const found = i.state === 'must' ? e.findings.find((f) => f.code === i.code) : undefined;
      const said = found && sentence(found);
      return {
        state: i.state,
        word: PRE_FLIGHT_STATES[i.state],
        what: PRE_FLIGHT[i.id].what,
        why: said ? `${said.what}. ${said.todo}` : PRE_FLIGHT[i.id].why,
      };
    });
  });
  readonly summary = computed(() => {
    const must = this.items().filter((i) => i.state === 'must');
    const look = this.items().filter((i) => i.state === 'look').length;
    const first = must[0] ? `: ${must[0].what.toLowerCase()}` : '';
    return `Pre-flight ${this.items().length}, ${must.length} needed here${first}${look > 0 ? `; ${look} to find out` : ''}`;
  });

  print(): void {
    window.print();
  }
}
