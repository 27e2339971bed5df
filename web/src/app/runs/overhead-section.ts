import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { mean } from '@ruddy/core/base';
import { figureText } from '@ruddy/core/base/text';
import {
  differenceText,
  NO_PAIR_WORDS,
  overheadText,
  pairText,
  unlikeText,
} from '@ruddy/core/runs/text';
import { pluralize } from '../platform/shared/format';
import { ModelStore } from './model-store';
import { TitleRuns } from './title-runs';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const UNLIKE_SHOWN = 3;

/** Every pair of runs that measures the link, with its difference, and those that look like one and are none. */
@Component({
  selector: 'rb-overhead-section',
  imports: [Cell, Rows, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [name]="headline()">
      @if (pairs().length === 0) {
        <p>
          A pair of runs measures it: the same title, resolution and settings on the same card, once
          through this link and once in a desktop slot, or over another link of the same host. Tick
          “in a desktop slot” when you add such a run. Until then it is told from what titles
          usually send.
        </p>
      }
      @if (pairs().length > 0) {
        <rb-rows label="Pairs that measure" [columns]="pairsThatMeasureColumns" [rows]="pairs()">
          <ng-template rbCell="pair" [rbCellOf]="pairs()" let-p>{{ p.what }}</ng-template>
          <ng-template rbCell="at" [rbCellOf]="pairs()" let-p>{{ p.at }}</ng-template>
          <ng-template rbCell="withoutMs" [rbCellOf]="pairs()" let-p>{{ p.a }}</ng-template>
          <ng-template rbCell="withMs" [rbCellOf]="pairs()" let-p>{{ p.b }}</ng-template>
          <ng-template rbCell="difference" [rbCellOf]="pairs()" let-p
            ><span class="nowrap">{{ p.difference }}</span></ng-template
          >
          <ng-template rbCell="alsoUnlike" [rbCellOf]="pairs()" let-p>{{ p.unlike }}</ng-template>
        </rb-rows>
      }
      @if (not().length > 0) {
        <h3>Looks like a pair and is none</h3>
        <ul>
          @for (n of not(); track n) {
            <li>{{ n }}</li>
          }
        </ul>
      }
    </rb-fold>
  `,
  styleUrl: './section.scss',
})
export class OverheadSection {
  readonly pairsThatMeasureColumns: readonly ShortColumn[] = [
    { key: 'pair', name: 'Pair' },
    { key: 'at', name: 'At' },
    { key: 'withoutMs', name: 'Without, ms', figure: true },
    { key: 'withMs', name: 'With, ms', figure: true },
    { key: 'difference', name: 'Difference', figure: true },
    { key: 'alsoUnlike', name: 'Also unlike' },
  ];
  readonly store = inject(TitleRuns);
  readonly #model = inject(ModelStore);
  readonly headline = computed(() => {
    const overhead = this.#model.overhead();
    const from = pluralize(this.pairs().length, 'pair');
    return overhead
      ? `Link overhead ${overheadText(overhead)}; ${from} of runs`
      : `Link overhead: ${from} of runs`;
  });
  readonly pairs = computed(() => {
    const first = this.store.first();
    const own = this.store
      .pairs()
      .pairs.filter(
        (p) =>
          p.b.first.titleId === first?.titleId &&
          [p.a, p.b].some((c) => c.first.setupId === first.setupId),
      );
    return own.map((p) => {
      const other = p.a.first.setupId === first?.setupId ? p.b : p.a;
      const where =
        other.first.setupId === first?.setupId
          ? ''
          : `, ${this.store.setupName(other.first.setupId)}`;
      const words = p.unlike.map(unlikeText);
      const more = words.length > UNLIKE_SHOWN ? `; ${words.length - UNLIKE_SHOWN} more` : '';
      return {
        what: `${pairText(p)}${where}`,
        at: p.b.first.settings.resolution,
        a: figureText(mean(p.a.ms)),
        b: figureText(mean(p.b.ms)),
        difference: differenceText(p.difference),
        unlike:
          words.length === 0 ? 'nothing' : `${words.slice(0, UNLIKE_SHOWN).join('; ')}${more}`,
      };
    });
  });
  readonly not = computed(() => {
    const first = this.store.first();
    const own = this.store
      .pairs()
      .not.filter(
        (n) =>
          n.a.first.titleId === first?.titleId &&
          [n.a, n.b].some((c) => c.first.setupId === first.setupId),
      );
    const at = (c: (typeof own)[number]['a']) =>
      `${c.first.settings.resolution}${c.panel ? ' on the panel' : ''}`;
    return [...new Set(own.map((n) => `${at(n.a)} and ${at(n.b)}: ${NO_PAIR_WORDS[n.why]}`))];
  });
}
