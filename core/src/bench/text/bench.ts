import { SECURITY_WORDS } from '../../parts';
import type { FaultId } from '../faults';
import type { HostPower, LinkState, LogCode } from '../ids';
import type { BenchState, LogLine } from '../state';

/** How far the link is, in a word or two. */
export const STAGE_WORDS: Readonly<Record<LinkState, string>> = {
  unplugged: 'not plugged',
  attached: 'plugged, nothing yet',
  router: 'router up',
  awaiting: 'waits for approval',
  tunnel: 'tunnel up, slot silent',
  training: 'slot training',
  windows: 'card listed, no driver',
  bound: 'up, at rest',
  'in-use': 'up, under load',
  suspended: 'asleep',
  lost: 'lost',
};

export const HOST_POWER_WORDS: Readonly<Record<HostPower, string>> = {
  off: 'off',
  starting: 'starting',
  'asks-key': 'asks for the recovery key',
  on: 'on',
  asleep: 'asleep',
  frozen: 'frozen',
};

/** Title of each fault. */
export const FAULT_WORDS: Readonly<Record<FaultId, string>> = {
  'cable-charges-only': 'Cable carries charge only',
  'cable-half-rate': 'Cable holds half the rate',
  'cable-one-lane': 'A lane of the cable is dead',
  'plug-not-home': 'Plug not home',
  'look-alike-port': 'Port is the look-alike, no tunnel',
  'approval-kept-out': 'Approval does not take',
  'tunnelling-forbidden': 'Security level forbids PCIe',
  'two-lanes': 'Host wires two lanes',
  'host-order': 'Host wants to start first',
  'dock-firmware-crash': 'Dock firmware crashes a running host',
  'dock-firmware-cap': 'Dock firmware holds the rate down',
  'dock-defective': 'Dock defective',
  'dock-switch': 'Dock stays dark',
  'hub-traffic': 'Hub and LAN take the link',
  'card-not-seated': 'Card not seated',
  'power-plug-out': 'Power plug of the card out',
  'card-defective': 'Card defective',
  'supply-sag': 'Supply gives way under load',
  'resource-window': 'No address space for the card',
  'driver-refused': 'Driver refuses the card',
  'driver-clamp': 'Driver holds the slot slow',
  'direct-cable-margin': 'Direct cable without margin',
  'direct-lanes-lost': 'Lanes lost on the way',
  'power-saving': 'Power saving does not wake',
  'asks-for-key': 'Host asks for its recovery key',
  'wrong-input': 'Screen on the wrong input',
};

/** What the strength of a fault decides, where it decides more than how often. */
export const FAULT_STRENGTH: Readonly<Partial<Record<FaultId, string>>> = {
  'plug-not-home': 'From 70 % no contact at all; below it the link drops now and then.',
  'dock-firmware-crash': 'How often it crashes.',
  'dock-firmware-cap': 'From 17 down to 12 Gb/s.',
  'hub-traffic': '12 to 24 Gb/s taken.',
  'card-not-seated': 'From 70 % no card; below it fewer lanes.',
  'card-defective': 'From 50 % it does not answer; below it falls off under load.',
  'supply-sag': 'How soon it gives way.',
  'direct-cable-margin': 'Above 50 % a generation lower; below it errors only.',
  'direct-lanes-lost': 'Above 60 % a quarter of the lanes, otherwise half.',
};

