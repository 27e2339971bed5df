import { ChangeDetectionStrategy, Component, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { rate } from '@ruddy/core/base/text';
import type { RowView } from '@ruddy/core/buy';
import { moneyShort, REASON_WORDS, SCOUT_GRADES } from '@ruddy/core/buy/text';
import { coverageWords } from '@ruddy/core/plan/text';
import { VerdictChip } from '../chain/verdict/verdict-chip';

/** Combinations in order. In: rows, currency, which are pinned, which is chosen. Out: chosen, pinned, made a plan. */
@Component({
  selector: 'rb-ranked-table',
  imports: [MatButtonModule, VerdictChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="wide" tabindex="0" role="region" [attr.aria-label]="label()">
      <table class="list">
        <thead>
          <tr>
            <th scope="col">Set</th>
            <th scope="col">Verdict</th>
            <th scope="col" class="figure">Usable Gb/s</th>
            <th scope="col" class="figure">Frames/s</th>
            <th scope="col" class="figure">Price</th>
            <th scope="col">Evidence</th>
            <th scope="col"><span class="visually-hidden">Do</span></th>
          </tr>
        </thead>
        <tbody>
          @for (r of rows(); track r.index) {
            <tr
              [class.here]="r.index === at()"
              [attr.aria-current]="r.index === at() ? 'true' : null"
            >
              <th scope="row">
                <button type="button" class="plain" (click)="chosen.emit(r)">
                  {{ r.names.dock }} with {{ r.names.card }}
                </button>
                <span class="hint">
                  {{ r.names.port }}, {{ r.names.path
                  }}{{ r.names.supply ? ', ' + r.names.supply : ''
                  }}{{ r.names.screen ? ', ' + r.names.screen : '' }}
                </span>
                @if (r.contradicted; as c) {
                  <strong class="against"
                    >Seen to fail
                    {{ c.n === 1 ? 'once' : c.failed + ' of ' + c.n + ' times' }} here. Trust the
                    log.</strong
                  >
                }
                @if (r.fails.length > 0) {
                  <span class="hint">Left out: {{ why(r) }}.</span>
                }
                @if (r.alike.length > 0) {
                  <span class="hint">Same facts: {{ r.alike.join(', ') }}.</span>
                }
              </th>
              <td>
                <rb-verdict-chip [state]="r.state" />
                <span class="hint nowrap">{{ coverage(r.coverage) }}</span>
              </td>
              <td class="figure">{{ gbps(r) }}</td>
              <td class="figure">
                {{ fps(r) }}
                <span class="hint">{{ band(r) }}</span>
              </td>
              <td class="figure">
                {{ money(r) }}
                <span class="hint">{{ r.buys.length }} to buy</span>
              </td>
              <td>
                <svg viewBox="0 0 12 12" width="12" height="12" aria-hidden="true">
                  <rect
                    x="1"
                    y="1"
                    width="10"
                    height="10"
                    fill="none"
                    stroke="var(--ink)"
                    stroke-width="1.5"
                  />
                  @if (r.grade === 'here') {
                    <rect x="1" y="1" width="10" height="10" fill="var(--ink)" />
                  } @else if (r.grade === 'near') {
                    <path d="M1 11V1h5v10z" fill="var(--ink)" />
                  }
                </svg>
                {{ grades[r.grade] }}
              </td>
              <td class="do">
                <button
                  mat-button
                  type="button"
                  (click)="plan.emit(r)"
                  [attr.aria-label]="'Make a plan of ' + r.names.card + ' in ' + r.names.dock"
                >
                  Make a plan
                </button>
                <button
                  mat-button
                  type="button"
                  (click)="pin.emit(r)"
                  [attr.aria-pressed]="pinned(r)"
                  [attr.aria-label]="'Pin ' + r.names.card + ' in ' + r.names.dock"
                >
                  {{ pinned(r) ? 'Unpin' : 'Pin' }}
                </button>
              </td>
            </tr>
          }
        </tbody>
      </table>
    </div>
  `,
  styles: `
    th[scope='row'] {
      text-align: left;
      font-weight: 400;
      min-width: 220px;
    }
    .hint {
      display: block;
    }
    .against {
      display: block;
      border-left: 4px solid var(--plum);
      padding-left: 8px;
    }
    .plain {
      text-align: left;
      font-weight: 600;
    }
    .do {
      white-space: nowrap;
    }
    tr.here {
      background: var(--select);
    }
    @media print {
      .do {
        display: none;
      }
    }
  `,
})
export class RankedTable {
  readonly rows = input.required<readonly RowView[]>();
  readonly label = input('Sets in order');
  readonly currency = input.required<string>();
  readonly pins = input<readonly number[]>([]);
  readonly at = input<number | null>(null);
  readonly chosen = output<RowView>();
  readonly pin = output<RowView>();
  readonly plan = output<RowView>();
  readonly coverage = coverageWords;
  readonly grades = SCOUT_GRADES;

  pinned(r: RowView): boolean {
    return this.pins().includes(r.index);
  }
  why(r: RowView): string {
    return r.fails.map((f) => REASON_WORDS[f]).join(', ');
  }
  gbps(r: RowView): string {
    return r.usable ? rate(r.usable) : 'not known';
  }
  fps(r: RowView): string {
    const f = r.fps[0];
    return f === null || f === undefined ? 'not told' : String(Math.round(f));
  }
  band(r: RowView): string {
    const b = r.bands[0];
    return b ? `${Math.round(b.lo)} to ${Math.round(b.hi)}` : '';
  }
  money(r: RowView): string {
    return r.fails.includes('no-price')
      ? 'not known'
      : moneyShort({ minor: r.minor, currency: this.currency() });
  }
}
