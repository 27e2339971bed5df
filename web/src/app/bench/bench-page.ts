import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { RouterLink } from '@angular/router';
import { benchSentence } from '@ruddy/core/bench/text';
import { BridgeStrip } from '../chain/strip/bridge-strip';
import { BenchStore } from './bench-store';
import { Keys } from '../platform/shell/keys';
import { benchStrip } from './bench-strip';
import { ClockPanel } from './clock-panel';
import { FaultPanel } from './fault-panel';
import { LogPanel } from './log-panel';
import { SwitchPanel } from './switch-panel';
import { TablePanel } from './table-panel';
import { TreePanel } from './tree-panel';

/** One bench: parts on the table, switches, faults, what happened, and what its system shows, with the live strip above. */
@Component({
  imports: [
    RouterLink,
    MatButtonModule,
    BridgeStrip,
    ClockPanel,
    SwitchPanel,
    TablePanel,
    FaultPanel,
    LogPanel,
    TreePanel,
  ],
  providers: [BenchStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
})
export class BenchPage {
  readonly store = inject(BenchStore);
  readonly id = input.required<string>();
  readonly sentence = computed(() => {
    const s = this.store.state();
    return s ? benchSentence(s) : 'Reading the bench …';
  });
  readonly strip = computed(() => {
    const bench = this.store.bench();
    const j = this.store.judgement();
    const s = this.store.state();
    return bench && j && s ? benchStrip(bench.name, j, s, this.store.nowMs()) : null;
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.store.open(id));
    });
    const toggle = (key: string, what: string, run: () => void) => ({ key, what, run });
    const state = () => this.store.state();
    inject(Keys).bind([
      toggle('1', 'Mains in or out', () => this.store.act({ act: 'mains', on: !state()?.mains })),
      toggle('2', 'Dock on or off', () => this.store.act({ act: 'dock', on: !state()?.dockOn })),
      toggle('3', 'Host on or off', () =>
        this.store.act({ act: 'host', to: state()?.host === 'off' ? 'on' : 'off' }),
      ),
      toggle('4', 'Plug into the first port that is free, or pull', () => this.#plug()),
      toggle('5', 'Approve always', () => this.store.act({ act: 'approve', how: 'always' })),
      toggle('6', 'Load on or off', () => this.store.act({ act: 'load', on: !state()?.load })),
      toggle('.', 'On to what happens next', () => this.store.clock({ toNext: true })),
    ]);
  }

  #plug(): void {
    const bench = this.store.bench();
    const s = this.store.state();
    const socket = bench?.chain.socket ?? bench?.chain.host?.sockets[0]?.key;
    if (s?.plugged) this.store.act({ act: 'unplug' });
    else if (socket) this.store.act({ act: 'plug', socket });
  }
}
