import { ChangeDetectionStrategy, Component, computed, inject, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { CAUTION_TEXTS } from '@ruddy/core/bring-up/text';
import { canBeLent, RETURN_LOOKS } from '@ruddy/core/workshop';
import type { LoanRow } from '@ruddy/core/workshop/contract';
import { dueWords } from '@ruddy/core/workshop/text';
import { day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';

/** A card that goes with a lent item, to print: what it is, what goes along, what to mind, how it comes back. */
@Component({
  selector: 'rb-loan-card',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @let l = loan();
    <section class="sheet card" aria-labelledby="card-h">
      <h2 id="card-h">{{ l.label }}: {{ l.part }}</h2>
      <dl>
        <dt>Lent to</dt>
        <dd>{{ l.member }}{{ l.setup ? ', for ' + l.setup.name : '' }}</dd>
        <dt>Since</dt>
        <dd>{{ l.fromOn ? day(l.fromOn) : '' }}</dd>
        <dt>Back by</dt>
        <dd>
          {{ l.dueOn ? day(l.dueOn) : '' }} <span class="hint screen-only">{{ due() }}</span>
        </dd>
        <dt>Went out</dt>
        <dd>{{ l.conditionOut ?? 'not set' }}</dd>
        <dt>Accessories</dt>
        <dd>{{ l.along.join(', ') || 'nothing' }}</dd>
        @if (l.checked; as c) {
          <dt>Judged</dt>
          <dd>{{ c.sentence }}</dd>
        }
        @if (l.note) {
          <dt>Note</dt>
          <dd>{{ l.note }}</dd>
        }
      </dl>
      @if (looks(); as k) {
        <p class="caution">{{ caution() }}</p>
        <p><strong>Never used with:</strong> {{ k.never }}</p>
        <p><strong>Before it comes back:</strong> {{ k.lookFor }}</p>
      }
      <p class="acts screen-only">
        <button mat-flat-button type="button" (click)="print()">Print the card</button>
        <button mat-button type="button" (click)="closed.emit()">Close</button>
      </p>
    </section>
  `,
  styles: `
    :host {
      display: block;
    }
    .card {
      padding: 16px;
      max-width: 560px;
      margin-bottom: 16px;
      display: grid;
      gap: 8px;
    }
    dl {
      display: grid;
      grid-template-columns: max-content minmax(0, 1fr);
      gap: 4px 16px;
    }
    dt {
      color: var(--ink2);
    }
    @media print {
      .screen-only {
        display: none;
      }
      .card {
        border: 1px solid var(--rim);
        break-inside: avoid;
      }
    }
  `,
})
export class LoanCard {
  readonly #clock = inject(ServerClock);
  readonly loan = input.required<LoanRow>();
  readonly closed = output();
  readonly day = day;
  readonly due = computed(() => dueWords(this.loan(), this.#clock.today()));
  readonly looks = computed(() => {
    const { kind } = this.loan();
    return canBeLent(kind) ? RETURN_LOOKS[kind] : null;
  });
  readonly caution = computed(() => {
    const l = this.looks();
    return l ? CAUTION_TEXTS[l.caution] : '';
  });

  print(): void {
    window.print();
  }
}
