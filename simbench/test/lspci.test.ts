import { describe, expect, it } from 'vitest';
import type { Act } from '@ruddy/core/bench';
import { hostDraft, measure, type Report } from '@ruddy/core/bring-up';
import { hostSchema } from '@ruddy/core/parts';
import { broughtUp, CHAINS, lspci, reportOf } from './benches';

const LOAD: Act = { act: 'load', on: true };
const at = (name: string, more: readonly Act[] = [LOAD], wait = 60_000) =>
  broughtUp({ chain: CHAINS[name]!, seed: 3 }, more, undefined, wait);
const fault = (id: string, strength: number) => ({ act: 'fault', id, strength }) as Act;

// Source: the output of Debian's lspci over bytes written by the PCI Express Base Specification's layout: a reference outside this project.
describe.each([['-vv'], ['-vvv'], ['-vvnn'], ['-xxxx'], ['-nnxxxx'], ['-vvnnxxxx']])(
  'BU-06 what lspci %s prints',
  (flags) => {
    const read = (name: string, more?: readonly Act[], wait?: number) =>
      measure(reportOf(lspci(at(name, more, wait), [flags])), { kind: 'tunnel' });

    it('at rest the rate is the slowest, the width stays', () => {
      expect(read('usb4 40', []).cardSpan).toMatchObject({ kind: 'real', gen: 1, lanes: 4 });
    });

    it('unapproved: no card behind a link, built-in graphics apart', () => {
      const m = read('usb4 40', [{ act: 'approve', how: 'none' }, { act: 'unplug' }]);
      expect(m.card).toBeNull();
      expect(m.cards.map((c) => c.behind)).toEqual(['built-in']);
    });

    it('fallen off the bus: the card is gone', () => {
      const r = reportOf(
        lspci(at('usb4 40', [fault('card-defective', 0.2), LOAD], 400_000), [flags]),
      );
      expect(r.devices.filter((d) => d.state === 'gone')).toHaveLength(2);
    });

    it('corrected errors along a direct path are seen', () => {
      const run = at('oculink 4i', [fault('direct-cable-margin', 0.4), LOAD], 600_000);
      const m = measure(reportOf(lspci(run, [flags])), { kind: 'direct' });
      expect(m.corrected).toEqual(['RxErr', 'BadTLP']);
    });

    it('the serial number is nowhere in what is kept', () => {
      const text = lspci(at('usb4 40'), [flags]);
      // 48-b0-2d-ff-ff-1a-2b-3c as the made card carries it.
      expect(/48-b0-2d|3c 2b 1a/.test(text)).toBe(true);
      expect(/48-?b0-?2d|3c ?2b ?1a/.test(JSON.stringify(reportOf(text)))).toBe(false);
    });
  },
);

describe('PL-02 without rights', () => {
  it('prints identities only, and says what stays unknown', () => {
    const text = lspci(at('usb4 40'), ['-vv'], false);
    const r = reportOf(text);
    expect(text).toContain('<access denied>');
    expect(r.devices.find((d) => d.classCode === '0300' || /VGA/.test(d.what))).toBeDefined();
    expect(r.devices.filter((d) => d.state === 'denied').length).toBeGreaterThan(5);
    expect(r.missing[0]).toMatch(/^Capabilities of \d+ of 11 devices: read without rights$/);
    const m = measure(r, { kind: 'tunnel' });
    expect(m.denied).toBe(true);
    expect(m.cardSpan?.gen ?? null).toBeNull();
  });

  it('64 dumped bytes are the same', () => {
    const r = reportOf(lspci(at('usb4 40'), ['-x'], false));
    expect(r.devices.find((d) => d.address === '0000:02:01.0')).toMatchObject({
      state: 'denied',
      bus: { secondary: 4 },
    });
  });

  it('a plain listing without -v fills names and asks for -vv', () => {
    const r = reportOf(lspci(at('usb4 40'), ['-nn']));
    expect(r.devices.find((d) => d.address === '0000:04:00.0')).toMatchObject({
      name: 'Bench card Graphics',
      what: 'VGA compatible controller',
      classCode: '0300',
      vendor: 'e0a4',
    });
    expect(r.missing[0]).toContain('without -vv');
  });
});

describe('text and bytes agree', () => {
  it.each([
    ['usb4 40', []],
    ['thunderbolt 3, two lanes', [LOAD]],
    ['oculink 4i', [fault('direct-cable-margin', 1), LOAD]],
    ['card with a one-lane switch', [LOAD]],
    ['m.2 to slot', [fault('resource-window', 1)]],
  ] as const)('%s: every value read from words equals the one read from bytes', (name, more) => {
    const keep = (r: Report) =>
      r.devices.map(
        ({ address, port, cap, now, topGts, hotplug, active, bus, corrected, window }) => {
          const bridge = port === 'root' || port === 'downstream';
          // lspci prints the list of rates for the first function of a device only.
          const top = address.endsWith('.0') ? topGts : null;
          return {
            address,
            port,
            cap,
            now,
            top,
            bus,
            corrected,
            window,
            ...(bridge && { hotplug, active }),
          };
        },
      );
    const run = at(name, more, 600_000);
    expect(keep(reportOf(lspci(run, ['-vv'])))).toEqual(keep(reportOf(lspci(run, ['-xxxx']))));
  });

  it('regions that got no room are told from words', () => {
    const find = (more: readonly Act[]) => {
      const r = reportOf(lspci(at('usb4 40', more), ['-vvnn']));
      return r.devices.find((d) => d.vendor === 'e0a4' && d.classCode === '0300')?.assigned;
    };
    expect([
      find([]),
      find([fault('resource-window', 1), { act: 'unplug' }, { act: 'plug', socket: 'left' }]),
    ]).toEqual([true, false]);
  });
});

describe('PL-02 a host from what its system prints', () => {
  const draft = (name: string) => hostDraft(reportOf(lspci(at(name), ['-vvnn'])));

  it('a built-in controller: one tunnelling port, inner width open', () => {
    const d = draft('usb4 40');
    const port = {
      connector: 'usb-c',
      tunnelling: 'yes',
      controller: 'built-in',
      pcieGen: null,
      lanes: null,
    };
    expect(d.spec.sockets).toMatchObject([port]);
    expect(d.unsaid).toEqual(['names', 'standards', 'inner-width']);
  });

  it('a separate controller: its port with the width that is wired', () => {
    const port = { standard: 'thunderbolt-3', controller: 'separate', pcieGen: 3, lanes: 2 };
    expect(draft('thunderbolt 3, two lanes').spec.sockets).toMatchObject([port]);
  });

  it('direct PCIe: the plug is asked for', () => {
    const d = draft('oculink 4i');
    expect(d.spec.sockets).toMatchObject([{ connector: 'oculink-4i', pcieGen: 4, lanes: 4 }]);
    expect(d.unsaid).toContain('plugs');
  });

  it('every draft is a valid host once it is named', () => {
    for (const name of Object.keys(CHAINS))
      expect(
        hostSchema.safeParse({ ...draft(name).spec, maker: 'Harnsey', model: 'L-13' }).success,
      ).toBe(true);
  });
});
