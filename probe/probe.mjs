#!/usr/bin/env node
// Prints what this Linux machine shows of its PCI bus, its Thunderbolt and USB4 links, its USB-C plugs, its power and its screens as one
// JSON report, "ruddy-bridge/report". It needs nothing but Node, writes nothing and sends nothing; serial numbers, unique ids, MAC
// addresses, host and user names are never read. As root it reads a little more. DIR is where "sys" and "proc" lie, "/" without it:
//   node probe.mjs [--root DIR] > report.json
import * as node from 'node:fs';
import { basename, dirname, join } from 'node:path';

/** Where files are read; a stand-in may give others. Reading is done in one go, so that nothing comes between. */
let fs = node;

const ADDRESS = /^[0-9a-f]{4,8}:[0-9a-f]{2}:[0-9a-f]{2}\.[0-7]$/;
const PORTS = [
  'endpoint',
  'endpoint',
  null,
  null,
  'root',
  'upstream',
  'downstream',
  'bridge',
  'bridge',
  'endpoint',
];
const UNTOLD = {
  port: null,
  topGts: null,
  hotplug: null,
  active: null,
  present: null,
  window: null,
};
const SECURITY = ['none', 'user', 'secure', 'dponly', 'usbonly', 'nopcie'];
const GTS = [null, 2.5, 5, 8, 16, 32, 64];
const CLASSES = {
  '0300': 'VGA compatible controller',
  '0302': '3D controller',
  '0380': 'Display controller',
  '0604': 'PCI bridge',
};

/** What a reading gives, or something else when the file is not there or may not be read. */
function attempt(reading, otherwise) {
  try {
    return reading();
  } catch {
    return otherwise;
  }
}

/** A file's text without its line end; null without one. */
const text = (path) => attempt(() => fs.readFileSync(path, 'utf8').replace(/\0/g, '').trim(), null);
const list = (path) => attempt(() => fs.readdirSync(path).sort(), []);
const linked = (path) => attempt(() => basename(fs.readlinkSync(path)), null);
const real = (path) => attempt(() => fs.realpathSync(path), path);
const version = (dir) => text(join(dir, 'nvm_version'))?.slice(0, 60) ?? null;
const number = (path) => {
  const value = Number.parseInt(text(path) ?? '', 10);
  return Number.isNaN(value) ? null : value;
};

/** As much of configuration space as may be read. */
function bytes(path) {
  const buffer = Buffer.alloc(4096);
  const handle = attempt(() => fs.openSync(path, 'r'), null);
  const count = handle === null ? 0 : attempt(() => fs.readSync(handle, buffer, 0, 4096, 0), 0);
  if (handle !== null) fs.closeSync(handle);
  return buffer.subarray(0, count);
}

/** "8.0 GT/s PCIe" as 8; "Unknown" as null. */
const rate = (words) => Number(/([\d.]+)\s*GT\/s/.exec(words ?? '')?.[1] ?? 0) || null;

/** Where a capability of the first 256 bytes begins. */
function capability(c, id) {
  let at = c.length >= 64 && c.readUInt16LE(6) & 0x10 ? c[0x34] & 0xfc : 0;
  for (let steps = 0; at >= 0x40 && at + 2 <= c.length && steps < 48; steps++) {
    if (c[at] === id) return at;
    at = c[at + 1] & 0xfc;
  }
  return null;
}

/** Where the resizable window begins among the capabilities beyond them. */
function windowAt(c) {
  for (let at = 0x100, steps = 0; at >= 0x100 && at + 12 <= c.length && steps < 96; steps++) {
    const head = c.readUInt32LE(at);
    if (head === 0 || head === 0xffffffff) return null;
    if ((head & 0xffff) === 0x0015) return at;
    at = (head >>> 20) & 0xffc;
  }
  return null;
}

