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
import { BenchDesk } from './bench-desk';
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
  providers: [BenchDesk],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench-page.html',
  styleUrl: './bench-page.scss',
})
export class BenchPage {
  readonly desk = inject(BenchDesk);
  readonly id = input.required<string>();
  readonly sentence = computed(() => {
    const s = this.desk.state();
    return s ? benchSentence(s) : 'Reading the bench …';
  });
  readonly strip = computed(() => {
    const bench = this.desk.bench();
    const j = this.desk.judgement();
    const s = this.desk.state();
    return bench && j && s ? benchStrip(bench.name, j, s, this.desk.nowMs()) : null;
  });

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.desk.open(id));
    });
    const toggle = (key: string, what: string, run: () => void) => ({ key, what, run });
    const state = () => this.desk.state();
    inject(Keys).bind([
      toggle('1', 'Mains in or out', () => this.desk.act({ act: 'mains', on: !state()?.mains })),
      toggle('2', 'Dock on or off', () => this.desk.act({ act: 'dock', on: !state()?.dockOn })),
      toggle('3', 'Host on or off', () =>
        this.desk.act({ act: 'host', to: state()?.host === 'off' ? 'on' : 'off' }),
      ),
      toggle('4', 'Plug into the first port that is free, or pull', () => this.#plug()),
      toggle('5', 'Approve always', () => this.desk.act({ act: 'approve', how: 'always' })),
      toggle('6', 'Load on or off', () => this.desk.act({ act: 'load', on: !state()?.load })),
      toggle('.', 'On to what happens next', () => this.desk.clock({ toNext: true })),
    ]);
  }

  #plug(): void {
    const bench = this.desk.bench();
    const s = this.desk.state();
    const socket = bench?.chain.socket ?? bench?.chain.host?.sockets[0]?.key;
    if (s?.plugged) this.desk.act({ act: 'unplug' });
    else if (socket) this.desk.act({ act: 'plug', socket });
  }
}