type Params = LogLine['params'];
const LINES: Readonly<Record<LogCode, string | ((p: Params) => string)>> = {
  placed: (p) => `Another ${p['what'] ?? 'part'} on the bench.`,
  'taken-away': (p) =>
    `${String(p['what'] ?? 'part').replace(/^./, (c) => c.toUpperCase())} taken away.`,
  'fault-set': 'A fault was hidden.',
  'fault-mended': 'A fault was mended.',
  seated: 'Card seated.',
  unseated: 'Card taken out.',
  'plugs-in': 'Power plugs in the card.',
  'plugs-out': 'Power plugs out of the card.',
  'mains-on': 'Mains on.',
  'mains-off': 'Mains out.',
  'dock-on': 'Dock switched on.',
  'dock-off': 'Dock switched off.',
  'dock-dark': 'The lamp of the dock stays dark.',
  'host-starting': 'Host starts.',
  'host-asks-key': 'Host asks for its recovery key before it goes on.',
  'host-on': 'Host is up.',
  'host-off': 'Host off.',
  'host-asleep': 'Host asleep.',
  'host-awake': 'Host awake.',
  'host-frozen': 'Host frozen: no picture, no key helps. Only its button.',
  plugged: (p) => `Cable into port ${p['socket'] ?? ''}.`,
  'plug-misfit': (p) => `The plug does not fit port ${p['socket'] ?? ''}; it is out again.`,
  'plug-nothing': 'There is no dock, and no slot, at the other end: nothing was plugged.',
  unplugged: 'Cable out.',
  'plug-loose': 'The plug moved: contact lost.',
  'live-direct':
    'A direct link was plugged or pulled with power on. On a real bench this can destroy it.',
  'live-card': 'The card was moved with power on. On a real bench this can destroy it.',
  'no-contact': 'No contact at the plug.',
  attached: 'Contact: somebody is at the other end.',
  'no-router': 'No router appears.',
  'not-at-start': 'Host did not look for the dock while starting.',
  'not-scanned': 'A direct link is looked for only at start; nothing was listed.',
  'router-up': (p) => `Router up: ${p['lane'] ?? '?'} Gb/s × ${p['lanes'] ?? '?'}.`,
  awaiting: 'The dock waits for approval.',
  approved: (p) => `Approved: ${p['how'] ?? ''}.`,
  'approval-back': 'Approval revoked.',
  'approval-kept-out': 'Approval was given and did not take.',
  security: (p) =>
    `Security level: "${(SECURITY_WORDS as Record<string, string>)[String(p['level'])] ?? 'not set'}".`,
  'tunnel-up': 'Tunnel up: the bridges of the dock are listed.',
  'tunnel-forbidden': 'The security level lets no PCIe through.',
  'slot-empty': 'The slot is empty.',
  'slot-silent': 'The slot is taken and nothing answers there.',
  training: 'Slot trains.',
  trained: (p) => `Slot trained: Gen${p['gen'] ?? '?'} ×${p['lanes'] ?? '?'}.`,
  windows: 'Memory windows assigned.',
  'no-space': 'No space for the memory windows of the card.',
  bound: 'Driver holds the card.',
  'no-driver': 'Card listed; no driver for it is installed.',
  'driver-refused': 'The driver looked at the card and left it.',
  'driver-in': 'Driver installed.',
  'driver-out': 'Driver taken out.',
  'load-on': 'Load on.',
  'load-off': 'Load off.',
  'slot-fell-back': 'Slot back at 2.5 GT/s under load.',
  'errors-rise': 'Corrected errors on the link.',
  'brown-out': 'The supply gave way: the lamp of the dock went out.',
  'link-down': 'Slot: link down. The card is lost.',
  'link-back': 'The lamp of the dock is back.',
  gone: 'The card answers no more.',
  suspended: 'Card at rest, its power off.',
  'stays-asleep': 'The card does not wake.',
  'traffic-on': 'Hub and LAN busy.',
  'traffic-off': 'Hub and LAN quiet.',
  'screen-in': 'Screen plugged into the card.',
  'screen-out': 'Screen unplugged.',
  'no-picture': 'No picture on the screen.',
};

/**
 * One line of a bench's log.
 * @param line code and parameters
 * @returns the sentence
 */
export function benchLine(line: Pick<LogLine, 'code' | 'params'>): string {
  const words = LINES[line.code];
  return typeof words === 'string' ? words : words(line.params);
}

/**
 * Bench time.
 * @param ms from its start
 * @returns "0:42", "12:05", "1:02:05"
 * @example benchTime(42000) // => '0:42'
 */
export function benchTime(ms: number): string {
  const s = Math.floor(ms / 1000);
  const two = (n: number) => String(n).padStart(2, '0');
  const h = Math.floor(s / 3600);
  const m = Math.floor(s / 60) % 60;
  return h > 0 ? `${h}:${two(m)}:${two(s % 60)}` : `${m}:${two(s % 60)}`;
}

function upWords(s: BenchState): string {
  const span = s.cardSpan ? `×${s.cardSpan.lanes} Gen${s.cardSpan.gen}` : '';
  const rate = s.usable ? `${s.usable.down.toFixed(1)} Gb/s to the card` : '';
  return [rate, span].filter((w) => w !== '').join(', ');
}

/**
 * A bench in one sentence with a number: the first thing to know at it.
 * @param s its state
 * @returns the sentence
 */
export function benchSentence(s: BenchState): string {
  const lost = s.downs > 0 ? ` Lost ${s.downs} ${s.downs === 1 ? 'time' : 'times'} so far.` : '';
  switch (s.host) {
    case 'frozen':
      return `Host frozen after ${benchTime(s.ms)} of bench time: only its button helps.`;
    case 'asks-key':
      return 'Host stopped at 1 question: it asks for its recovery key.';
    default:
  }
  switch (s.stage) {
    case 'unplugged':
      return `Nothing plugged: 0 of 1 cables in, ${[s.mains, s.dockOn, s.host !== 'off'].filter(Boolean).length} of 3 switches on.`;
    case 'in-use':
      return `Under load: ${upWords(s)}.${lost}`;
    case 'bound':
      return `Up and at rest: ${upWords(s)}.${lost}`;
    case 'windows':
      return `Card listed, 0 drivers hold it: ${upWords(s)}.${lost}`;
    case 'lost':
      return `Card lost at ${benchTime(s.since)}${s.downs > 1 ? `, ${s.downs} times so far` : ''}.`;
    case 'awaiting':
    case 'router':
      return `Router up at ${s.router?.laneGbps ?? '?'} Gb/s × ${s.router?.lanes ?? '?'}: ${STAGE_WORDS[s.stage]}.${lost}`;
    default:
      return `Link ${STAGE_WORDS[s.stage]} since ${benchTime(s.since)}.${lost}`;
  }
}