/** What only configuration space tells: kind of port, hot-plug, the list of rates, the memory window. */
function fromConfig(d, c) {
  const at = capability(c, 0x10);
  if (at !== null && at + 0x30 <= c.length) {
    const flags = c.readUInt16LE(at + 2);
    d.port = PORTS[(flags >> 4) & 0xf] ?? null;
    const faces = d.port === 'root' || d.port === 'downstream';
    if (faces && flags & 0x100) {
      d.hotplug = (c[at + 0x14] & 0x40) !== 0;
      d.present = (c[at + 0x1a] & 0x40) !== 0;
    }
    if ((c.readUInt32LE(at + 0x0c) >>> 20) & 1)
      d.active = ((c.readUInt16LE(at + 0x12) >> 13) & 1) === 1;
    const rates = (c.readUInt32LE(at + 0x2c) >>> 1) & 0x7f;
    if (rates) d.topGts = GTS[32 - Math.clz32(rates)] ?? null;
  }
  const window = windowAt(c);
  if (window !== null) {
    const sizes = c.readUInt32LE(window + 4) >>> 4;
    if (sizes)
      d.window = {
        nowMB: 2 ** ((c.readUInt32LE(window + 8) >>> 8) & 0x3f),
        mostMB: 2 ** (31 - Math.clz32(sizes)),
      };
  }
}

/** A window without rights: sizes from the list the kernel offers, and what the region has now. */
function windowOf(dir, regions) {
  for (let i = 0; i < 6; i++) {
    const sizes = text(join(dir, `resource${i}_resize`));
    if (sizes === null || !/^[0-9a-f]+$/.test(sizes)) continue;
    const most = BigInt(`0x${sizes}`).toString(2).length - 1;
    const region = regions[i];
    if (region && region.size > 0n && most >= 0)
      return { nowMB: Number(region.size / 1048576n), mostMB: 2 ** most };
  }
  return null;
}

function regionsOf(dir) {
  return (text(join(dir, 'resource')) ?? '').split('\n').map((line) => {
    const [start = 0n, end = 0n, flags = 0n] = line
      .split(/\s+/)
      .map((w) => (/^0x[0-9a-f]+$/.test(w) ? BigInt(w) : 0n));
    const memory = (flags & 0x200n) !== 0n;
    return { memory, size: memory && start ? end - start + 1n : 0n };
  });
}

/** "TOTAL_ERR_COR 12" of one of the kernel's tables of errors. */
function total(path) {
  const found = /TOTAL_ERR_\w+\s+(\d+)/.exec(text(path) ?? '')?.[1];
  return found === undefined ? null : Number(found);
}

function device(sys, address) {
  const dir = real(join(sys, 'bus/pci/devices', address));
  const cls = /^0x([0-9a-f]{6})$/.exec(text(join(dir, 'class')) ?? '')?.[1] ?? '';
  const up = basename(dirname(dir));
  const id = (name) =>
    /^0x([0-9a-f]{4})$/.exec((text(join(dir, name)) ?? '').toLowerCase())?.[1] ?? null;
  const c = bytes(join(dir, 'config'));
  const buses = ['secondary', 'subordinate'].map((end) => number(join(dir, `${end}_bus_number`)));
  const [cap, now] = ['max', 'current'].map((when) => {
    const lanes = number(join(dir, `${when}_link_width`));
    return lanes === null
      ? null
      : { gts: rate(text(join(dir, `${when}_link_speed`))), lanes: lanes > 32 ? 0 : lanes };
  });
  const regions = regionsOf(dir);
  const wanted = regions.filter((r) => r.memory);
  const counts = ['correctable', 'nonfatal', 'fatal'].map((kind) =>
    total(join(dir, `aer_dev_${kind}`)),
  );
  const driver = linked(join(dir, 'driver'));
  const d = {
    ...UNTOLD,
    address,
    parent: ADDRESS.test(up) ? up : null,
    classCode: cls.slice(0, 4) || null,
    what: cls === '0c0340' ? 'USB4 host' : (CLASSES[cls.slice(0, 4)] ?? ''),
    vendor: id('vendor'),
    device: id('device'),
    bus: buses.includes(null) ? null : { secondary: buses[0], subordinate: buses[1] },
    cap,
    now,
    driver,
    driverVersion:
      driver === null ? null : (text(join(sys, 'module', driver, 'version'))?.slice(0, 60) ?? null),
    assigned: wanted.length === 0 ? null : wanted.every((r) => r.size > 0n),
    asleep: /^D3/.test(text(join(dir, 'power_state')) ?? ''),
    errors: counts.includes(null)
      ? null
      : { corrected: counts[0], nonfatal: counts[1], fatal: counts[2] },
    corrected: [
      ...(text(join(dir, 'aer_dev_correctable')) ?? '').matchAll(/^(?!TOTAL)(\w{1,24}) [1-9]/gm),
    ].map((m) => m[1]),
    state: c.length >= 4 && c.readUInt32LE(0) === 0xffffffff ? 'gone' : 'ok',
  };
  if (d.state === 'ok') fromConfig(d, c);
  d.window ??= windowOf(dir, regions);
  return { d, whole: c.length > 64 || cap === null };
}

