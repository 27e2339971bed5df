import type { HostSpec, PortStandard, SocketSpec } from '../../parts';
import type { Report } from '../schema/report';
import { isDisplay } from './measured';
import { deviceTree, type Node, onlySlowFour, spanAbove } from './tree';
import { genOf } from './types';

/** What a report cannot say of a host, so that the page asks for it. */
export type Unsaid = 'names' | 'plugs' | 'standards' | 'inner-width' | 'rights' | 'ports';

export interface HostDraft {
  readonly spec: Pick<HostSpec, 'maker' | 'model' | 'variant' | 'form' | 'sockets'>;
  readonly unsaid: readonly Unsaid[];
}

const LINK_HOST = '0880';
const DRIVE = '0108';

type Draft = Pick<
  SocketSpec,
  'connector' | 'standard' | 'tunnelling' | 'controller' | 'pcieGen' | 'lanes'
> &
  Partial<Pick<SocketSpec, 'holds'>>;
type Standards = SocketSpec['standard'];

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

const inner = {
  connector: 'usb-c',
  tunnelling: 'yes',
  controller: 'built-in',
  pcieGen: null,
  lanes: null,
} as const;
const V1: PortStandard[] = ['usb4-20', 'usb4-40', 'thunderbolt-4'];
const V2: PortStandard[] = ['usb4-80', 'thunderbolt-5'];

/** What a link that stands says of the port it stands at: it cannot be slower than that. */
function standardsBy(laneGbps: number | null): Standards {
  if (laneGbps !== null && laneGbps >= 40) return { oneOf: V2 };
  const least = laneGbps !== null && laneGbps >= 20 ? V1.slice(1) : V1;
  return { oneOf: [...least, ...V2] };
}

/** Older Thunderbolt says which of the three it is; its first two use another plug. */
function older(generation: number | null): PortStandard | null {
  return generation !== null && generation >= 1 && generation <= 3
    ? (`thunderbolt-${generation}` as 'thunderbolt-1' | 'thunderbolt-2' | 'thunderbolt-3')
    : null;
}

/** A port that only a tunnel comes out of: hot-plug, and nothing but 2.5 GT/s with four lanes. */
function isTunnelPort(n: Node): boolean {
  return n.device.hotplug === true && onlySlowFour(n.device);
}

/** Rate of the link that stands at a port of a domain; null without one. */
function attached(report: Report, domain: number, port: number | null): number | null {
  const first = report.routers.filter(
    (r) => Number.parseInt(r.route, 16) === domain && r.rxLanes !== null,
  );
  return (
    first.find((r) => port === null || r.route.split('-')[1] === port.toString(16))?.rxGbps ?? null
  );
}

/** Is the host interface of a domain inside the processor, on the first bus? */
function isBuiltIn(nodes: readonly Node[], controller: string | null): boolean {
  const found = nodes.find((n) => n.device.address === controller);
  return !found || found.parent === null;
}

/** Ports of controllers inside the processor: from the link's own list where the system has one, from the bus otherwise. */
function builtIn(report: Report, nodes: readonly Node[]): Draft[] {
  const domains = report.domains.filter((d) => isBuiltIn(nodes, d.controller));
  const listed = report.ports.filter((p) => domains.some((d) => d.id === p.domain));
  if (listed.length > 0)
    return listed.map((p) => ({
      ...inner,
      standard: standardsBy(attached(report, p.domain, p.port)),
    }));
  const roots = nodes.filter(
    (n) => n.parent === null && n.device.port === 'root' && isTunnelPort(n),
  );
  return roots.map(() => ({ ...inner, standard: { oneOf: [...V1, ...V2] } }));
}

/** Ports of a separate controller: hot-plug ports below a switch that hangs on a real link of the host. */
function separate(report: Report, nodes: readonly Node[]): Draft[] {
  const ports = nodes.filter((n) => n.device.port === 'downstream' && isTunnelPort(n));
  return ports.flatMap((n): Draft[] => {
    const up = n.parent;
    const own = up ? spanAbove(up) : null;
    if (!up || own?.kind !== 'real' || up.parent?.device.port !== 'root') return [];
    const beside = up.children.flatMap((c) => c.children).map((c) => c.device);
    const domain = report.domains.find((d) => beside.some((b) => b.address === d.controller));
    const known =
      older(domain?.generation ?? null) ??
      (!domain && beside.some((b) => b.classCode === LINK_HOST) ? 'thunderbolt-3' : null);
    const standard: Standards = known ?? {
      oneOf: domain
        ? ['usb4-40', 'thunderbolt-4', ...V2]
        : ['thunderbolt-3', 'usb4-40', 'thunderbolt-4'],
    };
    const gen = genOf(up.parent.device.cap?.gts);
    const lanes = own.lanes;
    const connector = known === 'thunderbolt-1' || known === 'thunderbolt-2' ? 'mini-dp' : 'usb-c';
    const tunnelling = connector === 'usb-c' ? 'yes' : null;
    return [{ connector, standard, tunnelling, controller: 'separate', pcieGen: gen, lanes }];
  });
}

/** Lanes and generation that a root port could do at most. */
function capOf(port: Node, most: number): Pick<Draft, 'pcieGen' | 'lanes'> {
  const cap = port.device.cap;
  return {
    pcieGen: genOf(cap?.gts),
    lanes: cap && cap.lanes > 0 ? Math.min(most, cap.lanes) : null,
  };
}

