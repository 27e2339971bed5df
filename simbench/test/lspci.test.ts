import { execFileSync } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, describe, expect, it } from 'vitest';
import { hostDraft, measure, readLspci, type Measured } from '@ruddy/core/reading';
import { hostSchema, type Report } from '@ruddy/core/schema';
import { direct, discrete, integrated, writeSysfs, type MadeDevice } from '../src';

const IDS = join(import.meta.dirname, '..', 'pci.ids');
const dirs: string[] = [];
afterAll(() => dirs.forEach((d) => rmSync(d, { recursive: true, force: true })));

/** What Debian's lspci prints of made devices. */
function lspci(devices: readonly MadeDevice[], args: string[], unprivileged = false): string {
  const dir = mkdtempSync(join(tmpdir(), 'made-pci-'));
  dirs.push(dir);
  writeSysfs(dir, devices, unprivileged);
  return execFileSync('lspci', ['-i', IDS, '-O', `sysfs.path=${dir}`, '-A', 'linux-sysfs', ...args], {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'ignore'],
  });
}

function report(text: string): Report {
  const r = readLspci(text);
  if (!r.ok) throw new Error(JSON.stringify(r.problem));
  return r.report;
}

function read(devices: readonly MadeDevice[], args: string[], kind: 'tunnel' | 'direct' = 'tunnel'): Measured {
  return measure(report(lspci(devices, args)), { kind });
}
const span = (s: Measured['cardSpan']) => (s ? `${s.kind} gen${s.gen} x${s.lanes}` : null);

// Source: the output of Debian's lspci over bytes written by the PCI Express Base Specification's layout: a reference outside this project.
describe.each([['-vv'], ['-vvv'], ['-vvnn'], ['-xxxx'], ['-nnxxxx'], ['-vvnnxxxx']])('BU-06 what lspci %s prints', (flags) => {
  it('a built-in controller: the slot is real, the router pair is virtual', () => {
    const m = read(integrated(), [flags]);
    expect(m.card).toMatchObject({ address: '0000:23:00.0', behind: 'tunnel', gone: false });
    expect(span(m.cardSpan)).toBe('real gen3 x4');
    expect(m.virtual.map((s) => `${s.upper.address} ${s.lower.address}`)).toEqual(['0000:00:07.0 0000:20:00.0']);
    expect(m.hostSpan).toBeNull();
    expect(m.inside).toBeNull();
    expect(m.window).toEqual({ nowMB: 256, mostMB: 16384 });
  });

  it('a separate controller has a real span of its own, two lanes on a two-lane host', () => {
    expect(span(read(discrete(), [flags]).hostSpan)).toBe('real gen3 x4');
    const two = read(discrete({ hostLanes: 2 }), [flags]);
    expect(span(two.hostSpan)).toBe('real gen3 x2');
    expect(span(two.cardSpan)).toBe('real gen3 x4');
  });

  it('direct PCIe: one real span from the root port', () => {
    const m = read(direct(), [flags], 'direct');
    expect(m.card).toMatchObject({ address: '0000:01:00.0', behind: 'direct' });
    expect(span(m.cardSpan)).toBe('real gen4 x4');
    expect(m.virtual).toEqual([]);
  });

  it.each([
    ['full', 'inside gen4 x16'],
    ['one-lane', 'inside gen1 x1'],
  ] as const)('a card with a switch of its own (%s): its graphics is inside, its upstream bridge counts', (inner, expected) => {
    for (const [make, kind] of [
      [integrated, 'tunnel'],
      [direct, 'direct'],
    ] as const) {
      const m = read(make({ inner, now: [8, 4] }), [flags], kind);
      expect(span(m.inside)).toBe(expected);
      expect(span(m.cardSpan)).toBe('real gen3 x4');
    }
  });

  it('idle, narrow and wrong: what the span does now is read as it is', () => {
    expect(span(read(integrated({ now: [2.5, 4] }), [flags]).cardSpan)).toBe('real gen1 x4');
    expect(span(read(integrated({ now: [8, 1] }), [flags]).cardSpan)).toBe('real gen3 x1');
  });

  it('nothing plugged in: no card behind a link, and the built-in graphics is not taken for one', () => {
    const m = read(integrated({ unplugged: true }), [flags]);
    expect(m.card).toBeNull();
    expect(m.cards.map((c) => c.behind)).toEqual(['built-in']);
  });

  it('fallen off the bus: the card is gone', () => {
    const m = read(integrated({ gone: true }), [flags]);
    expect(m.cards.some((c) => c.gone) || m.card === null).toBe(true);
    expect(report(lspci(integrated({ gone: true }), [flags])).devices.filter((d) => d.state === 'gone')).toHaveLength(2);
  });

  it('corrected errors along a direct path are seen', () => {
    expect(read(direct({ correctedBits: [0, 6] }), [flags], 'direct').corrected).toEqual(['RxErr', 'BadTLP']);
  });

  it('the serial number is nowhere in what is kept', () => {
    const text = lspci(integrated(), [flags]);
    const kept = JSON.stringify(report(text));
    // 48-b0-2d-ff-ff-1a-2b-3c as the made card carries it.
    expect(/48-b0-2d|3c 2b 1a/.test(text)).toBe(true);
    expect(/48-?b0-?2d|3c ?2b ?1a/.test(kept)).toBe(false);
  });
});

