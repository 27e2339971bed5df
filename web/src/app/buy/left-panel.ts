import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButtonModule } from '@angular/material/button';
import type { RejectReason, RowView, ScoutResult } from '@ruddy/core/buy';
import { ADMIT_WORDS, comboName, REASON_WORDS } from '@ruddy/core/buy/text';
import { CONNECTORS } from '@ruddy/core/parts';
import { decidingOf } from '@ruddy/core/plan';
import { coverageWords } from '@ruddy/core/plan/text';
import { Cell } from '../platform/kit/cell';
import type { Column } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';
import { AnswerList } from '../plan/answer-list';
import { fieldsOfRow, type AnswerTarget } from '../plan/answer-target';

type LeftRow = ScoutResult['left'][number];

/** What is left out, by reason, with the nearest miss and what allowing it would admit. In: the result. Out: a limit to allow, with the row it is for. */
@Component({
  selector: 'rb-left-panel',
  imports: [AnswerList, Cell, MatButtonModule, RouterLink, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="left-h">
      <h2 id="left-h">{{ headline() }}</h2>
      <rb-rows label="Left out, by reason" [columns]="columns" [rows]="result().left">
        <ng-template rbCell="nearest" [rbCellOf]="result().left" let-l>
          @if (l.nearest; as row) {
            {{ name(row) }}
            <span class="hint">{{ beyond(row, l.over) }}</span>
          }
        </ng-template>
        <ng-template rbCell="allow" [rbCellOf]="result().left" let-l>
          @if (admit[l.reason]; as what) {
            @if (l.alone > 0 && l.nearest; as row) {
              <button mat-button type="button" (click)="allow.emit({ reason: l.reason, row })">
                Allow {{ what }}
              </button>
            }
          }
        </ng-template>
      </rb-rows>
      <p class="hint">
        {{ result().apart.toLocaleString('en') }} more have plugs that do not meet, or a cable
        missing or too many, and were not looked at. A set that fails several limits counts in each
        line.
      </p>
      @if (open(); as row) {
        <h3>To find out for the nearest miss</h3>
        <p class="hint">{{ name(row) }}: {{ coverage(row.coverage) }}.</p>
        <rb-answer-list [questions]="asks()" [target]="target()" />
      }
      @if (uncabled(); as plugs) {
        <p class="hint">
          The catalogue holds no cable with {{ plugs }}: docks that need one are left out.
          <a routerLink="/parts/cable">Describe a cable</a>
        </p>
      }
    </section>
  `,
  styles: `
    .sheet {
      padding: 12px 16px;
    }
    .hint {
      display: block;
    }
  `,
})
export class LeftPanel {
  readonly result = input.required<ScoutResult>();
  /** The host that is searched for. */
  readonly hostId = input('');
  readonly allow = output<{ reason: RejectReason; row: RowView }>();
  /** A part of the nearest miss was described further. */
  readonly answered = output();
  readonly columns: readonly Column<LeftRow>[] = [
    { key: 'why', name: 'Left out because', text: (l) => REASON_WORDS[l.reason] },
    { key: 'n', name: 'Sets', figure: true, text: (l) => l.n.toLocaleString('en') },
    {
      key: 'alone',
      name: 'For this alone',
      figure: true,
      text: (l) => l.alone.toLocaleString('en'),
    },
    { key: 'nearest', name: 'Nearest miss', text: (l) => (l.nearest ? comboName(l.nearest) : '') },
    { key: 'allow', name: 'Allow', silent: true, text: () => '' },
  ];
  readonly admit = ADMIT_WORDS;
  readonly name = comboName;
  readonly coverage = coverageWords;
  /** The nearest miss of which too little is known, where there is something to find out. */
  readonly open = computed(() => {
    const { nearest, left } = this.result();
    const row = nearest?.row.fails.includes('unsure')
      ? nearest.row
      : left.find((l) => l.reason === 'unsure')?.nearest;
    return row && decidingOf(row.asking).length > 0 ? row : null;
  });
  readonly asks = computed(() => {
    const row = this.open();
    return row ? decidingOf(row.asking) : [];
  });
  readonly target = computed<AnswerTarget | null>(() => {
    const row = this.open();
    if (!row) return null;
    const fields = fieldsOfRow(this.hostId(), row.ids);
    return { fields: () => fields, change: null, refresh: () => this.answered.emit() };
  });
  readonly uncabled = computed(() =>
    this.result()
      .uncabled.map((c) => CONNECTORS[c])
      .join(', '),
  );
  readonly headline = computed(() => {
    const { done, kept } = this.result();
    return `${kept.toLocaleString('en')} of ${done.toLocaleString('en')} sets keep every limit`;
  });

  beyond(row: RowView, over: number): string {
    const others = row.fails.length - 1;
    const by = over > 0 && over < 10 ? `${Math.round(over * 100)} % over the limit` : '';
    return [by, others > 0 ? `fails ${others} more` : ''].filter((s) => s !== '').join(', ');
  }
}