/** A card straight on a root port: the system does not see by which plug. More than four lanes only the wide one has. */
function directPorts(nodes: readonly Node[]): Draft[] {
  const above = (n: Node): Node | null =>
    n.parent?.device.port === 'root' ? n.parent : n.parent ? above(n.parent) : null;
  const roots = nodes.flatMap((n) => {
    const root = isDisplay(n.device) ? above(n) : null;
    const below =
      root && n.parent === root ? n : root?.children.find((c) => c.device.port === 'upstream');
    return root && below && spanAbove(below)?.kind === 'real' && !isSwitchOfPorts(below)
      ? [root]
      : [];
  });
  return [...new Set(roots)].map((r) => {
    const wide = (r.device.cap?.lanes ?? 0) > 4;
    const connector = wide ? ('oculink-8i' as const) : ('oculink-4i' as const);
    return {
      connector,
      standard: 'oculink',
      tunnelling: null,
      controller: null,
      ...capOf(r, wide ? 8 : 4),
    };
  });
}

/** A switch with ports of its own to plug into is a controller, not a card. */
function isSwitchOfPorts(n: Node): boolean {
  return n.children.some((c) => c.device.hotplug === true);
}

/** A drive straight on a root port: most sit in a slot that a card could have instead. */
function driveSlots(nodes: readonly Node[]): Draft[] {
  return nodes.flatMap((n): Draft[] =>
    n.device.classCode === DRIVE && n.parent?.device.port === 'root'
      ? [
          {
            connector: 'm2',
            standard: 'pcie',
            tunnelling: null,
            controller: null,
            ...capOf(n.parent, 4),
            holds: { oneOf: ['system-drive', 'drive'] },
          },
        ]
      : [],
  );
}

/** USB-C plugs that no USB4 port claims carry no tunnel, where the system says which plug each USB4 port has. */
function plainPlugs(report: Report, separatePorts: number): Draft[] {
  const claimed = report.ports.flatMap((p) => (p.plug === null ? [] : [p.plug]));
  if (claimed.length === 0 && report.ports.length > 0) return [];
  const rest = report.plugs.filter((p) => !claimed.includes(p.index)).slice(separatePorts);
  const blank = { connector: 'usb-c', controller: null, pcieGen: null, lanes: null } as const;
  return rest.map(() => ({ ...blank, standard: 'usb-c', tunnelling: 'no' }));
}

/** Kinds of host by the type of their case. Source: DMTF System Management BIOS, table of enclosure types, from memory. */
const FORMS: readonly (readonly [HostSpec['form'], readonly number[]])[] = [
  ['laptop', [8, 9, 10, 14, 31, 32]],
  ['handheld', [11, 30]],
  ['mini-pc', [35, 36]],
  ['desktop', [3, 4, 5, 6, 7, 13, 15, 16, 24]],
];

/**
 * First description of a host from its report: one port for each that is seen, with what bus and link lists tell. Marks
 * and most plugs are on neither; without rights a bus listing does not show ports, the report of a probe does.
 *
 * @param report a parsed report
 * @returns attributes of a host that the report settles, and what it cannot tell
 */
export function hostDraft(report: Report): HostDraft {
  const nodes = deviceTree(report.devices);
  const inside = builtIn(report, nodes);
  const outside = separate(report, nodes);
  const straight = directPorts(nodes);
  const drives = driveSlots(nodes);
  const usbC = outside.filter((s) => s.connector === 'usb-c').length;
  const plain =
    report.domains.length > 0 || report.ports.length > 0 ? plainPlugs(report, usbC) : [];
  const seen = [...inside, ...outside, ...plain, ...straight, ...drives];
  const denied = report.missing.some((m) => m.includes('read without rights'));
  const blank: Draft = {
    connector: 'usb-c',
    standard: null,
    tunnelling: null,
    controller: null,
    pcieGen: null,
    lanes: null,
  };
  const usb4 = report.devices.some(
    (d) => d.classCode === '0c03' && /USB4/i.test(`${d.what} ${d.name}`),
  );
  const ports = [...inside, ...outside, ...straight];
  const guess =
    ports.length > 0
      ? seen
      : [{ ...blank, controller: usb4 ? ('built-in' as const) : null }, ...seen];
  const m = report.machine;
  const unsaid: Unsaid[] = [
    ...(m ? [] : (['names'] as const)),
    ...(ports.length === 0 ? ['ports' as const] : []),
    ...(straight.length > 0 || drives.length > 0 ? ['plugs' as const] : []),
    ...(guess.some((s) => typeof s.standard !== 'string') ? ['standards' as const] : []),
    ...(inside.length > 0 ? ['inner-width' as const] : []),
    ...(denied ? ['rights' as const] : []),
  ];
  const sockets = guess.slice(0, 32).map((s, i) => socket(`port-${i + 1}`, s));
  const form =
    FORMS.find(([, types]) => m?.chassis !== null && types.includes(m?.chassis ?? 0))?.[0] ??
    'laptop';
  return {
    spec: {
      maker: m?.maker ?? '',
      model: m?.model ?? '',
      variant: m?.variant ?? '',
      form,
      sockets,
    },
    unsaid,
  };
}
