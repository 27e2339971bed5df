import { describe, expect, it } from 'vitest';
import {
  deviceTree,
  genOf,
  hostDraft,
  MAX_CHARS,
  type PciDevice,
  pciDeviceSchema,
  readReport,
  reportSchema,
} from '../src/bring-up';
import { readProblemText } from '../src/bring-up/text';

const HEAD =
  '23:00.0 VGA compatible controller: Dunlinby C-20 graphics (rev a1) (prog-if 00 [VGA controller])';
const BODY = [
  '\tCapabilities: [40] Express (v2) Endpoint, MSI 00',
  '\t\tLnkCap:\tPort #0, Speed 16GT/s, Width x16, ASPM L1, Exit Latency L1 <4us',
  '\t\tLnkSta:\tSpeed 8GT/s (downgraded), Width x4 (ok)',
  '\tCapabilities: [148 v1] Device Serial Number 48-b0-2d-ff-ff-1a-2b-3c',
  '\tKernel driver in use: graphics',
].join('\n');

function device(text: string): PciDevice {
  const r = readReport(text);
  if (!r.ok) throw new Error(readProblemText(r.problem));
  return r.report.devices[0] as PciDevice;
}
function problem(text: string): string {
  const r = readReport(text);
  return r.ok ? 'read' : readProblemText(r.problem);
}

describe('BU-06 listings as people paste them', () => {
  const whole = `${HEAD}\n${BODY}\n`;
  it.each([
    ['as printed', whole],
    [
      'with the command before it',
      `$ sudo lspci -vv -s 23:00.0\npcilib: sysfs_read_vpd: read failed\n${whole}`,
    ],
    ['quoted in a mail', whole.replace(/^/gm, '> ')],
    ['with Windows line ends', whole.replace(/\n/g, '\r\n')],
    ['with its tabs lost', whole.replace(/\t/g, '')],
    ['with colours', whole.replace(/Speed/g, '\u001b[1;31mSpeed\u001b[0m')],
    ['with a domain', whole.replace('23:00.0', '0000:23:00.0')],
    ['as code in a post', whole.replace(/^/gm, '    ')],
  ])('%s', (_name, text) => {
    expect(device(text)).toMatchObject({
      address: '0000:23:00.0',
      name: 'Dunlinby C-20 graphics',
      port: 'endpoint',
      cap: { gts: 16, lanes: 16 },
      now: { gts: 8, lanes: 4 },
      driver: 'graphics',
    });
  });

  it('numbers only, an unknown rate, and a device that answers no more', () => {
    expect(device('23:00.0 0300: e004:0020 (rev a1)')).toMatchObject({
      classCode: '0300',
      vendor: 'e004',
      device: '0020',
    });
    expect(device(`${HEAD}\n\tLnkSta: Speed unknown, Width x0`).now).toEqual({
      gts: null,
      lanes: 0,
    });
    expect(device(`${HEAD.replace('rev a1', 'rev ff')}\n\t!!! Unknown header type 7f`).state).toBe(
      'gone',
    );
  });

  it('the serial number is not kept', () => {
    expect(JSON.stringify(device(whole))).not.toContain('48-b0');
  });

  it('a width nothing has cannot break the report', () => {
    expect(
      pciDeviceSchema.safeParse(device(`${HEAD}\n\tLnkCap: Port #0, Speed 99GT/s, Width x999`))
        .success,
    ).toBe(true);
  });
});

describe('what is no listing gets a clear error', () => {
  it('empty, too big, binary, prose', () => {
    expect(problem('  \n')).toContain('Nothing was pasted');
    expect(problem('x'.repeat(5_000_000))).toBe(
      'Not read: 5.0 million characters, at most 2.0 million. Paste the listing of one machine, once.',
    );
    expect(problem(`${HEAD}\u0000`)).toContain(`character ${HEAD.length + 1} is no text`);
    expect(problem('Dear all,\nmy card is slow.')).toContain('The first line reads "Dear all,"');
    expect(MAX_CHARS).toBeLessThan(5_000_000);
  });

  it('JSON that is cut off, of another kind, or wrong somewhere', () => {
    expect(problem('{"format": "ruddy-bridge/rep')).toContain('not whole JSON');
    expect(problem('{"hello": 1}')).toContain('wrong at format');
    const wrong = { format: 'ruddy-bridge/report', version: 1, devices: [{ address: 'here' }] };
    expect(problem(JSON.stringify(wrong))).toContain(
      'wrong at devices/0/address: an address like 0000:3a:00.0',
    );
  });
});

describe('BU-06 the JSON report', () => {
  it('drops what its schema does not name', () => {
    const r = readReport(
      JSON.stringify({
        format: 'ruddy-bridge/report',
        version: 1,
        hostname: 'secret-host',
        devices: [{ address: '0000:00:02.0', serial: '123', mac: 'aa:bb' }],
        routers: [{ route: '0-1', unique_id: 'c0ffee', rxGbps: 20, rxLanes: 2 }],
      }),
    );
    const text = JSON.stringify(r);
    expect(r.ok).toBe(true);
    for (const secret of ['secret-host', '123', 'aa:bb', 'c0ffee'])
      expect(text).not.toContain(secret);
    expect(text).toContain('"rxGbps":20');
  });

  it('a listing and its report are the same thing', () => {
    const r = readReport(`${HEAD}\n${BODY}`);
    if (!r.ok) throw new Error('not read');
    expect(readReport(JSON.stringify(r.report))).toEqual(r);
    expect(reportSchema.parse(r.report)).toEqual(r.report);
  });
});

describe('trees that cannot be', () => {
  const bridge = (address: string, secondary: number): PciDevice =>
    pciDeviceSchema.parse({ address, bus: { secondary, subordinate: 255 }, classCode: '0604' });

  it('bridges that point at themselves or back up end in a forest', () => {
    const nodes = deviceTree([
      bridge('0000:01:00.0', 1),
      bridge('0000:02:00.0', 1),
      bridge('0000:01:01.0', 2),
    ]);
    expect(nodes.map((n) => n.parent?.device.address ?? null)).toEqual([
      null,
      '0000:01:01.0',
      null,
    ]);
  });

  it('rates and generations', () => {
    expect([2.5, 5, 8, 16, 32, 64, 7, null].map(genOf)).toEqual([1, 2, 3, 4, 5, 6, null, null]);
  });
});

describe('PL-02 a host from a report', () => {
  it('without rights or ports it says what stays open', () => {
    const r = readReport(
      '00:02.0 VGA compatible controller: Harnsey L-13 graphics\n\tCapabilities: <access denied>',
    );
    if (!r.ok) throw new Error('not read');
    const d = hostDraft(r.report);
    expect(d.spec.sockets).toMatchObject([
      { key: 'port-1', connector: 'usb-c', standard: null, tunnelling: null },
    ]);
    expect(d.unsaid).toEqual(['names', 'ports', 'standards', 'rights']);
  });
});
