import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  signal,
} from '@angular/core';
import { type Range, RULES } from '@ruddy/core/base';
import { rate } from '@ruddy/core/base/text';
import type { Chain, Hop, Working } from '@ruddy/core/chain';
import { formula, SOURCES } from '@ruddy/core/chain/text';
import { LOAD_KINDS } from '@ruddy/core/parts';
import type { Evaluation } from '@ruddy/core/plan';
import { RouterLink } from '@angular/router';
import { nodeOf, role } from '../chain/strip/strip-model';

interface Row {
  name: string;
  kind: string;
  trains: string;
  raw: string;
  takes: string;
  down: string;
  up: string;
  why: string;
  working: { words: string; source: string }[];
}

const WIDTH = (r: Range | undefined) =>
  r ? (r.lo === r.hi ? String(r.lo) : `${r.lo} to ${r.hi}`) : '';

function lines(w: Working, result: Range, raw: Range | null): Row['working'] {
  const below = (w.steps ?? []).map((s) => ({
    words: formula(s, raw ?? result),
    source: SOURCES[s.source],
  }));
  return [...below, { words: formula(w, result), source: SOURCES[w.source] }];
}

/** Raw rate both ways, once where they are the same. */
function rawText(raw: NonNullable<Hop['raw']>): string {
  const down = rate(raw.down);
  const up = rate(raw.up);
  return down === up ? down : `${down} / ${up} back`;
}

/** The working of the link: a row a hop, with the formula and the numbers in it on opening. */
@Component({
  selector: 'rb-hop-table',
  imports: [RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details class="fold" [open]="all()" (toggle)="all.set(box.open)" #box>
      <summary>
        Link working: {{ rows().length }} {{ rows().length === 1 ? 'hop' : 'hops' }}, {{ usable() }}
      </summary>
      <div class="wide" tabindex="0" role="region" aria-label="Hops">
        <table class="list">
          <thead>
            <tr>
              <th scope="col">Hop</th>
              <th scope="col">Kind</th>
              <th scope="col">Trains to</th>
              <th scope="col" class="figure">Raw, Gb/s</th>
              <th scope="col" class="figure">To card, Gb/s</th>
              <th scope="col" class="figure">Back, Gb/s</th>
              <th scope="col">Taken by</th>
              <th scope="col">Why</th>
            </tr>
          </thead>
          <tbody>
            @for (r of rows(); track r.name) {
              <tr>
                <th scope="row">{{ r.name }}</th>
                <td>{{ r.kind }}</td>
                <td>{{ r.trains }}</td>
                <td class="figure">{{ r.raw }}</td>
                <td class="figure">
                  <b>{{ r.down }}</b>
                </td>
                <td class="figure">{{ r.up }}</td>
                <td>{{ r.takes || 'nothing' }}</td>
                <td>{{ r.why }}</td>
              </tr>
              @for (w of r.working; track w.words) {
                <tr class="formula">
                  <td></td>
                  <td colspan="7">
                    <span class="mono">{{ w.words }}</span>
                    <span class="hint">{{ w.source }}</span>
                  </td>
                </tr>
              }
            }
          </tbody>
        </table>
      </div>
      <h3>Rules used {{ evaluation().assumptions.length }}</h3>
      <ul>
        @for (a of rules(); track a.rule) {
          <li>
            {{ a.label }}: {{ a.value }} {{ a.unit }} ({{
              a.setBy === 'house' ? 'set by this workshop' : 'default'
            }})
          </li>
        }
      </ul>
      <p><a routerLink="/workshop/rules">Change a rule</a></p>
    </details>
  `,
  styles: `
    tr.formula td {
      height: auto;
      padding: 2px 8px;
      border-bottom: 0;
    }
    h3 {
      margin-top: 12px;
    }
    ul {
      padding-left: 20px;
    }
    .hint {
      margin-left: 12px;
    }
  `,
})
export class HopTable {
  readonly #el = inject<ElementRef<HTMLElement>>(ElementRef);
  readonly evaluation = input.required<Evaluation>();
  readonly chain = input.required<Chain>();
  readonly all = signal(false);
  readonly usable = computed(() => {
    const u = this.evaluation().predicted.link.usable;
    return u ? `${rate(u.down)} Gb/s to the card and ${rate(u.up)} back` : 'rate not known';
  });
  readonly rules = computed(() =>
    this.evaluation().assumptions.map((a) => ({ ...a, label: RULES[a.rule].label })),
  );
  readonly rows = computed<Row[]>(() =>
    this.evaluation().predicted.link.hops.map((h, i) => this.#row(h, i)),
  );

  /** Open it and bring it into view. */
  openAll(): void {
    this.all.set(true);
    this.#el.nativeElement.scrollIntoView({ block: 'nearest' });
    this.#el.nativeElement.querySelector('summary')?.focus();
  }

  #takeText(t: Hop['takes'][number]): string {
    const load = this.chain().loads[Number(t.attr.split('/')[1])];
    const back = t.up.hi > 0 ? `, ${rate(t.up)} back` : '';
    return `${load ? LOAD_KINDS[load.kind] : 'load'} ${rate(t.down)}${back}`;
  }

  #row(h: Hop, i: number): Row {
    const { pinch } = this.evaluation().predicted.link;
    const trains = [h.gen ? `Gen${WIDTH(h.gen)}` : '', h.lanes ? `×${WIDTH(h.lanes)}` : '']
      .filter((s) => s !== '')
      .join(' ');
    const part =
      pinch.part === 'loads'
        ? 'traffic of others'
        : pinch.part
          ? role(nodeOf(pinch.part)).toLowerCase()
          : '';
    const pinched = pinch.hops.includes(i)
      ? part
        ? `pinch, set by the ${part}`
        : pinch.certain
          ? 'least of the chain'
          : 'may be the pinch'
      : '';
    const why =
      h.unchosen.length > 0
        ? `not chosen: ${h.unchosen.map((s) => role(nodeOf(s)).toLowerCase()).join(', ')}`
        : pinched;
    return {
      name: `${role(nodeOf(h.from))} to ${role(nodeOf(h.to))}`,
      kind: h.kind === 'tunnel' ? 'tunnel' : 'PCIe',
      trains: h.state === 'broken' ? 'nothing' : trains || 'not known',
      raw: h.raw ? rawText(h.raw) : 'not known',
      takes: h.takes.map((t) => this.#takeText(t)).join('; '),
      down: rate(h.usable?.down),
      up: rate(h.usable?.up),
      why,
      working: h.usable ? lines(h.usable.down.working, h.usable.down, h.raw?.down ?? null) : [],
    };
  }
}
