import type { MadeDevice, MadeLink, MadePort } from '../config-space';

/** A function in the tree before buses are numbered: where it sits below its bridge, what it is, and what hangs below it. */
export interface Node {
  readonly dev: number;
  readonly fn: number;
  readonly made: Omit<MadeDevice, 'address' | 'bus'>;
  readonly driver: string | null;
  readonly children: readonly Node[];
  /** Buses kept free behind a port where more may be plugged in. */
  readonly reserve: number;
  /** Attributes of its own beside those every function has. */
  readonly files: Readonly<Record<string, string>>;
}

/** A function with its address, its buses and the folder it lies in. */
export interface Placed {
  readonly device: MadeDevice;
  readonly node: Node;
  readonly parent: string | null;
  /** From the root of the tree, without a slash at its end. */
  readonly dir: string;
}

/** Invented makers: numbers that no list of real ones holds, named in `simbench/pci.ids`. */
export const MAKER = {
  host: 0xe0a1,
  chip: 0xe0a2,
  dock: 0xe0a3,
  card: 0xe0a4,
  drive: 0xe0a5,
} as const;

/** What both ends of a tunnel's bridge pair show, whatever the tunnel carries. */
export const VIRTUAL: MadeLink = { capGts: 2.5, capLanes: 4, nowGts: 2.5, nowLanes: 4 };

const GTS = [0, 2.5, 5, 8, 16, 32, 64] as const;

/** GT/s of a generation. */
export function gts(gen: number): number {
  return GTS[gen] ?? 2.5;
}

export function node(n: Partial<Node> & Pick<Node, 'dev' | 'made'>): Node {
  return { fn: 0, driver: null, children: [], reserve: 0, files: {}, ...n };
}

export function bridge(
  n: Partial<Node> & Pick<Node, 'dev'>,
  vendor: number,
  port: MadePort,
  link: MadeLink,
  more: Partial<MadeDevice> = {},
): Node {
  const made = { vendor, device: 1, classCode: 0x060400, port, link, ...more };
  return node({ driver: 'pcieport', ...n, made });
}

const hex = (n: number, digits: number) => n.toString(16).padStart(digits, '0');

/** Give every function its address, as firmware does: depth first, each bridge the next bus. */
export function place(roots: readonly Node[]): Placed[] {
  const placed: Placed[] = [];
  let next = 1;
  const visit = (list: readonly Node[], bus: number, parent: string | null, dir: string) => {
    for (const n of list) {
      const address = `0000:${hex(bus, 2)}:${hex(n.dev, 2)}.${n.fn}`;
      const own = `${dir}/${address}`;
      if (n.made.classCode !== 0x060400) {
        placed.push({ device: { ...n.made, address }, node: n, parent, dir: own });
        continue;
      }
      const secondary = next++;
      const at = placed.length;
      visit(n.children, secondary, address, own);
      next = Math.max(next, secondary + 1 + n.reserve);
      const buses = { primary: bus, secondary, subordinate: next - 1 };
      placed.splice(at, 0, {
        device: { ...n.made, address, bus: buses },
        node: n,
        parent,
        dir: own,
      });
    }
  };
  visit(roots, 0, null, 'sys/devices/pci0000:00');
  return placed;
}
