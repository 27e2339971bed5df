import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  input,
  signal,
  viewChild,
} from '@angular/core';
import { type Range, RULES } from '@ruddy/core/base';
import { rate } from '@ruddy/core/base/text';
import type { Chain, Hop, Working } from '@ruddy/core/chain';
import { formula, SOURCES } from '@ruddy/core/chain/text';
import { LOAD_KINDS } from '@ruddy/core/parts';
import type { Evaluation } from '@ruddy/core/plan';
import { RouterLink } from '@angular/router';
import { nodeOf, role } from '../chain/strip/strip-model';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';

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
  imports: [Cell, Fold, RouterLink, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold
      [(open)]="all"
      name="Link details: {{ rows().length }} {{ rows().length === 1 ? 'hop' : 'hops' }}, {{
        usable()
      }}"
    >
      <rb-rows label="Hops" [columns]="columns" [rows]="rows()">
        <ng-template rbCell="down" [rbCellOf]="rows()" let-r
          ><b>{{ r.down }}</b></ng-template
        >
      </rb-rows>
      <h3>Formulas</h3>
      <dl>
        @for (r of rows(); track r.name) {
          @if (r.working.length > 0) {
            <dt>{{ r.name }}</dt>
            @for (w of r.working; track w.words) {
              <dd>
                <span class="mono">{{ w.words }}</span>
                <span class="hint">{{ w.source }}</span>
              </dd>
            }
          }
        }
      </dl>
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
    </rb-fold>
  `,
  styles: `
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
  readonly columns: readonly ShortColumn<Row>[] = [
    { key: 'hop', name: 'Hop', text: (r) => r.name },
    { key: 'kind', name: 'Kind', text: (r) => r.kind },
    { key: 'trains', name: 'Trains to', text: (r) => r.trains },
    { key: 'raw', name: 'Raw, Gb/s', figure: true, text: (r) => r.raw },
    { key: 'down', name: 'To card, Gb/s', figure: true },
    { key: 'up', name: 'Back, Gb/s', figure: true, text: (r) => r.up },
    { key: 'takes', name: 'Taken by', text: (r) => r.takes || 'nothing' },
    { key: 'why', name: 'Why', text: (r) => r.why },
  ];
  readonly all = signal(false);
  readonly fold = viewChild.required(Fold);
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
    this.#el.nativeElement.scrollIntoView({ block: 'nearest' });
    this.fold().show();
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
        ? `bottleneck, set by the ${part}`
        : pinch.certain
          ? 'least of the chain'
          : 'may be the bottleneck'
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