/** Without rights a port's kind is told by where it stands: bridges alternate from the root down. */
function guessPorts(devices) {
  const by = new Map(devices.map((d) => [d.address, d]));
  for (const d of devices) {
    if (d.port !== null || d.cap === null) continue;
    const bridge = !by.has(d.parent)
      ? 'root'
      : by.get(d.parent).port === 'upstream'
        ? 'downstream'
        : 'upstream';
    d.port = d.classCode === '0604' ? bridge : 'endpoint';
  }
}

/** Routers, domains and USB4 ports of the link's own list. */
function links(sys) {
  const base = join(sys, 'bus/thunderbolt/devices');
  const found = { routers: [], domains: [], ports: [], security: null };
  for (const name of list(base)) {
    const dir = real(join(base, name));
    const f = (file) => join(dir, file);
    const domain = /^domain(\d+)$/.exec(name);
    if (domain) {
      const up = basename(dirname(dir));
      const own = join(dir, `${domain[1]}-0`);
      found.security ??= SECURITY.find((level) => level === text(f('security'))) ?? null;
      found.domains.push({
        id: Number(domain[1]),
        controller: ADDRESS.test(up) ? up : null,
        generation: number(join(own, 'generation')),
        nvm: version(own),
      });
    } else if (/^[0-9a-f]+-[0-9a-f]+$/.test(name)) {
      const speed = (file) => Number.parseFloat(text(f(file)) ?? '') || null;
      found.routers.push({
        route: name,
        generation: number(f('generation')),
        rxGbps: speed('rx_speed'),
        txGbps: speed('tx_speed'),
        rxLanes: number(f('rx_lanes')),
        txLanes: number(f('tx_lanes')),
        authorized: number(f('authorized')),
        nvm: version(dir),
        name: [text(f('vendor_name')), text(f('device_name'))]
          .filter(Boolean)
          .join(' ')
          .slice(0, 120),
      });
      for (const port of list(dir).filter((p) => /^usb4_port\d+$/.test(p))) {
        const plug = /^port(\d+)$/.exec(linked(join(dir, port, 'connector')) ?? '');
        found.ports.push({
          domain: Number.parseInt(name, 16),
          port: Number(port.slice(9)),
          link: /^(none|usb4|tbt|xdomain)$/.exec(text(join(dir, port, 'link')) ?? '')?.[0] ?? null,
          plug: plug ? Number(plug[1]) : null,
        });
      }
    }
  }
  return found;
}

function plugs(sys) {
  const base = join(sys, 'class/typec');
  const names = list(base);
  return names.flatMap((name) => {
    const port = /^port(\d+)$/.exec(name);
    if (!port) return [];
    const cable =
      ['active', 'passive'].find((kind) => kind === text(join(base, `${name}-cable/type`))) ?? null;
    return [{ index: Number(port[1]), partner: names.includes(`${name}-partner`), cable }];
  });
}

