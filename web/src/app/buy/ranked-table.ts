import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { rate } from '@ruddy/core/base/text';
import type { RowView } from '@ruddy/core/buy';
import { moneyShort, REASON_WORDS, SCOUT_GRADES } from '@ruddy/core/buy/text';
import { coverageWords } from '@ruddy/core/plan/text';
import { VerdictChip } from '../chain/verdict/verdict-chip';
import { Cell } from '../platform/kit/cell';
import type { Column } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';

/** Combinations in order. In: rows, currency, which are pinned, which is chosen. Out: chosen, pinned, made a plan. */
@Component({
  selector: 'rb-ranked-table',
  imports: [Cell, MatButtonModule, Rows, VerdictChip],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-rows [label]="label()" [columns]="columns()" [rows]="rows()" [marked]="here">
      <ng-template rbCell="set" [rbCellOf]="rows()" let-r>
        <button mat-button type="button" (click)="chosen.emit(r)">
          {{ r.names.dock }} with {{ r.names.card }}
        </button>
        <span class="hint">
          {{ r.names.port }}, {{ r.names.path }}{{ r.names.supply ? ', ' + r.names.supply : ''
          }}{{ r.names.screen ? ', ' + r.names.screen : '' }}
        </span>
        @if (r.contradicted; as c) {
          <strong class="against"
            >Failed when tried {{ c.n === 1 ? 'once' : c.failed + ' of ' + c.n + ' times' }} here.
            Trust the log.</strong
          >
        }
        @if (r.fails.length > 0) {
          <span class="hint">Left out: {{ why(r) }}.</span>
        }
        @if (r.alike.length > 0) {
          <span class="hint">Same facts: {{ r.alike.join(', ') }}.</span>
        }
      </ng-template>
      <ng-template rbCell="verdict" [rbCellOf]="rows()" let-r>
        <rb-verdict-chip [state]="r.state" />
        <span class="hint nowrap">{{ coverage(r.coverage) }}</span>
      </ng-template>
      <ng-template rbCell="fps" [rbCellOf]="rows()" let-r>
        {{ fps(r) }}
        <span class="hint">{{ band(r) }}</span>
      </ng-template>
      <ng-template rbCell="price" [rbCellOf]="rows()" let-r>
        {{ money(r) }}
        <span class="hint">{{ r.buys.length }} to buy</span>
      </ng-template>
      <ng-template rbCell="evidence" [rbCellOf]="rows()" let-r>
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
      </ng-template>
      <ng-template rbCell="do" [rbCellOf]="rows()" let-r>
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
      </ng-template>
    </rb-rows>
  `,
  styles: `
    .hint {
      display: block;
    }
    .against {
      display: block;
      border-left: 4px solid var(--plum);
      padding-left: 8px;
    }
    @media print {
      button {
        border: 0;
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
  readonly here = (r: RowView) => r.index === this.at();
  readonly columns = computed<readonly Column<RowView>[]>(() => [
    { key: 'set', name: 'Set', text: (r) => `${r.names.dock} with ${r.names.card}` },
    { key: 'verdict', name: 'Verdict', text: (r) => r.state },
    {
      key: 'usable',
      name: 'Usable Gb/s',
      figure: true,
      text: (r: RowView) => this.gbps(r),
      sort: (r: RowView) => r.usable?.lo ?? null,
    },
    {
      key: 'fps',
      name: 'Frames/s',
      figure: true,
      text: (r: RowView) => this.fps(r),
      sort: (r: RowView) => r.fps[0] ?? null,
    },
    {
      key: 'price',
      name: 'Price',
      figure: true,
      text: (r: RowView) => this.money(r),
      sort: (r: RowView) => r.minor,
    },
    { key: 'evidence', name: 'Evidence', text: (r) => this.grades[r.grade] },
    { key: 'do', name: 'Actions', silent: true, text: () => '' },
  ]);
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
    return f === null || f === undefined ? 'not predicted' : String(Math.round(f));
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
