import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { figure, span } from '@ruddy/core/base/text';
import type { Evaluation } from '@ruddy/core/plan';
import { TermWord } from '../platform/glossary/term';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

/** How the power budget comes about: what hangs on each supply, which cable goes where, and short peaks. */
@Component({
  selector: 'rb-power-working',
  imports: [Cell, Rows, Fold, TermWord],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (feeders().length > 0) {
      <rb-fold [name]="summary()">
        @for (f of feeders(); track f.at) {
          <h3>{{ f.name }}</h3>
          <div class="tables">
            <rb-rows label="Loads" [columns]="loadColumns" [rows]="f.loads" />
            @if (f.plugs; as plugs) {
              @if (plugs.assigned.length > 0) {
                <rb-rows label="Power plugs" [columns]="powerPlugsColumns" [rows]="plugs.assigned">
                  <ng-template rbCell="socketOfThe" [rbCellOf]="plugs.assigned" let-a
                    >{{ a.want }}{{ a.throughAdapter ? ', through the adapter' : '' }}</ng-template
                  >
                  <ng-template rbCell="gets" [rbCellOf]="plugs.assigned" let-a>{{
                    a.by ?? 'nothing: one plug short'
                  }}</ng-template>
                </rb-rows>
              }
            }
            @if (f.peaks.length > 0) {
              <rb-rows
                label="Short peaks"
                [columns]="shortPeaksColumns"
                [marked]="isWorst"
                [rows]="f.peaks"
              >
                <ng-template rbCell="for" [rbCellOf]="f.peaks" let-p>{{ time(p.us) }}</ng-template>
                <ng-template rbCell="mayDrawW" [rbCellOf]="f.peaks" let-p>{{
                  words(p.need)
                }}</ng-template>
                <ng-template rbCell="supplyBearsW" [rbCellOf]="f.peaks" let-p>{{
                  words(p.have)
                }}</ng-template>
              </rb-rows>
            }
          </div>
        }
        <p class="hint">
          <rb-term of="board-power" words="Board power" /> is steady; a <rb-term of="peak" /> is
          short. Every socket of the card wants a power cable of its own; two heads on one cable
          share its wires. Push each home until it clicks. Peaks and efficiencies are from memory of
          the standards; a supply is never opened.
        </p>
      </rb-fold>
    }
  `,
  styles: `
    .tables {
      display: grid;
      grid-template-columns: repeat(auto-fit, minmax(min(260px, 100%), 1fr));
      gap: 16px;
      align-items: start;
      margin: 8px 0 12px;
    }
  `,
})
export class PowerWorking {
  readonly powerPlugsColumns: readonly ShortColumn[] = [
    { key: 'socketOfThe', name: 'Socket of the card' },
    { key: 'gets', name: 'Gets' },
  ];
  readonly shortPeaksColumns: readonly ShortColumn[] = [
    { key: 'for', name: 'For' },
    { key: 'mayDrawW', name: 'may draw, W', figure: true },
    { key: 'supplyBearsW', name: 'supply bears, W', figure: true },
  ];
  readonly evaluation = input.required<Evaluation>();
  readonly words = (r: { lo: number; hi: number }) => figure(r);
  readonly time = span;
  readonly isWorst = (p: { worst: boolean }) => p.worst;
  readonly loadColumns: readonly ShortColumn<{ what: string; w: string }>[] = [
    { key: 'what', name: 'Load', text: (l) => l.what },
    { key: 'w', name: 'W', figure: true, text: (l) => l.w },
  ];
  readonly feeders = computed(() =>
    this.evaluation().predicted.body.power.feeders.map((f) => {
      const each = f.parts.map((p) => ({ what: p.what, w: figure(p.w) }));
      const sum = {
        what: `Total, of ${f.rated ? figure(f.rated) : 'a rating not known'}`,
        w: f.load ? figure(f.load) : 'not known',
      };
      const peaks = f.allPeaks.map((p) => ({ ...p, worst: p === f.peak }));
      return { ...f, peaks, loads: [...each, sum] };
    }),
  );
  readonly summary = computed(() => {
    const f = this.feeders().find((x) => x.feedsCard) ?? this.feeders()[0];
    const load =
      f?.load && f.rated ? `${figure(f.load)} of ${figure(f.rated)} W` : 'watts not known';
    const plugs = f?.plugs ? `, plugs ${f.plugs.wants - f.plugs.short.hi} of ${f.plugs.wants}` : '';
    return `Power: ${load}${plugs}${f?.wall ? `, ${figure(f.wall)} W from the wall` : ''}`;
  });
}
