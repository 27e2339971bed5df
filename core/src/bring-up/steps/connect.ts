import { isAdapter } from '../../chain';
import { DRIVER_AFTER } from './before';
import type { CautionId, StepDef, StepFacts } from './types';

const UP = ['bring-up'] as const;
const EACH = ['bring-up', 'dock-again'] as const;

/** Orders in which the host is off while the cable goes in. */
const hostDown = (f: StepFacts) =>
  f.order === 'all-off' || f.order === 'slaved' || f.order === 'dock-first';
const hasDockPower = (f: StepFacts) => f.chain.dock !== null || f.chain.supplies.length > 0;

function plugCautions(f: StepFacts): CautionId[] {
  return [
    ...(f.kind === 'direct' ? (['direct-off'] as const) : []),
    ...(f.has('link/looks-like-video') ? (['looks-like-video'] as const) : []),
  ];
}

/** An adapter that ends in a card slot by itself has no cable to plug. */
const hasPlug = (f: StepFacts) =>
  f.chain.dock !== null || !f.inside || (f.chain.path ?? []).some((p) => !isAdapter(p.spec));

const board = (f: StepFacts) => f.chain.dock?.form === 'open-board' || f.chain.dock === null;
const READY = [
  'print',
  'place',
  'driver-before',
  'link-software',
  'way-back',
  'charger',
  'dock-firmware',
  'host-firmware',
  'recovery-key',
] as const;

/** Cable, power and approval; what comes first among these hangs on the order that was chosen. */
export const CONNECT: readonly StepDef[] = [
  {
    id: 'mains-out',
    lists: EACH,
    phase: 'connect',
    when: (f) => f.order === 'all-off' && hasDockPower(f),
    after: [...READY, 'host-down'],
    minutes: 1,
    cautions: ['mains'],
    symptoms: [],
  },
  {
    id: 'host-down',
    lists: EACH,
    phase: 'connect',
    when: hostDown,
    after: READY,
    minutes: 2,
    symptoms: [],
  },
  {
    id: 'plug-cable',
    lists: EACH,
    phase: 'connect',
    when: hasPlug,
    after: READY,
    minutes: 2,
    cautions: plugCautions,
    about: ['host', 'socket', 'path', 'dock'],
    blanks: true,
    symptoms: ['crash-on-plug', 'nothing-listed', 'does-not-fit'],
  },
  {
    id: 'dock-on',
    lists: EACH,
    phase: 'connect',
    when: hasDockPower,
    after: READY,
    minutes: 1,
    cautions: (f) => (board(f) ? ['live-board'] : []),
    symptoms: ['no-lamp', 'crash-on-plug'],
  },
  {
    id: 'host-start',
    lists: EACH,
    phase: 'connect',
    when: (f) => hostDown(f),
    after: READY,
    minutes: 3,
    blanks: true,
    symptoms: [
      'not-at-start',
      'nothing-listed',
      'router-no-card',
      'recovery-key-asked',
      'no-picture',
      'host-dead',
    ],
  },
  {
    id: 'approve',
    lists: UP,
    phase: 'connect',
    when: (f) => f.kind === 'tunnel',
    after: ['plug-cable', 'dock-on', 'host-start'],
    minutes: 2,
    fields: [
      { kind: 'setting', key: 'approval' },
      { kind: 'setting', key: 'securityLevel' },
    ],
    about: ['host', 'dock'],
    symptoms: ['router-no-card', 'nothing-listed', 'seen-then-lost', 'not-at-start'],
  },
];

const CONNECTED = ['plug-cable', 'dock-on', 'host-start', 'approve'] as const;

/** Is it there, and is the link right? */
export const CHECK: readonly StepDef[] = [
  {
    id: 'listed',
    lists: EACH,
    phase: 'check',
    when: () => true,
    after: CONNECTED,
    minutes: 2,
    symptoms: [
      'nothing-listed',
      'router-no-card',
      'not-at-start',
      'seen-then-lost',
      'error-no-driver',
    ],
  },
  DRIVER_AFTER,
  {
    id: 'driver-holds',
    lists: UP,
    phase: 'check',
    when: () => true,
    after: ['listed', 'driver-after'],
    minutes: 2,
    fields: [{ kind: 'version', role: 'cardFirmware' }],
    symptoms: ['error-no-driver', 'worked-before'],
  },
  {
    id: 'read-outs',
    lists: UP,
    phase: 'check',
    when: () => true,
    after: ['driver-holds'],
    minutes: 5,
    fields: [{ kind: 'reading', of: 'spans' }],
    symptoms: ['narrow-slow', 'router-slow', 'low-copy', 'seen-then-lost'],
  },
  {
    id: 'copy-down',
    lists: UP,
    phase: 'check',
    when: () => true,
    after: ['read-outs'],
    minutes: 3,
    fields: [{ kind: 'reading', of: 'down' }],
    symptoms: ['low-copy', 'seen-then-lost'],
  },
  {
    id: 'copy-up',
    lists: UP,
    phase: 'check',
    when: () => true,
    after: ['copy-down'],
    minutes: 2,
    fields: [{ kind: 'reading', of: 'up' }],
    symptoms: ['low-copy'],
  },
  {
    id: 'soak',
    lists: UP,
    phase: 'check',
    when: () => true,
    after: ['copy-up'],
    minutes: (f) => f.rule('steps.loadMinutes') + 2,
    fields: [{ kind: 'reading', of: 'counts' }],
    cautions: (f) => (f.has('cooling/hot') ? ['hot'] : []),
    symptoms: ['drops-under-load', 'errors-rise', 'seen-then-lost'],
  },
];
