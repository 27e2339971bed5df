import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { BenchReading } from '@ruddy/core/bench/contract';
import { deviceTree, isDisplay, type Node } from '@ruddy/core/bring-up';
import { apiUrl } from '../platform/api/api-client';
import { BenchStore } from './bench-store';
import { BenchesData } from '../setups/benches';
import { download } from '../platform/shared/download';
import { Acts } from '../platform/kit/ask';

interface Line {
  readonly depth: number;
  readonly address: string;
  readonly words: string;
  readonly link: string;
  readonly card: boolean;
}

/** What the system of the bench lists, as the probe read it, with copy rates; and its files to take away. */
@Component({
  selector: 'rb-tree-panel',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="row">
      <button mat-stroked-button type="button" [disabled]="reading()" (click)="read()">
        {{ reading() ? 'Reading …' : 'Read it off' }}
      </button>
      @if (found()?.report) {
        <button mat-button type="button" (click)="saveReport()">Save the report</button>
        <a mat-button [href]="treeUrl(store.bench()!.id)" download="bench.tar">Save its files</a>
      }
    </div>
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @if (found(); as f) {
      @if (!f.report) {
        <p>0 devices: no system runs there. Switch the host on and wait for it.</p>
      } @else {
        <p>
          @if (f.copy; as c) {
            Copy rate <strong>{{ c.down.value }}</strong> Gb/s to the card,
            <strong>{{ c.up.value }}</strong> back, ±{{ c.down.spreadPercent }}
            %.
          } @else {
            No copy rate: no driver holds a card.
          }
        </p>
        <ul aria-label="Devices">
          @for (l of lines(); track l.address) {
            <li [style.padding-left.px]="l.depth * 14" [class.card]="l.card">
              <span class="mono">{{ l.address }}</span> {{ l.words }}
              <span class="quiet">{{ l.link }}</span>
            </li>
          }
        </ul>
        @for (r of f.report.routers; track r.route) {
          <p class="quiet">
            Router <span class="mono">{{ r.route }}</span>: {{ r.name
            }}{{ r.rxGbps === null ? '' : ', ' + r.rxGbps + ' Gb/s × ' + r.rxLanes
            }}{{ r.authorized === 0 ? ', not approved' : '' }}
          </p>
        }
      }
      @if (stale()) {
        <p class="quiet">The bench went on since; read it again to see how it is now.</p>
      }
    } @else {
      <p class="quiet">
        Reads what the system of the bench shows, with the same probe that reads a real machine.
      </p>
    }
  `,
  styles: `
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      margin-bottom: 8px;
    }
    ul {
      list-style: none;
      max-height: 300px;
      overflow: auto;
    }
    .card {
      font-weight: 600;
    }
  `,
})
export class TreePanel {
  readonly treeUrl = (id: string) => apiUrl('GET /api/benches/:id/tree.tar', { params: { id } });

  readonly #acts = inject(Acts);
  readonly store = inject(BenchStore);
  readonly #data = inject(BenchesData);
  readonly found = signal<BenchReading | null>(null);
  readonly reading = signal(false);
  readonly problem = signal<string | null>(null);
  #of: string | undefined;
  readonly stale = computed(() => {
    const f = this.found();
    const s = this.store.state();
    return (
      f !== null &&
      s !== null &&
      (f.state.stage !== s.stage || f.state.load !== s.load || f.state.host !== s.host)
    );
  });
  readonly lines = computed(() => {
    const report = this.found()?.report;
    const roots = report ? deviceTree(report.devices).filter((n) => n.parent === null) : [];
    return roots.flatMap((n) => lines(n, 0));
  });

  constructor() {
    effect(() => {
      const id = this.store.bench()?.id;
      untracked(() => {
        if (id !== this.#of) this.found.set(null);
        this.#of = id;
      });
    });
  }

  read(): void {
    const id = this.store.bench()?.id;
    if (!id) return;
    this.#acts.run(this.#data.read(id), {
      line: this.problem,
      running: this.reading,
      failed: 'Not read.',
      then: (f) => this.found.set(f),
    });
  }

  saveReport(): void {
    const report = this.found()?.report;
    if (report) download('report.json', 'application/json', JSON.stringify(report, null, 1));
  }
}

const KINDS: Record<string, string> = {
  '0604': 'bridge',
  '0300': 'graphics',
  '0403': 'sound',
  '0c03': 'USB',
  '0108': 'drive',
  '0280': 'radio',
  '0880': 'link controller',
  '0600': 'host bridge',
};

function lines(n: Node, depth: number): Line[] {
  const d = n.device;
  const kind = KINDS[d.classCode ?? ''] ?? d.what;
  const port = d.port && d.port !== 'endpoint' ? ` (${d.port})` : '';
  const state =
    d.state === 'gone'
      ? ', gone'
      : d.asleep
        ? ', asleep'
        : d.driver || kind !== 'graphics'
          ? ''
          : ', no driver';
  const link = d.now && d.cap ? `×${d.now.lanes} at ${d.now.gts ?? '?'} GT/s` : '';
  const own = {
    depth,
    address: d.address,
    words: `${kind}${port}${state}`,
    link,
    card: isDisplay(d),
  };
  return [own, ...n.children.flatMap((c) => lines(c, depth + 1))];
}
