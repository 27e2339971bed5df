import type { Context } from '@ruddy/core/plan';
import { SPECS } from '../specs';

/** Good files of every kind that is read: what the broken ones are made from. */
const J = (value: unknown) => JSON.stringify(value);
/** What a chain is judged by: nothing but the defaults. */
export const context: Context = { asOf: '2026-11-20', house: {}, requirements: [], releases: [] };
const RELEASE = {
  what: 'dockFirmware',
  maker: 'Alder',
  model: 'D-1',
  version: '1.9',
  releasedOn: '2026-11-01',
  fixes: ['hot-plug'],
};

export const captures = [
  'Title,Frame,TimeInSeconds,FrameTimeMs,Dropped\nA,1,0.0167,16.7,0\nA,2,0.0333,16.6,0\nA,3,0.0667,33.4,1\n',
  'frame_ms;gpu_load;gpu_temp\n16,7;98;61\n16,6;97;61\n33,4;99;62\n',
  'time\tfps\n12:00:01\t60\n12:00:02\t58\n12:00:03\t31\n',
  '"ms"\r\n"16.7"\r\n"16.6"\r\n"33.4"\r\n',
];
export const captureJson = [
  J([16.7, 16.6, 33.4]),
  J({
    format: 'ruddy-bridge/capture',
    version: 1,
    frameMs: [16.7, 16.6],
    startedAt: '2026-11-03T14:02:00Z',
    sensors: [],
  }),
  J({
    frames: [
      { ms: 16.7, load: 98 },
      { ms: 16.6, load: 97 },
    ],
  }),
];

const DEVICE = [
  '23:00.0 VGA compatible controller: Dunlinby C-20 graphics (rev a1) (prog-if 00 [VGA controller])',
  '\tCapabilities: [40] Express (v2) Endpoint, MSI 00',
  '\t\tLnkCap:\tPort #0, Speed 16GT/s, Width x16, ASPM L1, Exit Latency L1 <4us',
  '\t\tLnkSta:\tSpeed 8GT/s (downgraded), Width x4 (ok)',
  '\tCapabilities: [148 v1] Device Serial Number 48-b0-2d-ff-ff-1a-2b-3c',
  '\tKernel driver in use: graphics',
].join('\n');
const BRIDGE = [
  '00:07.0 PCI bridge: Fenwright port (rev 01) (prog-if 00 [Normal decode])',
  '\tBus: primary=00, secondary=20, subordinate=49, sec-latency=0',
  '\tCapabilities: [40] Express (v2) Root Port (Slot+), MSI 00',
  '\t\tLnkCap:\tPort #7, Speed 8GT/s, Width x4',
  '\t\tLnkSta:\tSpeed 8GT/s, Width x4',
].join('\n');
const HEX = `23:00.0 0300: e004:0020\n${Array.from({ length: 16 }, (_, i) => `${(i * 16).toString(16).padStart(2, '0')}: ${'04 e0 20 00 06 04 10 00 a1 00 00 03 00 00 80 00'}`).join('\n')}\n`;
export const listings = [
  `${BRIDGE}\n\n${DEVICE}\n`,
  `$ sudo lspci -vv\n${DEVICE.replace(/^/gm, '> ')}\n`,
  HEX,
];
export const reports = [
  J({
    format: 'ruddy-bridge/report',
    version: 1,
    devices: [{ address: '0000:23:00.0', classCode: '0300' }],
    ports: [],
    system: null,
  }),
  J({ format: 'ruddy-bridge/report', version: 1, readAt: '2026-11-03T14:02:00Z', devices: [] }),
];

