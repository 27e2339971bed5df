import { execFileSync, spawnSync } from 'node:child_process';
import { mkdirSync, mkdtempSync, rmSync, symlinkSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import {
  hostDraft,
  linkCheck,
  measure,
  readingSchema,
  readReport,
  reportSchema,
} from '@ruddy/core/bring-up';
import type { Chain } from '@ruddy/core/chain';
import { type HostSpec, type SocketSpec, wordsOf } from '@ruddy/core/parts';
import { judge, socket } from '../../core/test/make';
import { broughtUp, CHAINS, lspci, probed, PROBE, reportOf, withTree } from './benches';

const LOAD = [{ act: 'load', on: true }] as const;

/** The host of a chain, as another kind of machine and with ports beside the one in use. */
function richer(name: string, form: HostSpec['form'], ...more: Partial<SocketSpec>[]): Chain {
  const chain = CHAINS[name]!;
  const host = chain.host as HostSpec;
  const sockets = [...host.sockets, ...more.map((s, i) => socket({ key: `more-${i}`, ...s }))];
  return {
    ...chain,
    host: { ...host, form, maker: 'Harnsey', model: 'B-7', variant: 'late', sockets },
  };
}
const plain = {
  standard: 'usb-c',
  tunnelling: 'no',
  controller: null,
  pcieGen: null,
  lanes: null,
} as const;
const drive = {
  connector: 'm2',
  standard: 'pcie',
  tunnelling: null,
  controller: null,
  holds: 'system-drive',
} as const;

const TOPOLOGIES: readonly (readonly [string, Chain])[] = [
  ['Thunderbolt 1, separate', richer('thunderbolt 1', 'laptop')],
  ['Thunderbolt 2, separate', richer('thunderbolt 2', 'desktop')],
  [
    'Thunderbolt 3, separate, four lanes, two ports',
    richer(
      'thunderbolt 3, four lanes',
      'laptop',
      CHAINS['thunderbolt 3, four lanes']!.host!.sockets[0]!,
    ),
  ],
  [
    'Thunderbolt 3, separate, two lanes, beside a plain USB-C',
    richer('thunderbolt 3, two lanes', 'laptop', plain),
  ],
  ['USB4 20', richer('usb4 20', 'mini-pc')],
  ['USB4 40, two ports and a plain USB-C', richer('usb4 40', 'handheld', {}, plain)],
  ['Thunderbolt 4, a drive in its M.2 slot', richer('thunderbolt 4', 'laptop', drive)],
  ['USB4 80', richer('usb4 80', 'mini-pc', plain)],
  [
    'Thunderbolt 5, three ports',
    richer(
      'thunderbolt 5',
      'laptop',
      { standard: 'thunderbolt-5', tunnelling: null },
      { standard: 'thunderbolt-5', tunnelling: null },
    ),
  ],
  ['a card with a switch of its own', richer('card with a whole switch', 'laptop')],
  ['OCuLink 4i beside USB4', richer('oculink 4i', 'mini-pc', {})],
  ['OCuLink 8i', richer('oculink 8i', 'desktop')],
  ["a maker's own port", richer("maker's own port", 'handheld', plain, {})],
  ['M.2 to OCuLink, a drive in another slot', richer('m.2 to oculink', 'mini-pc', drive)],
];

/** Plugs the bus cannot tell apart: it shows a link from a port of the host, not what it ends in. */
const UNSEEN_PLUG = new Set([
  'oculink-4i',
  'oculink-8i',
  'own-port',
  'm2',
  'mini-card',
  'expresscard',
]);
const words = (s: SocketSpec) => ({
  standard: wordsOf(s.standard),
  tunnelling: s.tunnelling,
  controller: s.controller,
});

describe.each(TOPOLOGIES)('BU-12 bench to probe to host form: %s', (_name, chain) => {
  const host = chain.host as HostSpec;
  const report = probed(broughtUp({ chain, seed: 11 }, LOAD));
  const draft = hostDraft(report);

  it('names and kind are those of the bench', () => {
    const { maker, model, variant, form } = host;
    expect(draft.spec).toMatchObject({ maker, model, variant, form });
    expect(draft.unsaid).not.toContain('names');
  });

  it('every port of the host is in the form once', () => {
    const left = [...draft.spec.sockets];
    expect(left).toHaveLength(host.sockets.length);
    for (const s of host.sockets) {
      const unseen = UNSEEN_PLUG.has(s.connector);
      const at = left.findIndex((d) => {
        if (unseen !== UNSEEN_PLUG.has(d.connector)) return false;
        if (!unseen && d.connector !== s.connector) return false;
        if (s.holds === 'system-drive') return d.connector === 'm2';
        return unseen ? d.connector !== 'm2' : words(d).standard.includes(s.standard as never);
      });
      expect(at, s.key).toBeGreaterThanOrEqual(0);
      const [d] = left.splice(at, 1);
      const seenWidth = unseen || s.controller === 'separate';
      expect([d?.pcieGen, d?.lanes]).toEqual(seenWidth ? [s.pcieGen, s.lanes] : [null, null]);
      if (!unseen)
        expect([d?.controller, d?.tunnelling]).toEqual([
          s.controller,
          s.standard === 'usb-c' ? 'no' : s.connector === 'usb-c' ? 'yes' : null,
        ]);
    }
    expect(left).toEqual([]);
  });

  it('what it could not say is named, and nothing else', () => {
    const open = draft.spec.sockets.some((s) => typeof s.standard !== 'string');
    expect(draft.unsaid.includes('standards')).toBe(open);
    expect(draft.unsaid.includes('inner-width')).toBe(
      draft.spec.sockets.some((s) => s.controller === 'built-in'),
    );
    expect(draft.unsaid.includes('plugs')).toBe(
      host.sockets.some((s) => UNSEEN_PLUG.has(s.connector)),
    );
    const tunnel = host.sockets.some((s) => s.controller !== null);
    const usbC = host.sockets.some((s) => s.connector === 'usb-c');
    expect(report.missing.map((m) => m.split(':')[0])).toEqual([
      ...(tunnel ? [] : ['Routers']),
      ...(usbC ? [] : ['USB-C plugs']),
    ]);
  });
});

describe('BU-12 the probe and lspci read one machine alike', () => {
  it.each(Object.keys(CHAINS))('%s', (name) => {
    const chain = CHAINS[name]!;
    const run = broughtUp({ chain, seed: 5 }, LOAD);
    const { kind } = judge(chain).predicted.link;
    const [a, b] = [probed(run), reportOf(lspci(run, ['-vvnn']))].map((r) => {
      const m = measure(r, { kind });
      const span = (s: typeof m.cardSpan) => s && [s.kind, s.gen, s.lanes, s.upper.address];
      return {
        card: m.card?.address,
        span: span(m.cardSpan),
        host: span(m.hostSpan),
        inside: span(m.inside),
        virtual: m.virtual.length,
        window: m.window,
      };
    });
    expect(a).toEqual(b);
  });
});

describe('BU-12 the probe', () => {
  const run = broughtUp({ chain: CHAINS['usb4 40']!, seed: 2 }, LOAD);

  it('keeps nothing private, and every field is in the open schema', () => {
    const text = withTree(run, (dir) =>
      execFileSync(process.execPath, [PROBE, '--root', dir], { encoding: 'utf8' }),
    );
    expect(text).not.toMatch(/PRIVATE|private-host|8f3c2a10|48-?b0-?2d/i);
    const value = JSON.parse(text) as unknown;
    expect(reportSchema.parse(value)).toMatchObject(value as object);
  });

  it('as a reading it grades the link like any source', () => {
    const chain = CHAINS['usb4 40']!;
    const report = probed(run);
    const check = linkCheck(readingSchema.parse({ load: 'load', report }), chain, judge(chain), {});
    expect([check.overall, check.rows.map((r) => `${r.key} ${r.state}`)]).toEqual([
      'healthy',
      ['router as-expected', 'virtual ignore', 'card as-expected'],
    ]);
    expect(report.devices.find((d) => d.classCode === '0300' && d.vendor === 'e0a4')).toMatchObject(
      {
        assigned: true,
        errors: { corrected: 0 },
      },
    );
  });

  it('without rights it reads rates and says what is missing', () => {
    const r = probed(run, false);
    const whole = probed(run);
    const keep = (x: typeof r) =>
      x.devices.map(({ address, port, cap, now, parent, window }) => ({
        address,
        port,
        cap,
        now,
        parent,
        window,
      }));
    expect(keep(r)).toEqual(keep(whole));
    expect(r.devices.every((d) => d.hotplug === null)).toBe(true);
    expect(r.missing).toEqual(['Hot-plug and top rates of 8 of 11 devices: read without rights']);
    expect(hostDraft(r).spec.sockets).toEqual(hostDraft(whole).spec.sockets);
  });

  it('follows real paths: wrong bus numbers do not mislead it', () => {
    const r = probed(run);
    const moved = {
      ...r,
      devices: r.devices.map((d) => ({ ...d, bus: d.bus && { secondary: 99, subordinate: 99 } })),
    };
    expect(measure(moved, { kind: 'tunnel' }).cardSpan).toMatchObject({ gen: 3, lanes: 4 });
  });

  it('reads the machine it runs on, whatever that is', () => {
    const text = execFileSync(process.execPath, [PROBE], {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    expect(readReport(text)).toMatchObject({ ok: true });
  });

  it('odd places are reported, odd words answered with usage', () => {
    const dir = mkdtempSync(join(tmpdir(), 'odd-'));
    const dev = join(dir, 'sys/bus/pci/devices/0000:00:01.0');
    mkdirSync(dev, { recursive: true });
    symlinkSync('.', join(dev, 'driver'));
    writeFileSync(join(dev, 'config'), Buffer.alloc(4096, 0x41));
    for (const f of [
      'class',
      'vendor',
      'current_link_speed',
      'max_link_width',
      'resource',
      'resource0_resize',
    ])
      writeFileSync(join(dev, f), 'zz\u0000\n-7');
    symlinkSync('/nowhere', join(dir, 'sys/bus/pci/devices/0000:00:02.0'));
    const out = spawnSync(process.execPath, [PROBE, '--root', dir], { encoding: 'utf8' });
    rmSync(dir, { recursive: true });
    expect(out.status).toBe(0);
    const r = readReport(out.stdout);
    expect(r.ok && r.report.devices.map((d) => d.address)).toEqual([
      '0000:00:01.0',
      '0000:00:02.0',
    ]);
    expect(out.stderr).toContain('not read: Maker and model');
    expect(spawnSync(process.execPath, [PROBE, '--nonsense'], { encoding: 'utf8' })).toMatchObject({
      status: 2,
    });
  });
});