function machine(sys) {
  const f = (name) => (text(join(sys, 'class/dmi/id', name)) ?? '').slice(0, 60);
  const said = {
    maker: f('sys_vendor'),
    model: f('product_name'),
    variant: f('product_version'),
    firmware: f('bios_version'),
  };
  return said.maker + said.model === ''
    ? null
    : { ...said, chassis: number(join(sys, 'class/dmi/id/chassis_type')) };
}

function power(sys) {
  const base = join(sys, 'class/power_supply');
  const of = (kind) => list(base).filter((name) => text(join(base, name, 'type')) === kind);
  const mains = of('Mains').map((name) => text(join(base, name, 'online')) === '1');
  const battery = of('Battery').find((name) => text(join(base, name, 'scope')) !== 'Device');
  if (mains.length === 0 && !battery) return null;
  const state = battery ? (text(join(base, battery, 'status')) ?? '').slice(0, 40) : '';
  const percent = battery ? number(join(base, battery, 'capacity')) : null;
  return { mains: mains.length === 0 ? null : mains.some(Boolean), percent, state };
}

function screens(sys) {
  const base = join(sys, 'class/drm');
  return list(base).flatMap((name) => {
    const status = /^card\d+-/.test(name) ? text(join(base, name, 'status')) : null;
    if (status === null) return [];
    const mode = (text(join(base, name, 'modes')) ?? '').split('\n')[0].slice(0, 40);
    return [{ name: name.slice(0, 60), connected: status === 'connected', mode }];
  });
}

/** Read the machine whose "sys" and "proc" lie below `root`. Never throws: what cannot be read is named in `missing`. */
export function probe(root = '/', files = node) {
  fs = files;
  const sys = join(root, 'sys');
  const addresses = list(join(sys, 'bus/pci/devices')).filter((a) => ADDRESS.test(a));
  const read = addresses.map((a) => device(sys, a));
  const devices = read.map((r) => r.d);
  guessPorts(devices);
  const link = links(sys);
  const found = {
    ...link,
    plugs: plugs(sys),
    machine: machine(sys),
    power: power(sys),
    screens: screens(sys),
  };
  const short = read.filter((r) => !r.whole).length;
  const missing = [
    ...(addresses.length === 0 ? ['PCI devices: nothing below sys/bus/pci/devices'] : []),
    ...(short > 0
      ? [`Hot-plug and top rates of ${short} of ${devices.length} devices: read without rights`]
      : []),
    ...(found.domains.length === 0
      ? ['Routers: this system lists no Thunderbolt or USB4 domain']
      : []),
    ...(found.plugs.length === 0 ? ['USB-C plugs: this system lists none'] : []),
    ...(found.machine === null ? ['Maker and model: the machine does not say'] : []),
  ];
  const kernel = text(join(root, 'proc/sys/kernel/osrelease'))?.slice(0, 120) ?? null;
  return {
    format: 'ruddy-bridge/report',
    version: 1,
    source: 'probe',
    devices,
    ...found,
    kernel,
    missing,
  };
}

function main(args) {
  const at = args.indexOf('--root');
  if (
    args.includes('--help') ||
    (at >= 0 && args[at + 1] === undefined) ||
    args.some((a) => a.startsWith('-') && a !== '--root')
  ) {
    process.stderr.write('usage: node probe.mjs [--root DIR] > report.json\n');
    process.exitCode = args.includes('--help') ? 0 : 2;
    return;
  }
  const report = probe(at < 0 ? '/' : args[at + 1]);
  process.stdout.write(`${JSON.stringify(report, null, 1)}\n`);
  for (const what of report.missing) process.stderr.write(`not read: ${what}\n`);
}

// Called by its own name, not from within another program.
if (basename(process.argv[1] ?? '') === 'probe.mjs') main(process.argv.slice(2));
