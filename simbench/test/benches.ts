import { execFileSync, type ExecFileSyncOptionsWithStringEncoding } from 'node:child_process';
import { existsSync, mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { Act, TimedAct } from '@ruddy/core/bench';
import { readLspci, readReport, type Report, reportSchema } from '@ruddy/core/bring-up';
import type { Chain } from '@ruddy/core/chain';
import type { CableSpec, CardSpec, DockSpec, SocketSpec } from '@ruddy/core/parts';
import { adapter, cable, card, chain, dock, path } from '../../core/test/make';
import { probe } from '../../probe/probe.mjs';
import {
  benchTree,
  simulate,
  treeFiles,
  writeTree,
  type BenchDef,
  type BenchRun,
  type Entry,
} from '../src';

const IDS = join(import.meta.dirname, '..', 'pci.ids');
/** A folder in memory, where the machine has one: a tree has some hundred files. */
const MEMORY = '/dev/shm';
export const PROBE = join(import.meta.dirname, '..', '..', 'probe', 'probe.mjs');
const tb3 = {
  standard: 'thunderbolt-3',
  tunnelling: null,
  controller: 'separate',
  pcieGen: 3,
  lanes: 4,
} as const;
const mini = { connector: 'mini-dp' } as const;
const old = (n: 1 | 2) =>
  ({
    ...mini,
    standard: `thunderbolt-${n}`,
    tunnelling: null,
    controller: 'separate',
    pcieGen: 2,
    lanes: 4,
  }) as const;
const C = { controllerClass: 'c' } as const;
const direct = { tunnelling: null, controller: null } as const;

function through(
  s: Partial<SocketSpec>,
  d: Partial<DockSpec>,
  c: Partial<CableSpec> = {},
  k: Partial<CardSpec> = {},
): Chain {
  const usual = { lengthMm: 500, ...c };
  return chain({ socket: s, path: path(cable(usual)), dock: dock({ ...C, ...d }), card: card(k) });
}

/** A chain of every kind of path, all of it known, short cables, nothing to complain of. */
export const CHAINS: Readonly<Record<string, Chain>> = {
  'thunderbolt 1': through(old(1), { ...mini, uplink: 'thunderbolt-1', slotGen: 2 }, mini),
  'thunderbolt 2': through(old(2), { ...mini, uplink: 'thunderbolt-2', slotGen: 2 }, mini),
  'thunderbolt 3, four lanes': through(tb3, { uplink: 'thunderbolt-3' }),
  'thunderbolt 3, two lanes': through({ ...tb3, lanes: 2 }, { uplink: 'thunderbolt-3' }),
  'thunderbolt 3, class a': through(tb3, { uplink: 'thunderbolt-3', controllerClass: 'a' }),
  'usb4 20': through({ standard: 'usb4-20' }, { uplink: 'usb4-20' }, { markedGbps: 20 }),
  'usb4 40': through({}, {}),
  'usb4 40 behind gen4': through({}, { slotGen: 4, controllerClass: 'd' }),
  'thunderbolt 4': through(
    { standard: 'thunderbolt-4', tunnelling: null },
    { uplink: 'thunderbolt-4' },
  ),
  'usb4 80': through(
    { standard: 'usb4-80' },
    { uplink: 'usb4-80', slotGen: 4, controllerClass: 'd' },
    { markedGbps: 80 },
  ),
  'thunderbolt 5': through(
    { standard: 'thunderbolt-5', tunnelling: null },
    { uplink: 'thunderbolt-5', slotGen: 4, controllerClass: 'd' },
    { markedGbps: 80 },
  ),
  'card with a whole switch': through({}, {}, {}, { innerSwitch: 'full' }),
  'card with a one-lane switch': through({}, {}, {}, { innerSwitch: 'one-lane' }),
  'oculink 4i': through(
    { ...direct, connector: 'oculink-4i', standard: 'oculink' },
    {
      connector: 'oculink-4i',
      uplink: 'oculink',
      slotGen: 4,
      slotLanes: 16,
      controllerClass: null,
    },
    { connector: 'oculink-4i', pcieGen: 4, construction: 'passive' },
  ),
  'oculink 8i': through(
    { ...direct, connector: 'oculink-8i', standard: 'oculink', lanes: 8 },
    {
      connector: 'oculink-8i',
      uplink: 'oculink',
      slotGen: 4,
      slotLanes: 16,
      controllerClass: null,
    },
    { connector: 'oculink-8i', pcieGen: 4 },
  ),
  "maker's own port": through(
    { ...direct, connector: 'own-port', standard: 'pcie', family: 'Fen', lanes: 8 },
    {
      connector: 'own-port',
      uplink: 'pcie',
      family: 'Fen',
      slotGen: 4,
      slotLanes: 16,
      controllerClass: null,
    },
    { connector: 'own-port', pcieGen: 4, family: 'Fen' },
  ),
  'm.2 to oculink': chain({
    socket: { ...direct, connector: 'm2', standard: 'pcie', holds: 'nothing' },
    path: path(adapter(), cable({ connector: 'oculink-4i', pcieGen: 4, lengthMm: 400 })),
    dock: dock({ connector: 'oculink-4i', uplink: 'oculink', slotGen: 4, slotLanes: 16 }),
  }),
  'm.2 to slot': chain({
    socket: { ...direct, connector: 'm2', standard: 'pcie', holds: 'nothing' },
    path: path(adapter({ farEnd: 'pcie-slot', pcieGen: 3 })),
  }),
  'mini card to slot': chain({
    socket: {
      ...direct,
      connector: 'mini-card',
      standard: 'pcie',
      pcieGen: 2,
      lanes: 1,
      holds: 'nothing',
    },
    path: path(adapter({ hostEnd: 'mini-card', farEnd: 'pcie-slot', pcieGen: 2, lanes: 1 })),
  }),
  expresscard: chain({
    socket: {
      ...direct,
      connector: 'expresscard',
      standard: 'pcie',
      pcieGen: 2,
      lanes: 1,
      holds: 'nothing',
    },
    path: path(adapter({ hostEnd: 'expresscard', farEnd: 'pcie-slot', pcieGen: 2, lanes: 1 })),
  }),
};

export const ALL_OFF: readonly Act[] = [
  { act: 'plug', socket: 'left' },
  { act: 'mains', on: true },
  { act: 'dock', on: true },
  { act: 'host', to: 'on' },
];

/** One act a second, then the rest of the time. */
export function timed(acts: readonly Act[], from = 0): TimedAct[] {
  return acts.map((act, i) => ({ ms: from + 1000 * (i + 1), act }));
}

/** Do the acts of an order, wait for the host, approve for good, and wait for what comes up. */
export function broughtUp(
  def: BenchDef,
  more: readonly Act[] = [],
  order: readonly Act[] = ALL_OFF,
  wait = 60_000,
): BenchRun {
  const first = timed(order);
  const then = timed([{ act: 'approve', how: 'always' }, ...more], 40_000);
  return simulate(def, [...first, ...then], 40_000 + wait);
}

/** The tree of a bench in a folder of its own; without rights only 64 bytes of configuration space can be read. */
export function withTree<T>(run: BenchRun, use: (dir: string) => T, rights = true): T {
  const tree = benchTree(run);
  if (!tree) throw new Error('no system runs there');
  const dir = mkdtempSync(join(existsSync(MEMORY) ? MEMORY : tmpdir(), 'bench-'));
  const cut = (e: Entry): Entry =>
    e.kind === 'file' && typeof e.data !== 'string'
      ? { ...e, data: e.data.subarray(0, rights ? 4096 : 64) }
      : e;
  try {
    writeTree(dir, tree.map(cut));
    return use(dir);
  } finally {
    rmSync(dir, { recursive: true, force: true });
  }
}

const QUIET: ExecFileSyncOptionsWithStringEncoding = {
  encoding: 'utf8',
  stdio: ['ignore', 'pipe', 'ignore'],
};

/** What Debian's lspci prints of a bench. */
export function lspci(run: BenchRun, args: readonly string[], rights = true): string {
  const at = (dir: string) => [
    '-i',
    IDS,
    '-O',
    `sysfs.path=${join(dir, 'sys/bus/pci')}`,
    '-A',
    'linux-sysfs',
    ...args,
  ];
  return withTree(
    run,
    (dir) => execFileSync('lspci', at(dir), { ...QUIET, maxBuffer: 1e8 }),
    rights,
  );
}

/** What the probe reports of a bench, called from here. */
export function readByProbe(run: BenchRun): Report {
  const tree = benchTree(run);
  if (!tree) throw new Error('no system runs there');
  return reportSchema.parse(probe('/', treeFiles(tree)));
}

/** What the probe reports of a bench, as a program of its own. */
export function probed(run: BenchRun, rights = true): Report {
  const text = withTree(
    run,
    (dir) => execFileSync(process.execPath, [PROBE, '--root', dir], QUIET),
    rights,
  );
  const r = readReport(text);
  if (!r.ok) throw new Error(JSON.stringify(r.problem));
  return r.report;
}

export function reportOf(text: string): Report {
  const r = readLspci(text);
  if (!r.ok) throw new Error(JSON.stringify(r.problem));
  return r.report;
}
