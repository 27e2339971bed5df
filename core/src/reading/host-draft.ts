import type { HostSpec, PortStandard, Report, SocketSpec } from '../schema';
import { isDisplay } from './measured';
import { deviceTree, onlySlowFour, spanAbove, type Node } from './tree';
import { genOf } from './types';

/** What a report cannot say of a host, so that the page asks for it. */
export type Unsaid = 'names' | 'plugs' | 'standards' | 'inner-width' | 'rights' | 'ports';

export interface HostDraft {
  readonly spec: Pick<HostSpec, 'maker' | 'model' | 'variant' | 'form' | 'sockets'>;
  readonly unsaid: readonly Unsaid[];
}

const USB4_HOST = '0c03';
const LINK_HOST = '0880';

type Draft = Pick<SocketSpec, 'connector' | 'standard' | 'tunnelling' | 'controller' | 'pcieGen' | 'lanes'>;

function socket(key: string, s: Draft): SocketSpec {
  const blank = {
    tb3Compat: null,
    completionBytes: null,
    family: '',
    holds: null,
    reach: null,
    chargeInW: null,
    chargeOutW: null,
  } as const;
  return { key, position: '', mark: '', ...blank, ...s };
}

function isUsb4Host(n: Node): boolean {
  return n.device.classCode === USB4_HOST && /USB4/i.test(`${n.device.what} ${n.device.name}`);
}

/** A port that only a tunnel comes out of: hot-plug, and nothing but 2.5 GT/s with four lanes. */
function isTunnelPort(n: Node): boolean {
  return n.device.hotplug === true && onlySlowFour(n.device);
}

function builtIn(nodes: readonly Node[]): Draft[] {
  const standard: SocketSpec['standard'] = { oneOf: ['usb4-20', 'usb4-40', 'thunderbolt-4', 'usb4-80', 'thunderbolt-5'] };
  return nodes
    .filter((n) => n.parent === null && n.device.port === 'root' && isTunnelPort(n))
    .map(() => ({ connector: 'usb-c', standard, tunnelling: 'yes', controller: 'built-in', pcieGen: null, lanes: null }));
}

/** Ports of a separate controller: hot-plug ports below a switch that hangs on a real link of the host. */
function separate(nodes: readonly Node[]): Draft[] {
  const ports = nodes.filter((n) => n.device.port === 'downstream' && isTunnelPort(n));
  return ports.flatMap((n): Draft[] => {
    const up = n.parent;
    const own = up ? spanAbove(up) : null;
    if (!up || own?.kind !== 'real' || up.parent?.device.port !== 'root') return [];
    const hosts = up.children.flatMap((c) => c.children).map((c) => c.device.classCode);
    const older: PortStandard[] = hosts.includes(LINK_HOST) ? ['thunderbolt-3'] : ['thunderbolt-3', 'usb4-40', 'thunderbolt-4'];
    const standard: SocketSpec['standard'] = older.length === 1 ? (older[0] as PortStandard) : { oneOf: older };
    const [gen, lanes] = [genOf(up.parent.device.cap?.gts), own.lanes];
    return [{ connector: 'usb-c', standard, tunnelling: 'yes', controller: 'separate', pcieGen: gen, lanes }];
  });
}

/** A card straight on a root port: the system does not see by which plug. */
function directPorts(nodes: readonly Node[]): Draft[] {
  const cards = nodes.filter((n) => isDisplay(n.device));
  const roots = cards.flatMap((n) => (n.parent?.device.port === 'root' && spanAbove(n)?.kind === 'real' ? [n.parent] : []));
  return roots.map((r) => ({
    connector: 'oculink-4i',
    standard: 'oculink',
    tunnelling: null,
    controller: null,
    pcieGen: genOf(r.device.cap?.gts),
    lanes: r.device.cap && r.device.cap.lanes > 0 ? Math.min(4, r.device.cap.lanes) : null,
  }));
}

/**
 * A first description of a host from what its system shows: one socket a port that is seen, with what the bus can tell. Names, marks
 * and plugs are not on the bus; without rights not even ports are.
 */
export function hostDraft(report: Report): HostDraft {
  const nodes = deviceTree(report.devices);
  const inside = builtIn(nodes);
  const outside = separate(nodes);
  const straight = directPorts(nodes);
  const denied = report.missing.length > 0;
  const seen = [...inside, ...outside, ...straight];
  const usb4 = nodes.some(isUsb4Host);
  const guess: Draft[] =
    seen.length > 0
      ? seen
      : [
          {
            connector: 'usb-c',
            standard: null,
            tunnelling: null,
            controller: usb4 ? 'built-in' : null,
            pcieGen: null,
            lanes: null,
          },
        ];
  const unsaid: Unsaid[] = [
    'names',
    ...(seen.length === 0 ? ['ports' as const] : []),
    ...(straight.length > 0 ? ['plugs' as const] : []),
    ...(guess.some((s) => typeof s.standard !== 'string') ? ['standards' as const] : []),
    ...(inside.length > 0 ? ['inner-width' as const] : []),
    ...(denied ? ['rights' as const] : []),
  ];
  const sockets = guess.slice(0, 32).map((s, i) => socket(`port-${i + 1}`, s));
  return { spec: { maker: '', model: '', variant: '', form: 'laptop', sockets }, unsaid };
}
