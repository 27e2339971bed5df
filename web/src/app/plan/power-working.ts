import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { figure, span } from '@ruddy/core/base/text';
import type { Evaluation } from '@ruddy/core/plan';
import { TermWord } from '../platform/glossary/term';

/** How the power budget comes about: what hangs on each supply, which cable goes where, and short peaks. */
@Component({
  selector: 'rb-power-working',
  imports: [TermWord],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (feeders().length > 0) {
      <details class="fold">
        <summary>{{ summary() }}</summary>
        @for (f of feeders(); track f.at) {
          <h3>{{ f.name }}</h3>
          <div class="tables">
            <table class="list">
              <caption class="visually-hidden">
                What hangs on it
              </caption>
              <thead>
                <tr>
                  <th scope="col">What hangs on it</th>
                  <th scope="col" class="figure">W</th>
                </tr>
              </thead>
              <tbody>
                @for (p of f.parts; track p.what) {
                  <tr>
                    <th scope="row">{{ p.what }}</th>
                    <td class="figure">{{ words(p.w) }}</td>
                  </tr>
                }
                <tr>
                  <th scope="row">
                    together, of {{ f.rated ? words(f.rated) : 'a rating not known' }}
                  </th>
                  <td class="figure">{{ f.load ? words(f.load) : 'not known' }}</td>
                </tr>
              </tbody>
            </table>
            @if (f.plugs; as plugs) {
              @if (plugs.assigned.length > 0) {
                <table class="list">
                  <caption class="visually-hidden">
                    Power plugs
                  </caption>
                  <thead>
                    <tr>
                      <th scope="col">Socket of the card</th>
                      <th scope="col">Gets</th>
                    </tr>
                  </thead>
                  <tbody>
                    @for (a of plugs.assigned; track $index) {
                      <tr>
                        <th scope="row">
                          {{ a.want }}{{ a.throughAdapter ? ', through the adapter' : '' }}
                        </th>
                        <td>{{ a.by ?? 'nothing: one plug short' }}</td>
                      </tr>
                    }
                  </tbody>
                </table>
              }
            }
            @if (f.allPeaks.length > 0) {
              <table class="list">
                <caption class="visually-hidden">
                  Short peaks
                </caption>
                <thead>
                  <tr>
                    <th scope="col">For</th>
                    <th scope="col" class="figure">may draw, W</th>
                    <th scope="col" class="figure">supply bears, W</th>
                  </tr>
                </thead>
                <tbody>
                  @for (p of f.allPeaks; track p.us) {
                    <tr [class.chosen]="p === f.peak">
                      <th scope="row">{{ time(p.us) }}</th>
                      <td class="figure">{{ words(p.need) }}</td>
                      <td class="figure">{{ words(p.have) }}</td>
                    </tr>
                  }
                </tbody>
              </table>
            }
          </div>
        }
        <p class="hint">
          <rb-term of="board-power" words="Board power" /> is steady; a <rb-term of="peak" /> is
          short. Every socket of the card wants a power cable of its own; two heads on one cable
          share its wires. Push each home until it clicks. Peaks and efficiencies are from memory of
          the standards; a supply is never opened.
        </p>
      </details>
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
  readonly evaluation = input.required<Evaluation>();
  readonly words = (r: { lo: number; hi: number }) => figure(r);
  readonly time = span;
  readonly feeders = computed(() => this.evaluation().predicted.body.power.feeders);
  readonly summary = computed(() => {
    const f = this.feeders().find((x) => x.feedsCard) ?? this.feeders()[0];
    const load =
      f?.load && f.rated ? `${figure(f.load)} of ${figure(f.rated)} W` : 'watts not known';
    const plugs = f?.plugs ? `, plugs ${f.plugs.wants - f.plugs.short.hi} of ${f.plugs.wants}` : '';
    return `Power: ${load}${plugs}${f?.wall ? `, ${figure(f.wall)} W from the wall` : ''}`;
  });
}
