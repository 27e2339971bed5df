import type { MadeLink } from '../config-space';
import type { Topology } from '../link';
import {
  cardReached,
  corrected,
  dockLives,
  fault,
  slotFault,
  type SimulatedBench,
} from '../simulated-bench';
import { settle, word } from '../parts';
import { bridge, gts, MAKER, node, type Node } from './node';

/** What a link shows now: at rest the slowest rate, all lanes; suspended nothing at all. */
function nowOf(w: SimulatedBench, k: Topology): { nowGts: number; nowLanes: number } {
  const resting = w.stage === 'bound' && w.ms - w.since > 2000;
  return {
    nowGts: resting || w.stage === 'suspended' ? 2.5 : gts(k.slot.gen),
    nowLanes: k.slot.lanes,
  };
}

/** The kernel's counts of corrected errors of one function. Source: Linux kernel ABI, sysfs-bus-pci-devices-aer_stats, from memory. */
export function aerFiles(count: number): Record<string, string> {
  const bad = Math.floor(count / 3);
  const kinds = [
    ['RxErr', count - bad],
    ['BadTLP', bad],
    ['BadDLLP', 0],
    ['Rollover', 0],
    ['Timeout', 0],
    ['NonFatalErr', 0],
    ['CorrIntErr', 0],
    ['HeaderOF', 0],
    ['TOTAL_ERR_COR', count],
  ];
  const none = (name: string) => `Undefined 0\nDLP 0\nTLP 0\nTOTAL_ERR_${name} 0\n`;
  return {
    aer_dev_correctable: `${kinds.map(([k, n]) => `${k} ${n}`).join('\n')}\n`,
    aer_dev_nonfatal: none('NONFATAL'),
    aer_dev_fatal: none('FATAL'),
  };
}

/** Bits of the corrected error status that go with a count. */
export function errorBits(count: number): number[] {
  return count === 0 ? [] : count < 3 ? [0] : [0, 6];
}

/** The port before the card: a slot of the dock, or a port of the host. */
export function cardPort(
  w: SimulatedBench,
  k: Topology,
  at: { dev: number; fn?: number },
  vendor: number,
  kind: 'root' | 'downstream',
): Node {
  const there = cardReached(w) || w.stage === 'training' || w.ghost;
  const link: MadeLink = {
    capGts: gts(k.port.gen),
    capLanes: k.port.lanes,
    ...idle(),
    active: false,
  };
  const up = cardReached(w) && !w.ghost;
  const shown: MadeLink = up ? { ...link, ...nowOf(w, k), active: true } : link;
  const errors = corrected(w);
  return bridge(
    { ...at, children: there ? cardNodes(w, k) : [], files: aerFiles(errors), reserve: 3 },
    vendor,
    kind,
    shown,
    {
      hotplug: kind === 'downstream',
      present: there || (dockLives(w) && slotFault(w) !== 'slot-empty'),
      correctedBits: errorBits(errors),
    },
  );
}

function idle(): { nowGts: number; nowLanes: number } {
  return { nowGts: 2.5, nowLanes: 1 };
}

const MB = 1024 * 1024;

/** Memory of the card behind its window: the next power of two above it. */
function windowOf(w: SimulatedBench): { nowMB: number; mostMB: number } {
  const gb = settle(w.chain.card?.memoryGB, 8, w.noise, 'memory');
  const mostMB = 2 ** Math.ceil(Math.log2(gb * 1024));
  return { nowMB: fault(w, 'resource-window') > 0 ? 256 : mostMB, mostMB };
}

/** The graphics function of a card behind its link. */
function graphicsNode(w: SimulatedBench, own: MadeLink): Node {
  const window = windowOf(w);
  const room = fault(w, 'resource-window') === 0;
  const errors = corrected(w);
  return node({
    dev: 0,
    driver: driverOf(w, 'benchgfx'),
    files: {
      ...aerFiles(errors),
      boot_vga: '0\n',
      resource0_resize: `${sizes(window.mostMB).toString(16).padStart(16, '0')}\n`,
      power_state: w.stage === 'suspended' ? 'D3cold\n' : 'D0\n',
    },
    made: {
      vendor: MAKER.card,
      device: 0x0020,
      classCode: 0x030000,
      port: 'endpoint',
      link: own,
      window,
      gone: w.ghost,
      serial: 0x48b02dffff1a2b3cn,
      regions: [
        { at: room ? 0x38_0000_0000n : 0n, bytes: BigInt(window.nowMB * MB) },
        { at: room ? 0x37_0000_0000n : 0n, bytes: BigInt(2 * MB) },
      ],
      correctedBits: errorBits(errors),
    },
  });
}

/** The sound function of a card, for its video outputs. */
function soundNode(w: SimulatedBench, own: MadeLink): Node {
  return node({
    dev: 0,
    fn: 1,
    driver: driverOf(w, 'snd_hda'),
    made: {
      vendor: MAKER.card,
      device: 0x0021,
      classCode: 0x040300,
      port: 'endpoint',
      link: own,
      gone: w.ghost,
    },
  });
}

function driverOf({ stage }: SimulatedBench, name: string): string | null {
  return stage === 'bound' || stage === 'in-use' || stage === 'suspended' ? name : null;
}

/** The functions of a card: graphics and sound, behind a switch of its own where the family has one. */
function cardNodes(w: SimulatedBench, k: Topology): Node[] {
  const inner = word(w.chain.card?.innerSwitch, 'none');
  const link: MadeLink = { capGts: gts(k.card.gen), capLanes: k.card.lanes, ...nowOf(w, k) };
  const functions = (own: MadeLink) => [graphicsNode(w, own), soundNode(w, own)];
  if (inner === 'none') return functions(link);
  const shown: MadeLink =
    inner === 'full'
      ? { capGts: 16, capLanes: 16, nowGts: 16, nowLanes: 16 }
      : { capGts: 2.5, capLanes: 1, nowGts: 2.5, nowLanes: 1 };
  const below = bridge({ dev: 0, children: functions(shown) }, MAKER.card, 'downstream', shown);
  const up = { dev: 0, children: [below] };
  return [bridge(up, MAKER.card, 'upstream', link, { gone: w.ghost })];
}

/** Sizes of a window that can be resized, as the kernel lists them: bit n for 2^n MB. */
function sizes(mostMB: number): number {
  let bits = 0;
  for (let mb = 256; mb <= mostMB; mb *= 2) bits += mb;
  return bits;
}
