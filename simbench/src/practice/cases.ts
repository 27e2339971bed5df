import type { SymptomId } from '@ruddy/core/base';
import type { FaultMap } from '@ruddy/core/bench';
import { type Chain, chainSchema } from '@ruddy/core/chain';
import {
  cableSchema,
  cardSchema,
  dockSchema,
  type DockSpec,
  hostSchema,
  screenSchema,
  socketSchema,
  type SocketSpec,
} from '@ruddy/core/parts';

export type Grade = 'easy' | 'middle' | 'hard';

/** A graded case: a chain with something hidden in it, always the same. */
export interface PracticeCase {
  readonly no: number;
  readonly grade: Grade;
  /** What somebody would say who brings it. */
  readonly name: string;
  readonly chain: Chain;
  readonly faults: FaultMap;
  readonly seed: number;
  readonly order: 'all-off' | 'host-first';
  /** What is complained of at first, where that is less than what a look shows. */
  readonly complaint?: readonly SymptomId[];
}

const maker = { maker: 'Sallowmere', variant: '' };

interface Made {
  readonly socket: Partial<SocketSpec>;
  readonly dock: Partial<DockSpec>;
  readonly cable: object;
  readonly form: 'laptop' | 'mini-pc' | 'handheld';
}

/** A chain of the practice shelf: everything of it is known, and nothing on paper is wrong with it. */
function made({ socket, dock, cable, form }: Made): Chain {
  const second = socketSchema.parse({
    key: 'b',
    position: 'right',
    mark: '10',
    connector: 'usb-c',
    standard: 'usb-c',
    tunnelling: 'no',
  });
  const first = socketSchema.parse({ key: 'a', position: 'left', mark: '40', ...socket });
  return chainSchema.parse({
    host: hostSchema.parse({
      ...maker,
      model: `Practice ${form}`,
      form,
      graphics: 'internal',
      sockets: [first, second],
    }),
    socket: 'a',
    path: [
      {
        key: 'a',
        spec: cableSchema.parse({ ...maker, model: 'Practice cable', lengthMm: 500, ...cable }),
      },
    ],
    dock: dockSchema.parse({
      ...maker,
      model: 'Practice dock',
      form: 'enclosure',
      slotLanes: 4,
      ...dock,
    }),
    card: cardSchema.parse({
      ...maker,
      model: 'Practice card',
      chip: 'desktop',
      pcieGen: 4,
      lanes: 16,
      memoryGB: 8,
      boardW: 180,
      plugs8Pin: 1,
    }),
    picture: [
      {
        key: 'a',
        by: 'card',
        plug: 'displayport',
        screen: screenSchema.parse({
          ...maker,
          model: 'Practice screen',
          widthPx: 2560,
          heightPx: 1440,
          hz: 60,
        }),
      },
    ],
  });
}

const usb4 = made({
  form: 'laptop',
  cable: { connector: 'usb-c', construction: 'passive', markedGbps: 40 },
  socket: {
    connector: 'usb-c',
    standard: 'usb4-40',
    tunnelling: 'yes',
    controller: 'built-in',
    pcieGen: 4,
    lanes: 4,
  },
  dock: { connector: 'usb-c', uplink: 'usb4-40', slotGen: 3, controllerClass: 'c' },
});
const thunderbolt = made({
  form: 'mini-pc',
  cable: { connector: 'usb-c', construction: 'passive', markedGbps: 40 },
  socket: {
    connector: 'usb-c',
    standard: 'thunderbolt-3',
    controller: 'separate',
    pcieGen: 3,
    lanes: 4,
  },
  dock: { connector: 'usb-c', uplink: 'thunderbolt-3', slotGen: 3, controllerClass: 'c' },
});
const oculink = made({
  form: 'handheld',
  cable: { connector: 'oculink-4i', construction: 'passive', pcieGen: 4 },
  socket: { connector: 'oculink-4i', standard: 'oculink', pcieGen: 4, lanes: 4, mark: 'O' },
  dock: { connector: 'oculink-4i', uplink: 'oculink', slotGen: 4, slotLanes: 16 },
});

/** Chains a random fault is hidden in where no setup is named. */
export const PRACTICE_CHAINS: readonly Chain[] = [usb4, thunderbolt, oculink];

type Given = Omit<PracticeCase, 'seed' | 'order'> & Partial<Pick<PracticeCase, 'order'>>;
const all = (c: Given): PracticeCase => ({ order: 'all-off', seed: 100 + c.no, ...c });

/** Graded by how many causes show the same at first, and by how much a test costs that tells them apart. */
export const PRACTICE_CASES: readonly PracticeCase[] = [
  all({
    no: 1,
    grade: 'easy',
    name: 'Not a light on it',
    chain: usb4,
    faults: { 'dock-switch': 1 },
    complaint: ['nothing-listed'],
  }),
  all({
    no: 2,
    grade: 'easy',
    name: 'The dock is there, the card is not',
    chain: usb4,
    faults: { 'approval-kept-out': 1 },
  }),
  all({
    no: 3,
    grade: 'easy',
    name: 'A picture everywhere but here',
    chain: oculink,
    faults: { 'wrong-input': 1 },
  }),
  all({
    no: 4,
    grade: 'middle',
    name: 'Slower than last week',
    chain: usb4,
    faults: { 'cable-half-rate': 1 },
    complaint: ['low-copy'],
  }),
  all({
    no: 5,
    grade: 'middle',
    name: 'Gone in the third round',
    chain: oculink,
    faults: { 'supply-sag': 0.8 },
  }),
  all({
    no: 6,
    grade: 'middle',
    name: 'Half of what it was bought for',
    chain: thunderbolt,
    faults: { 'two-lanes': 1 },
    complaint: ['low-copy'],
  }),
  all({
    no: 7,
    grade: 'hard',
    name: 'It freezes as soon as it is plugged',
    chain: thunderbolt,
    faults: { 'dock-firmware-crash': 1 },
    order: 'host-first',
  }),
  all({
    no: 8,
    grade: 'hard',
    name: 'Errors nobody sees',
    chain: oculink,
    faults: { 'direct-cable-margin': 0.3 },
  }),
  all({
    no: 9,
    grade: 'hard',
    name: 'Good hardware, low rate',
    chain: usb4,
    faults: { 'driver-clamp': 1 },
    complaint: ['low-copy'],
  }),
  all({
    no: 10,
    grade: 'hard',
    name: 'It drops, nobody knows when',
    chain: thunderbolt,
    faults: { 'card-defective': 0.3 },
  }),
];
