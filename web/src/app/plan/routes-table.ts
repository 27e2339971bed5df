import {
  ChangeDetectionStrategy,
  Component,
  computed,
  ElementRef,
  inject,
  viewChild,
} from '@angular/core';
import { figure, rate } from '@ruddy/core/base/text';
import { type Route, routesOf } from '@ruddy/core/plan';
import { EVICTS, NETWORK_LEFT } from '@ruddy/core/plan/text';
import { SetupEditor } from '../setups/setup-editor';
import { TermWord } from '../platform/glossary/term';

const OPENING: Record<Route['opening'], string> = {
  none: 'stays closed',
  cover: 'a cover comes off',
  cut: 'the shell is cut',
  'not known': 'not known',
};

/** Every way this host can reach a card, side by side, with what each costs. */
@Component({
  selector: 'rb-routes-table',
  imports: [TermWord],
  changeDetection: ChangeDetectionStrategy.OnPush,
  styles: `
    td .link {
      white-space: nowrap;
    }
  `,
  template: `
    @if (routes().length > 0) {
      <details #fold class="fold">
        <summary>{{ summary() }}</summary>
        <div class="wide" tabindex="0" role="region" aria-label="Routes of this host">
          <table class="list">
            <thead>
              <tr>
                <th scope="col">Route</th>
                <th scope="col">Link</th>
                <th scope="col" class="figure">To card, Gb/s at most</th>
                <th scope="col">Takes out</th>
                <th scope="col">Starts from</th>
                <th scope="col">Network</th>
                <th scope="col">Host</th>
                <th scope="col">Live plugging</th>
                <th scope="col">Portable</th>
                <th scope="col">Charges</th>
                <th scope="col"><span class="visually-hidden">Use</span></th>
              </tr>
            </thead>
            <tbody>
              @for (r of routes(); track r.key) {
                <tr [class.chosen]="r.inUse">
                  <th scope="row">{{ r.name }}{{ r.inUse ? ' (in use)' : '' }}</th>
                  <td>{{ kind(r) }}</td>
                  <td class="figure">{{ r.kind === 'none' ? '0.0' : rate(r.usable) }}</td>
                  <td>{{ r.evicts ? evicts[r.evicts] : '–' }}</td>
                  <td>{{ starts(r) }}</td>
                  <td>{{ network[r.network] }}</td>
                  <td>{{ opening[r.opening] }}</td>
                  <td>{{ r.kind === 'none' ? '–' : r.hotPlug ? 'yes' : 'never' }}</td>
                  <td>{{ r.portable ? 'yes' : 'no' }}</td>
                  <td>{{ r.chargeW ? 'up to ' + watts(r) + ' W' : 'no' }}</td>
                  <td>
                    @if (!r.inUse) {
                      <button
                        type="button"
                        class="link"
                        (click)="use(r)"
                        [attr.aria-label]="'Use the route ' + r.name"
                      >
                        Use it
                      </button>
                    }
                  </td>
                </tr>
              }
            </tbody>
          </table>
        </div>
        <p class="quiet">
          A <rb-term of="direct" /> is faster than a <rb-term of="tunnel" /> and never plugged live.
          Rates are what the port allows with the best dock there could be. A slot is real: an
          adapter takes out what sits in it. Opening and cutting: only as far as the maker's manual
          goes.
        </p>
      </details>
    }
  `,
})
export class RoutesTable {
  readonly #editor = inject(SetupEditor);
  readonly fold = viewChild<ElementRef<HTMLDetailsElement>>('fold');
  readonly evicts = EVICTS;
  readonly network = NETWORK_LEFT;
  readonly opening = OPENING;
  readonly rate = rate;
  readonly routes = computed(() => {
    const j = this.#editor.judgement();
    if (!j?.chain.host) return [];
    const house = Object.fromEntries(j.evaluation.assumptions.map((a) => [a.rule, a.value]));
    return routesOf(j.chain.host, j.chain.socket, { asOf: j.evaluation.asOf, house });
  });
  readonly summary = computed(() => {
    const ways = this.routes().filter((r) => r.kind !== 'none');
    const best = ways[0];
    const rest = this.routes().length - ways.length;
    const none = rest > 0 ? `, ${rest} that carry no PCIe` : '';
    if (!best) return `Routes 0: no port or slot of this host carries PCIe${none}`;
    const cost =
      best.evicts && best.evicts !== 'nothing' ? `, takes out ${EVICTS[best.evicts]}` : '';
    return `Routes ${ways.length}${none}: the fastest is ${best.name}, ${rate(best.usable)} Gb/s${cost}`;
  });

  kind(r: Route): string {
    return r.kind === 'none' ? 'no PCIe' : r.kind === 'tunnel' ? 'tunnel' : 'direct';
  }

  starts(r: Route): string {
    if (r.evicts !== 'system-drive') return 'as before';
    return r.bootTo.length > 0 ? `moved to ${r.bootTo.join(' or ')}` : 'another drive first';
  }

  watts(r: Route): string {
    return r.chargeW ? figure(r.chargeW) : '';
  }

  use(r: Route): void {
    this.#editor.change({ slots: { socket: r.key } });
  }

  show(): void {
    const el = this.fold()?.nativeElement;
    if (!el) return;
    el.open = true;
    el.querySelector('summary')?.focus();
  }
}
