import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { mean } from '@ruddy/core/base';
import { figureText } from '@ruddy/core/base/text';
import {
  BASIS_WORDS,
  INSEPARABLE_WORDS,
  NO_PAIR_WORDS,
  pairText,
  signed,
  tollText,
  unlikeText,
} from '@ruddy/core/runs/text';
import { pluralize } from '../platform/shared/format';
import { TollStore } from './toll-store';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const UNLIKE_SHOWN = 3;

/** How the toll was come by: every pair that measures it, those that do not, and each resolution predicted from the others. */
@Component({
  selector: 'rb-toll-section',
  imports: [Cell, Rows, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [name]="headline()">
      @if (toll(); as t) {
        <p>{{ basis() }} {{ traffic() }}</p>
        @for (line of notes(); track line) {
          <p class="note">{{ line }}</p>
        }
      } @else {
        <p>
          A pair of runs tells it: the same title, resolution and settings on the same card, once
          through this link and once in a desktop slot, or over another link of the same host. Tick
          “in a desktop slot” when you add such a run.
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
      @if (rest().length > 0) {
        <h3>Each resolution from the others</h3>
        <ul>
          @for (r of rest(); track r) {
            <li>{{ r }}</li>
          }
        </ul>
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
export class TollSection {
  readonly pairsThatMeasureColumns: readonly ShortColumn[] = [
    { key: 'pair', name: 'Pair' },
    { key: 'at', name: 'At' },
    { key: 'withoutMs', name: 'Without, ms', figure: true },
    { key: 'withMs', name: 'With, ms', figure: true },
    { key: 'difference', name: 'Difference', figure: true },
    { key: 'alsoUnlike', name: 'Also unlike' },
  ];
  readonly store = inject(TollStore);
  readonly toll = this.store.toll;
  readonly headline = computed(() => {
    const t = this.toll();
    const back = this.store.back();
    const way = back ? `; the way back to the panel ${tollText(back)}` : '';
    return t
      ? `Link overhead: ${tollText(t)}, from ${pluralize(t.pairs.length, 'pair')}${way}`
      : `Link overhead: 0 pairs measure it yet${way}`;
  });
  readonly basis = computed(() => {
    const t = this.toll();
    return t ? `Measured ${BASIS_WORDS[t.basis]}.` : '';
  });
  readonly traffic = computed(() => {
    const t = this.toll();
    return t
      ? `That is ${figureText(t.trafficMB)} MB a frame at this rate, round trips in it.`
      : '';
  });
  readonly notes = computed(() => {
    const t = this.toll();
    if (!t) return [];
    return [
      ...t.inseparable.map((i) => INSEPARABLE_WORDS[i]),
      ...(t.uneven
        ? [
            'It is not the same at every resolution: something besides the link differs between these pairs.',
          ]
        : []),
      ...(t.beyondTraffic
        ? ['More than traffic explains: over 40 MB a frame. Look for clocks, driver, a busy hub.']
        : []),
      ...(t.hostMs
        ? [`The other processor costs ${tollText(t.hostMs)} at the lowest resolution.`]
        : []),
    ];
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
        difference: tollText(p.difference).replace(' a frame', ''),
        unlike:
          words.length === 0 ? 'nothing' : `${words.slice(0, UNLIKE_SHOWN).join('; ')}${more}`,
      };
    });
  });
  readonly rest = computed(() =>
    (this.toll()?.rest ?? []).map((r) => {
      const p = 1000 / r.predictedMs;
      const m = 1000 / r.measuredMs;
      return `${r.cell.first.settings.resolution}: predicted ${figureText(p)}, measured ${figureText(m)} frames/s, ${signed((p / m - 1) * 100)}`;
    }),
  );
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
