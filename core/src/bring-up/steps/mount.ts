import { endsInSlot } from '../../chain';
import type { CautionId, StepDef, StepFacts } from './types';

const UP = ['bring-up'] as const;
const BOTH_UP = { lists: UP, lasting: true } as const;

const opened = (f: StepFacts) => f.inside && f.port?.reach !== 'outside';
const hasBattery = (f: StepFacts) =>
  f.chain.host?.batteryWh !== 0 &&
  f.chain.host?.form !== 'desktop' &&
  f.chain.host?.form !== 'mini-pc';
const ownSlot = (f: StepFacts) => f.chain.dock?.form !== 'all-in-one';
const closed = (f: StepFacts) =>
  f.chain.dock?.form === 'enclosure' || (f.chain.dock === null && !endsInSlot(f.chain.path));
/** A card slot hangs on the path itself, or on the dock. */
const powered = (f: StepFacts) => f.chain.dock !== null || f.chain.supplies.length > 0;

function lidCautions(f: StepFacts): CautionId[] {
  const { host } = f.chain;
  return [
    'static',
    ...(hasBattery(f) ? (['battery'] as const) : []),
    ...(host?.fanOnLid !== 'no' ? (['lid-fan'] as const) : []),
    ...(host?.compound !== 'paste' ? (['conducts'] as const) : []),
  ];
}

function plugSockets(f: StepFacts): boolean {
  const { card } = f.chain;
  const none = card && card.plugs8Pin === 0 && card.plugs6Pin === 0 && card.plugs16Pin === 0;
  return ownSlot(f) && !none;
}

/** Opening the host, as far as its maker allows, and putting the adapter in. */
const OPEN: readonly StepDef[] = [
  {
    ...BOTH_UP,
    id: 'host-off',
    phase: 'open',
    when: (f) => f.inside,
    after: [
      'print',
      'recovery-key',
      'other-drive',
      'network',
      'charger',
      'driver-before',
      'dock-firmware',
      'host-firmware',
      'way-back',
    ],
    minutes: 3,
    cautions: ['static'],
    about: ['host', 'path'],
    symptoms: [],
  },
  {
    ...BOTH_UP,
    id: 'host-lid',
    phase: 'open',
    when: opened,
    after: ['host-off'],
    minutes: (f) =>
      typeof f.chain.host?.openScrews === 'number' ? 5 + f.chain.host.openScrews : 15,
    tools: ['screwdriver', 'plastic-pick', 'small-bags', 'torch'],
    cautions: lidCautions,
    about: ['host'],
    symptoms: ['host-dead'],
  },
  {
    ...BOTH_UP,
    id: 'battery-off',
    phase: 'open',
    when: (f) => opened(f) && hasBattery(f),
    after: ['host-lid'],
    minutes: 2,
    tools: ['plastic-pick'],
    cautions: ['battery'],
    about: ['host'],
    symptoms: ['host-dead'],
  },
  {
    ...BOTH_UP,
    id: 'slot-out',
    phase: 'open',
    when: (f) => f.inside && f.port?.connector !== 'expresscard' && f.port?.holds !== 'nothing',
    after: ['battery-off', 'host-lid', 'host-off'],
    minutes: 5,
    tools: ['screwdriver', 'small-bags'],
    cautions: ['static'],
    about: ['host'],
    symptoms: ['host-dead'],
  },
  {
    ...BOTH_UP,
    id: 'cut-shell',
    phase: 'open',
    when: (f) => f.inside && f.port?.reach === 'cut',
    after: ['slot-out', 'battery-off', 'host-lid'],
    minutes: 30,
    tools: ['tape', 'torch'],
    cautions: ['cutting', 'battery'],
    about: ['host'],
    final: true,
    symptoms: ['host-dead'],
  },
  {
    ...BOTH_UP,
    id: 'adapter-in',
    phase: 'open',
    when: (f) => f.inside,
    after: ['cut-shell', 'slot-out', 'host-lid', 'host-off'],
    minutes: 10,
    tools: ['screwdriver', 'tape'],
    cautions: (f) => (f.has('link/looks-like-video') ? ['static', 'looks-like-video'] : ['static']),
    about: ['host', 'path'],
    symptoms: ['host-dead', 'does-not-fit'],
  },
  {
    ...BOTH_UP,
    id: 'host-close',
    phase: 'open',
    when: opened,
    after: ['adapter-in'],
    minutes: 15,
    tools: ['screwdriver'],
    cautions: (f) => (f.chain.host?.fanOnLid !== 'no' ? ['lid-fan'] : []),
    about: ['host', 'path'],
    symptoms: ['host-dead'],
  },
  {
    ...BOTH_UP,
    id: 'host-alone',
    phase: 'open',
    when: (f) => f.inside,
    after: ['host-close', 'adapter-in'],
    minutes: 5,
    cautions: ['locked-out'],
    about: ['host', 'path'],
    blanks: true,
    symptoms: ['host-dead', 'recovery-key-asked'],
  },
];

