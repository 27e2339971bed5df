import { partName } from '@ruddy/core/chain';
import { word } from '../parts';
import {
  forbidden,
  routerUp,
  securityOf,
  currentTopology,
  type SimulatedBench,
} from '../simulated-bench';
import { link, value, type Entry } from './entry';
import { portsOf } from './host';
import { MAKER, type Placed } from './node';

const hex = (n: number) => `0x${n.toString(16)}`;
/** Private, so that a test can see it go. */
const UNIQUE = '8f3c2a10-00aa-4b6c-ffff-ffffffffffff';

/** Number of a port in names and routes: lane adapters 1 and 3 of a router. */
const ADAPTER = [1, 3] as const;

/** Generation of a host's own router: 1 to 3 are older Thunderbolt, 4 is USB4 and everything later. */
function hostGeneration(standard: string): number {
  const older = /^thunderbolt-([123])$/.exec(standard)?.[1];
  return older ? Number(older) : 4;
}

interface Attached {
  dir: string;
  name: string;
}

/** The dock's router below the port it is plugged into. */
function dockRouter(w: SimulatedBench, at: Attached): Entry[] {
  const k = currentTopology(w);
  const dock = w.chain.dock;
  if (!k?.router || !dock) return [];
  const dir = `${at.dir}/${at.name}`;
  const f = (name: string, v: string | number) => value(`${dir}/${name}`, v);
  const speed = `${(k.router.laneGbps ?? 0).toFixed(1)} Gb/s`;
  const let_in = !forbidden(w) && w.stage !== 'router' && w.stage !== 'awaiting';
  const secure = w.security === 'secure';
  return [
    f('authorized', let_in ? (secure ? 2 : 1) : 0),
    f('boot', 0),
    ...(secure ? [f('key', '')] : []),
    f('generation', k.router.generation),
    f('vendor', hex(MAKER.dock)),
    f('vendor_name', dock.maker),
    f('device', '0x1'),
    f('device_name', partName({ ...dock, maker: '' })),
    f('unique_id', UNIQUE),
    f('nvm_version', w.chain.installed.dockFirmware || '38.0'),
    f('nvm_authenticate', '0x0'),
    f('rx_speed', speed),
    f('tx_speed', speed),
    f('rx_lanes', k.router.lanes ?? 1),
    f('tx_lanes', k.router.lanes ?? 1),
    link(`sys/bus/thunderbolt/devices/${at.name}`, dir),
  ];
}

type Socket = NonNullable<SimulatedBench['chain']['host']>['sockets'][number];

/** Where a host's router stands: its directory and the number of its domain. */
interface HostRouter {
  dir: string;
  domain: number;
  usb4: boolean;
}

/** A port that older controllers do not list: what is attached, the plug it belongs to, and its retimer. */
function usb4Port(w: SimulatedBench, h: HostRouter, s: Socket, number: number): Entry[] {
  const attached = s.key === w.plugged && routerUp(w);
  const own = `${h.dir}/usb4_port${number}`;
  const plugs = (w.chain.host?.sockets ?? []).filter((x) => x.connector === 'usb-c');
  const typec = plugs.indexOf(s);
  const older = (currentTopology(w)?.router?.generation ?? 4) < 4;
  const retimer = `${h.domain}-0:${number}.1`;
  const at = `${h.dir}/${retimer}`;
  return [
    value(`${own}/link`, attached ? (older ? 'tbt' : 'usb4') : 'none'),
    ...(typec < 0 ? [] : [link(`${own}/connector`, `sys/class/typec/port${typec}`)]),
    ...(attached
      ? [
          value(`${at}/vendor`, hex(MAKER.host)),
          value(`${at}/device`, '0x9'),
          value(`${at}/nvm_version`, '4.0'),
          link(`sys/bus/thunderbolt/devices/${retimer}`, at),
        ]
      : []),
  ];
}

/** The domain of a host interface and the host's own router in it. */
function hostRouter(w: SimulatedBench, h: HostRouter, domain: string, generation: number): Entry[] {
  const f = (name: string, v: string | number) => value(`${h.dir}/${name}`, v);
  return [
    value(`${domain}/security`, securityOf(w)),
    value(`${domain}/boot_acl`, ''),
    value(`${domain}/deauthorization`, h.usb4 ? 1 : 0),
    value(`${domain}/iommu_dma_protection`, h.usb4 ? 1 : 0),
    value(`${domain}/uevent`, 'DEVTYPE=thunderbolt_domain'),
    link(`sys/bus/thunderbolt/devices/domain${h.domain}`, domain),
    f('authorized', 1),
    f('generation', generation),
    f('vendor', hex(MAKER.host)),
    f('vendor_name', w.chain.host?.maker ?? ''),
    f('device', '0x2'),
    f('device_name', w.chain.host?.model ?? ''),
    f('unique_id', UNIQUE),
    f('nvm_version', w.chain.installed.linkFirmware || '29.0'),
    f('nvm_authenticate', '0x0'),
    link(`sys/bus/thunderbolt/devices/${h.domain}-0`, h.dir),
  ];
}

function domainEntries(
  w: SimulatedBench,
  sockets: readonly Socket[],
  nhi: Placed,
  n: number,
): Entry[] {
  const domain = `${nhi.dir}/domain${n}`;
  const first = sockets[0];
  const usual = first?.connector === 'mini-dp' ? 'thunderbolt-2' : 'usb4-40';
  const generation = hostGeneration(word(first?.standard, usual));
  const host = { dir: `${domain}/${n}-0`, domain: n, usb4: generation >= 4 };
  return [
    ...hostRouter(w, host, domain, generation),
    ...sockets.flatMap((s, i): Entry[] => {
      const number = ADAPTER[i] ?? 1;
      const attached = s.key === w.plugged && routerUp(w);
      return [
        ...(host.usb4 ? usb4Port(w, host, s, number) : []),
        ...(attached ? dockRouter(w, { dir: host.dir, name: `${n}-${number}` }) : []),
      ];
    }),
  ];
}

/**
 * The link's own list: a domain below each host interface, the host's router, its ports, and what is attached. Older controllers have
 * no USB4 ports in it. Source: Linux kernel ABI, sysfs-bus-thunderbolt, from memory.
 */
export function thunderboltEntries(w: SimulatedBench, placed: readonly Placed[]): Entry[] {
  const interfaces = placed.filter(
    (p) => p.device.classCode === 0x0c0340 || p.device.classCode === 0x088000,
  );
  const ports = portsOf(w);
  const pairs = Array.from({ length: Math.ceil(ports.builtIn.length / 2) }, (_, i) =>
    ports.builtIn.slice(2 * i, 2 * i + 2),
  );
  // Addresses put a built-in interface before one behind a chip, as groups are here.
  return [...pairs, ...ports.chips].flatMap((sockets, n): Entry[] => {
    const nhi = interfaces[n];
    return nhi ? domainEntries(w, sockets, nhi, n) : [];
  });
}