export const partCsv = [
  'maker,model,variant,connector,construction,lengthMm,markedGbps,markedW\nLongmead,N-1,,usb-c,passive,500,40,100\nLongmead,N-2,,usb-c,active,2000,40,240\n',
  'maker;model;connector;lengthMm\r\n"Long;mead";"N ""2""";usb-c;800..1000\r\n',
];
const part = (id: string, kind: keyof typeof SPECS) => ({ id, kind, spec: SPECS[kind] });
const at = '2026-11-03T14:02:00Z';
export const bundles = [
  J({
    format: 'ruddy-bridge/bundle',
    version: 1,
    parts: [
      part('host.a', 'host'),
      part('cable.a', 'cable'),
      part('dock.a', 'dock'),
      part('card.a', 'card'),
    ],
    setups: [
      {
        id: 'setup.a',
        name: 'A',
        state: 'planned',
        slots: {
          host: 'host.a',
          socket: 'left',
          path: ['cable.a'],
          dock: 'dock.a',
          card: 'card.a',
        },
        createdAt: at,
      },
    ],
    events: [
      {
        id: 'e.1',
        setupId: 'setup.a',
        kind: 'note',
        body: { text: 'x' },
        happenedAt: at,
        recordedAt: at,
        seq: 1,
      },
    ],
    outcomes: [
      {
        id: 'o.1',
        setupId: 'setup.a',
        outcome: 'works',
        happenedOn: '2026-11-03',
        recordedAt: at,
        seq: 2,
      },
    ],
    items: [{ id: 'item.a', partId: 'cable.a', label: 'K a' }],
    members: [{ id: 'member.b', name: 'Member B', role: 'member' }],
    loans: [
      {
        id: 'loan.1',
        itemId: 'item.a',
        memberId: 'member.b',
        askedOn: '2026-11-01',
        out: { fromOn: '2026-11-01', along: ['bag'] },
      },
    ],
    prices: [
      {
        id: 'p.1',
        partId: 'cable.a',
        kind: 'offer',
        minor: 4900,
        currency: 'EUR',
        onDate: '2026-11-01',
        source: 'shop',
      },
    ],
  }),
  J({
    format: 'ruddy-bridge/bundle',
    version: 1,
    parts: Object.keys(SPECS).map((k) => part(`${k}.x`, k as keyof typeof SPECS)),
  }),
];

/** Parts alone, as the catalogue's import takes them. */
export const partBundles = [
  J({
    format: 'ruddy-bridge/bundle',
    version: 1,
    parts: Object.keys(SPECS).map((k) => part(`${k}.y`, k as keyof typeof SPECS)),
  }),
];

export const feedJson = [
  J({
    version: 'https://jsonfeed.org/version/1.1',
    title: 'Releases',
    items: [
      {
        id: '1',
        title: 'D-1 1.9',
        url: 'https://maker.example/1',
        date_published: at,
        content_text: 'mends it',
        _release: RELEASE,
      },
    ],
  }),
];
export const feedAtom = [
  `<?xml version="1.0"?><feed xmlns="http://www.w3.org/2005/Atom" xmlns:r="urn:x"><title>R</title><entry><id>1</id><title>D-1 1.9</title><updated>${at}</updated><link href="https://maker.example/1"/><summary type="html">&lt;b&gt;mends&lt;/b&gt;</summary></entry></feed>`,
];

/** A part of each kind under a name of its own: the id in it is made fresh each time. */
export const ID = '0190f7a0-0000-7000-8000-00000000f00d';
export const named = Object.entries(SPECS).map(([kind, spec]) =>
  J({ id: ID, kind, spec: { ...spec, model: `P ${ID}` } }),
);
export const specs = Object.values(SPECS).map(J);
const { host, cable, dock, card } = SPECS;
export const chains = [
  J({ host, socket: 'left', path: [{ key: 'a', spec: cable }], dock, card }),
  J({
    host,
    socket: 'left',
    path: [{ key: 'a', spec: { ...cable, markedGbps: { lo: 20, hi: 40 } } }],
    dock: { ...dock, slotGen: null },
    card: null,
    loads: [],
  }),
  J({
    host,
    socket: 'left',
    path: [{ key: 'a', spec: { ...cable, connector: 'oculink-4i' } }],
    dock: { ...dock, connector: 'oculink-4i', uplink: 'oculink' },
    card,
  }),
];
/** Entries of the log alone, each with its chain. */
const entry = {
  setupId: null,
  unit: 'u',
  outcome: 'works',
  happenedOn: '2026-11-03',
  recordedAt: at,
  versions: { driver: '1' },
};
export const logs = [
  J({
    format: 'ruddy-bridge/bundle',
    version: 1,
    chains: chains.map((c) => JSON.parse(c) as unknown),
    outcomes: [
      { ...entry, id: 'l.1', seq: 1, chain: 0 },
      { ...entry, id: 'l.2', seq: 2, chain: 1, outcome: 'fails', symptoms: ['drops'] },
    ],
  }),
];
export const bodies = [
  J({ id: '0190f7a0-0000-7000-8000-000000000001', text: 'x', happenedOn: '2026-01-01', photo: '' }),
  J({
    id: '0190f7a0-0000-7000-8000-000000000001',
    name: 'A',
    state: 'planned',
    slots: { host: null },
    loads: [],
    uses: [],
  }),
  J({
    setupId: '0190f7a0-0000-7000-8000-000000000001',
    frames: { resolutions: ['2560x1440'], powerMode: 'Performance' },
  }),
  J({ name: 'x', password: 'a long one for signing in', role: 'member' }),
  J({
    hostId: '0190f7a0-0000-7000-8000-000000000001',
    titleId: '0190f7a0-0000-7000-8000-000000000002',
    limits: { budgetMinor: 90000 },
  }),
];