/** The card into its slot, and power to it. */
const DOCK: readonly StepDef[] = [
  {
    ...BOTH_UP,
    id: 'dock-dead',
    phase: 'mount',
    when: (f) => ownSlot(f) || powered(f),
    after: ['save-work', 'dock-firmware', 'host-alone'],
    minutes: 2,
    cautions: ['mains', 'static'],
    about: ['dock', 'card', 'supplies'],
    symptoms: [],
  },
  {
    ...BOTH_UP,
    id: 'dock-open',
    phase: 'mount',
    when: (f) => ownSlot(f) && closed(f),
    after: ['dock-dead'],
    minutes: (f) => (typeof f.chain.dock?.screws === 'number' ? 2 + f.chain.dock.screws : 6),
    tools: ['screwdriver', 'small-bags'],
    about: ['dock', 'card'],
    symptoms: [],
  },
  {
    ...BOTH_UP,
    id: 'supply-in',
    phase: 'mount',
    when: (f) => f.chain.supplies.length > 0 || f.chain.dock?.supply === 'separate',
    after: ['dock-open', 'dock-dead'],
    minutes: 10,
    tools: ['screwdriver'],
    cautions: (f) =>
      f.chain.supplies.length > 1 || f.evaluation.predicted.body.power.two
        ? ['mains', 'two-supplies']
        : ['mains'],
    about: ['dock', 'supplies'],
    symptoms: ['does-not-fit'],
  },
  {
    ...BOTH_UP,
    id: 'card-seat',
    phase: 'mount',
    when: ownSlot,
    after: ['dock-open', 'dock-dead', 'supply-in'],
    minutes: 5,
    cautions: ['static'],
    about: ['dock', 'card'],
    symptoms: ['does-not-fit'],
  },
  {
    ...BOTH_UP,
    id: 'card-hold',
    phase: 'mount',
    when: ownSlot,
    after: ['card-seat'],
    minutes: 3,
    tools: ['screwdriver'],
    cautions: (f) => (f.has('fit/heavy') || f.has('fit/unheld') ? ['heavy'] : []),
    about: ['dock', 'card'],
    symptoms: ['does-not-fit'],
  },
  {
    ...BOTH_UP,
    id: 'power-plugs',
    phase: 'mount',
    when: plugSockets,
    after: ['card-hold', 'card-seat', 'supply-in'],
    minutes: 4,
    cautions: (f) => (f.chain.supplies.length > 0 ? ['plug-home', 'two-supplies'] : ['plug-home']),
    about: ['dock', 'card', 'supplies'],
    symptoms: ['does-not-fit'],
  },
  {
    ...BOTH_UP,
    id: 'dock-close',
    phase: 'mount',
    when: (f) => ownSlot(f) && closed(f),
    after: ['power-plugs', 'card-hold', 'card-seat'],
    minutes: 4,
    tools: ['screwdriver'],
    about: ['dock', 'card'],
    symptoms: ['does-not-fit'],
  },
  {
    ...BOTH_UP,
    id: 'place',
    phase: 'mount',
    when: () => true,
    after: ['dock-close', 'power-plugs', 'card-hold', 'host-alone', 'dock-dead'],
    minutes: 3,
    cautions: (f) => [
      ...(f.chain.dock?.form === 'open-board' || f.chain.dock === null
        ? (['live-board'] as const)
        : []),
      ...(f.chain.host?.form === 'handheld' || f.has('cooling/hot') ? (['hot'] as const) : []),
    ],
    about: ['dock', 'card', 'host'],
    symptoms: [],
  },
];

export const MOUNT: readonly StepDef[] = [...OPEN, ...DOCK];
