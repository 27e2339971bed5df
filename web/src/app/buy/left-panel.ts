import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { RouterLink } from '@angular/router';
import { MatButtonModule } from '@angular/material/button';
import type { RejectReason, RowView, ScoutResult } from '@ruddy/core/buy';
import { ADMIT_WORDS, comboName, REASON_WORDS } from '@ruddy/core/buy/text';
import { CONNECTORS } from '@ruddy/core/parts';
import { decidingOf } from '@ruddy/core/plan';
import { coverageWords } from '@ruddy/core/plan/text';
import { AnswerList } from '../plan/answer-list';
import { fieldsOfRow, type AnswerTarget } from '../plan/answer-target';

/** What is left out, by reason, with the nearest miss and what allowing it would admit. In: the result. Out: a limit to allow, with the row it is for. */
@Component({
  selector: 'rb-left-panel',
  imports: [MatButtonModule, RouterLink, AnswerList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <section class="sheet" aria-labelledby="left-h">
      <h2 id="left-h">{{ headline() }}</h2>
      <div class="wide" tabindex="0" role="region" aria-label="What is left out, by reason">
        <table class="list">
          <thead>
            <tr>
              <th scope="col">Left out because</th>
              <th scope="col" class="figure">Sets</th>
              <th scope="col" class="figure">For this alone</th>
              <th scope="col">Nearest miss</th>
              <th scope="col"><span class="visually-hidden">Allow</span></th>
            </tr>
          </thead>
          <tbody>
            @for (l of result().left; track l.reason) {
              <tr>
                <th scope="row">{{ words[l.reason] }}</th>
                <td class="figure">{{ l.n.toLocaleString('en') }}</td>
                <td class="figure">{{ l.alone.toLocaleString('en') }}</td>
                <td>
                  @if (l.nearest; as row) {
                    {{ name(row) }}
                    <span class="hint">{{ beyond(row, l.over) }}</span>
                  }
                </td>
                <td>
                  @if (admit[l.reason]; as what) {
                    @if (l.alone > 0 && l.nearest; as row) {
                      <button
                        mat-button
                        type="button"
                        (click)="allow.emit({ reason: l.reason, row })"
                      >
                        Allow {{ what }}
                      </button>
                    }
                  }
                </td>
              </tr>
            }
          </tbody>
        </table>
      </div>
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
    th[scope='row'] {
      text-align: left;
      font-weight: 400;
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
  readonly words = REASON_WORDS;
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
    const by = over > 0 && over < 10 ? `beyond by ${Math.round(over * 100)} %` : '';
    return [by, others > 0 ? `fails ${others} more` : ''].filter((s) => s !== '').join(', ');
  }
}
