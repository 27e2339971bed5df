import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { middleOf } from '@ruddy/core/base';
import { figureText } from '@ruddy/core/base/text';
import {
  converge,
  elasticity,
  hostSwap,
  lookOf,
  type RunGroup,
  sensorMean,
  unlike,
} from '@ruddy/core/runs';
import { comparedText, elasticityText } from '@ruddy/core/runs/text';
import { TitleRuns } from './title-runs';
import { Fold } from '../platform/kit/fold';

const speeds = (c: RunGroup) => c.ms.map((ms) => 1000 / ms);
const percent = (v: number) => `${(v * 100).toFixed(1)} %`;

/** Other cards and hosts in the same place, and what a change of clock gained: does the card still decide? */
@Component({
  selector: 'rb-others-section',
  imports: [Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [name]="headline()">
      <h3>Cards on this chain, at {{ size() || 'the highest resolution' }}</h3>
      @if (cards(); as c) {
        <ul>
          @for (r of c.rows.slice(1); track r.card) {
            <li>
              {{ r.card }} against {{ c.rows[0]!.card }}: {{ compared(r.here) }} here,
              {{ desktop(r.desktop?.of ?? r.byIndex, r.desktop !== null) }}
            </li>
          }
        </ul>
        <p [class.note]="c.alarm">{{ cardWords() }}</p>
      } @else {
        <p class="quiet">
          Takes runs of the same title and size with at least two cards on this host and link.
        </p>
      }
      <h3>Another host with this card</h3>
      @for (h of hosts(); track h) {
        <p>{{ h }}</p>
      } @empty {
        <p class="quiet">
          Takes the same run on another host, and the single-thread index of both.
        </p>
      }
      <h3>Clock</h3>
      @for (e of clocks(); track e) {
        <p>{{ e }}</p>
      } @empty {
        <p class="quiet">
          Takes two runs that differ in lid, power mode or power limit only, with the clock of the
          card beside both.
        </p>
      }
    </rb-fold>
  `,
  styleUrl: './section.scss',
})
export class OthersSection {
  readonly store = inject(TitleRuns);
  /** Cells of this title and look through a link, on the same host and kind of link. */
  readonly #same = computed(() => {
    const cell = this.store.group();
    if (!cell) return [];
    const { first } = cell;
    return this.store
      .groups()
      .filter(
        (c) =>
          c.first.titleId === first.titleId &&
          lookOf(c.first.settings) === lookOf(first.settings) &&
          !c.first.rig.slot &&
          c.panel === cell.panel &&
          c.capFps === null &&
          !c.generated,
      );
  });
  readonly #cards = computed(() => {
    const cell = this.store.group();
    const here = this.#same().filter(
      (c) =>
        c.first.rig.host === cell?.first.rig.host && c.first.facts.link === cell.first.facts.link,
    );
    const sizes = [...new Set(here.map((c) => c.pixels))].sort((a, b) => b - a);
    const top = sizes.find(
      (px) => new Set(here.filter((c) => c.pixels === px).map((c) => c.first.rig.card)).size > 1,
    );
    return here.filter((c) => c.pixels === top);
  });
  readonly size = computed(() => this.#cards()[0]?.first.settings.resolution ?? '');
  readonly cards = computed(() => {
    const slots = this.store
      .groups()
      .filter((c) => c.first.rig.slot && c.first.titleId === this.store.first()?.titleId);
    const list = this.#cards().map((c) => {
      const index = c.first.rig.cardIndex;
      const norm = slots.filter(
        (s) => s.first.rig.card === c.first.rig.card && s.pixels === c.pixels,
      );
      return {
        card: c.first.rig.card,
        here: speeds(c),
        desktop: norm.flatMap(speeds),
        index: index && middleOf(index),
      };
    });
    return converge(list);
  });
  readonly cardWords = computed(() => {
    const c = this.cards();
    if (!c) return '';
    const there =
      c.desktopSpread === null
        ? 'how far a desktop tells them apart is not known'
        : `a desktop tells them apart by ${percent(c.desktopSpread)}`;
    return c.alarm
      ? `They have come together: ${percent(c.spread)} apart here, ${there}. Something else sets the pace; a bigger card gains nothing.`
      : `${percent(c.spread)} apart here; ${there}.`;
  });
  readonly hosts = computed(() => {
    const cell = this.store.group();
    const mine = cell?.first.rig.hostIndex;
    if (!cell || !mine) return [];
    return this.#same().flatMap((o) => {
      const { host, hostIndex, card } = o.first.rig;
      if (
        host === cell.first.rig.host ||
        card !== cell.first.rig.card ||
        o.pixels !== cell.pixels ||
        !hostIndex
      )
        return [];
      const s = hostSwap(
        { speeds: speeds(cell), index: middleOf(mine) },
        { speeds: speeds(o), index: middleOf(hostIndex) },
      );
      if (!s) return [];
      const others = unlike(cell.first.facts, o.first.facts, ['host', 'hostFirmware']).length;
      return [
        `${host}: processor ${s.processor.toFixed(2)} times, frames ${s.frames.of.toFixed(2)} times; ${percent(s.arrives)} of the processor's gain arrives. Unlike in ${others} more.`,
      ];
    });
  });
  readonly clocks = computed(() => {
    const cell = this.store.group();
    const clock = cell && sensorMean(cell, 'card-mhz');
    if (!cell || clock === null) return [];
    return this.#same().flatMap((o) => {
      const other = sensorMean(o, 'card-mhz');
      const apart = unlike(cell.first.facts, o.first.facts, []).map((u) => u.fact);
      const only =
        apart.length > 0 &&
        apart.every((f) => f === 'lid' || f === 'powerMode' || f === 'overclock');
      if (o === cell || other === null || !only || o.pixels !== cell.pixels) return [];
      const e = elasticity({ speeds: speeds(o), clock: other }, { speeds: speeds(cell), clock });
      const words = apart
        .map((f) => `${o.first.facts[f] || 'not set'} to ${cell.first.facts[f] || 'not set'}`)
        .join(', ');
      return [`${words}: ${elasticityText(e)}`];
    });
  });
  readonly headline = computed(() => {
    const c = this.cards();
    const hosts = this.hosts().length;
    const clocks = this.clocks().length;
    const cards = c
      ? `${c.rows.length} cards ${percent(c.spread)} apart${c.alarm ? ', come together' : ''}`
      : '1 card';
    return `Other cards, hosts, clocks: ${cards}, ${hosts} other hosts, ${clocks} changes of clock`;
  });

  readonly compared = comparedText;

  desktop(of: number | null, measured: boolean): string {
    return of === null
      ? 'in a desktop not known'
      : `${figureText(of)} times in a desktop${measured ? '' : ', by index'}`;
  }
}