describe('PL-02 without rights', () => {
  it('prints identities only, and says what stays unknown', () => {
    const text = lspci(integrated(), ['-vv'], true);
    const r = report(text);
    expect(text).toContain('<access denied>');
    expect(r.devices.find((d) => d.address === '0000:23:00.0')).toMatchObject({ state: 'denied', cap: null, now: null });
    expect(r.missing[0]).toMatch(/^Capabilities of \d+ of 11 devices: read without rights$/);
    const m = measure(r, { kind: 'tunnel' });
    expect(m.denied).toBe(true);
    expect(m.cardSpan?.gen ?? null).toBeNull();
  });

  it('64 dumped bytes are the same', () => {
    const r = report(lspci(integrated(), ['-x'], true));
    expect(r.devices.find((d) => d.address === '0000:21:01.0')).toMatchObject({ state: 'denied', bus: { secondary: 0x23 } });
  });

  it('a plain listing without -v fills names and asks for -vv', () => {
    const r = report(lspci(integrated(), ['-nn']));
    expect(r.devices.find((d) => d.address === '0000:23:00.0')).toMatchObject({
      name: 'Dunlinby C-20 graphics',
      what: 'VGA compatible controller',
      classCode: '0300',
      vendor: 'e004',
    });
    expect(r.missing[0]).toContain('without -vv');
  });
});

describe('text and bytes agree', () => {
  it.each([
    ['integrated', integrated()],
    ['two lanes', discrete({ hostLanes: 2 })],
    ['direct', direct({ correctedBits: [7] })],
    ['inner switch', integrated({ inner: 'one-lane' })],
  ] as const)('%s: every link value read from words equals the one read from bytes', (_name, devices) => {
    const keep = (r: Report) =>
      r.devices.map(({ address, port, cap, now, topGts, hotplug, active, bus, corrected, window }) => {
        const bridge = port === 'root' || port === 'downstream';
        // lspci prints the list of rates for the first function of a device only.
        const top = address.endsWith('.0') ? topGts : null;
        return { address, port, cap, now, top, bus, corrected, window, ...(bridge && { hotplug, active }) };
      });
    expect(keep(report(lspci(devices, ['-vv'])))).toEqual(keep(report(lspci(devices, ['-xxxx']))));
  });
});

describe('PL-02 a host from what its system prints', () => {
  const draft = (devices: readonly MadeDevice[]) => hostDraft(report(lspci(devices, ['-vvnn'])));

  it('a built-in controller: one USB-C port that tunnels, its inner width left open', () => {
    const d = draft(integrated());
    expect(d.spec.sockets).toMatchObject([
      { connector: 'usb-c', tunnelling: 'yes', controller: 'built-in', pcieGen: null, lanes: null },
    ]);
    expect(d.unsaid).toEqual(['names', 'standards', 'inner-width']);
    expect(draft(integrated({ unplugged: true })).spec.sockets).toHaveLength(1);
  });

  it('a separate controller: two ports with the width that is wired', () => {
    const d = draft(discrete({ hostLanes: 2 }));
    expect(d.spec.sockets).toMatchObject(
      Array(2).fill({ standard: 'thunderbolt-3', controller: 'separate', pcieGen: 3, lanes: 2 }),
    );
  });

  it('direct PCIe: the plug is asked for', () => {
    const d = draft(direct());
    expect(d.spec.sockets).toMatchObject([{ connector: 'oculink-4i', pcieGen: 4, lanes: 4 }]);
    expect(d.unsaid).toContain('plugs');
  });

  it('every draft is a host the catalogue takes once it has a name', () => {
    for (const devices of [integrated(), discrete(), direct()])
      expect(hostSchema.safeParse({ ...draft(devices).spec, maker: 'Harnsey', model: 'L-13' }).success).toBe(true);
  });
});
