import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import type { Act, BenchState } from '@ruddy/core/bench';
import { HOST_POWER_WORDS } from '@ruddy/core/bench/text';
import { SECURITY_LEVELS } from '@ruddy/core/bring-up';
import { carriesTunnel, SECURITY_WORDS } from '@ruddy/core/parts';
import { BenchStore } from './bench-store';
import { MatButtonModule } from '@angular/material/button';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

interface Switch {
  readonly name: string;
  /** What it shows now. */
  readonly shows: string;
  readonly lit: boolean;
  readonly acts: readonly { readonly label: string; readonly act: Act; readonly off?: boolean }[];
}

/** Everything hands can do beside plugging: one row a switch, with its lamp and the acts it has now. */
@Component({
  selector: 'rb-switch-panel',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (caution(); as words) {
      <p class="caution"><strong>Caution</strong> {{ words }}</p>
    }
    <ul>
      @for (s of switches(); track s.name) {
        <li>
          <span class="lamp" [class.lit]="s.lit" aria-hidden="true"></span>
          <span class="name">{{ s.name }}</span>
          <span class="shows">{{ s.shows }}</span>
          <span class="acts">
            @for (a of s.acts; track a.label) {
              <button
                mat-stroked-button
                type="button"
                [disabled]="a.off"
                [attr.aria-label]="s.name + ': ' + a.label"
                (click)="store.act(a.act)"
              >
                {{ a.label }}
              </button>
            }
          </span>
        </li>
      }
    </ul>
    @if (store.state(); as s) {
      <rb-field
        [meta]="security"
        [value]="s.security"
        (changed)="store.act({ act: 'security', level: $event })"
      />
    }
  `,
  styleUrl: './switch-panel.scss',
})
export class SwitchPanel {
  readonly store = inject(BenchStore);
  readonly security: FieldMeta = {
    label: 'Security level of the link',
    input: 'choice',
    options: SECURITY_LEVELS.map((value) => ({ value, label: SECURITY_WORDS[value] })),
  };

  /** Before a plug or a card is moved with power on: what that would do to real gear. */
  readonly caution = computed(() => {
    const bench = this.store.bench();
    const s = this.store.state();
    const direct = bench?.chain.host?.sockets.some(
      (p) => !carriesTunnel(p.connector) && (p.key === s?.plugged || !s?.plugged),
    );
    const power = s && (s.host !== 'off' || s.dockLamp);
    if (!power) return null;
    const what = direct ? 'A direct link or a card' : 'A card';
    return `Power is on. ${what} moved now can destroy real gear: everything off and mains out first. The maker's manual has the last word.`;
  });

  readonly switches = computed<Switch[]>(() => {
    const s = this.store.state();
    return s ? switchesOf(s) : [];
  });
}

/** A switch with two acts, of which the one that is done already is off. */
function twoWay(
  name: string,
  shows: string,
  lit: boolean,
  to: (on: boolean) => Act,
  [onName, offName]: readonly [string, string],
): Switch {
  const acts = [
    { label: onName, act: to(true), off: lit },
    { label: offName, act: to(false), off: !lit },
  ];
  return { name, shows, lit, acts };
}

const IN_OUT = ['In', 'Out'] as const;
const ON_OFF = ['On', 'Off'] as const;

function hostSwitch(s: BenchState): Switch {
  return {
    name: 'Host',
    shows: HOST_POWER_WORDS[s.host],
    lit: s.host === 'on',
    acts: [
      { label: 'On', act: { act: 'host', to: 'on' }, off: s.host !== 'off' },
      { label: 'Off', act: { act: 'host', to: 'off' }, off: s.host === 'off' },
      { label: 'Sleep', act: { act: 'host', to: 'asleep' }, off: s.host !== 'on' },
      { label: 'Wake', act: { act: 'host', to: 'awake' }, off: s.host !== 'asleep' },
      ...(s.host === 'asks-key' ? [{ label: 'Type the key', act: { act: 'key' } as const }] : []),
    ],
  };
}

const APPROVALS = { once: 'Once', always: 'Always', none: 'Delete' } as const;

function approvalSwitch(s: BenchState): Switch {
  return {
    name: 'Approval',
    shows: s.approval,
    lit: s.approval !== 'none',
    acts: (['once', 'always', 'none'] as const).map((how) => ({
      label: APPROVALS[how],
      act: { act: 'approve', how },
      off: s.approval === how || s.host !== 'on',
    })),
  };
}

/** Switches between mains and host, in the order of the cable. */
function powerSwitches(s: BenchState): Switch[] {
  const mains = (on: boolean): Act => ({ act: 'mains', on });
  const dock = (on: boolean): Act => ({ act: 'dock', on });
  return [
    twoWay('Mains', s.mains ? 'in' : 'out', s.mains, mains, IN_OUT),
    { ...twoWay('Dock', dockWords(s), s.dockOn, dock, ON_OFF), lit: s.dockLamp },
    hostSwitch(s),
    approvalSwitch(s),
  ];
}

/** What is put in, and what runs. */
function partSwitches(s: BenchState): Switch[] {
  const card = (on: boolean): Act => ({ act: 'card', in: on });
  const plugs = (on: boolean): Act => ({ act: 'power-plugs', in: on });
  const screen = (on: boolean): Act => ({ act: 'screen', in: on });
  const driver = (on: boolean): Act => ({ act: 'driver', in: on });
  const load = (on: boolean): Act => ({ act: 'load', on });
  const traffic = (on: boolean): Act => ({ act: 'traffic', on });
  const installed = s.driverIn ? 'installed' : 'not installed';
  return [
    twoWay('Card', s.cardIn ? 'seated' : 'out', s.cardIn, card, IN_OUT),
    twoWay('Power plugs', s.plugsIn ? 'in' : 'out', s.plugsIn, plugs, IN_OUT),
    twoWay('Screen', screenWords(s), s.screenIn, screen, IN_OUT),
    twoWay('Driver', installed, s.driverIn, driver, ['Install', 'Remove']),
    twoWay('Load', s.load ? 'working' : 'idle', s.load, load, ON_OFF),
    twoWay('Hub and LAN', s.traffic ? 'busy' : 'quiet', s.traffic, traffic, ['Busy', 'Quiet']),
  ];
}

function switchesOf(s: BenchState): Switch[] {
  return [...powerSwitches(s), ...partSwitches(s)];
}

function dockWords(s: { dockOn: boolean; dockLamp: boolean }): string {
  if (!s.dockOn) return s.dockLamp ? 'off, lamp on' : 'off';
  return s.dockLamp ? 'on, lamp on' : 'on, lamp dark';
}

function screenWords(s: { screenIn: boolean; picture: boolean }): string {
  return s.screenIn ? (s.picture ? 'in, picture' : 'in, no picture') : 'out';
}
