import type { Chain } from '../src/chain';
import { type Context, type FindingCode, NO_EVIDENCE } from '../src/plan';
import {
  adapter,
  cable,
  chain,
  directChain,
  dock,
  host,
  load,
  path,
  release,
  requirement,
  screen,
  socket,
  supply,
  tunnelChain,
  type Over,
} from './make';

/** A chain with what it is judged by. */
export interface Case {
  readonly chain: Chain;
  readonly context?: Partial<Context>;
}

const NO_CABLES = { cables8PinPair: 0, cables6Pin: 0, cables16Pin: 0, cablesCpu8Pin: 0 } as const;
const SUPPLIED = {
  supply: 'inside',
  supplyW: 550,
  cables8Pin: 2,
  efficiency: 'gold',
  supplyStandard: 'atx3',
  slotW: 75,
  ...NO_CABLES,
} as const;
const ROOM = {
  innerLengthMm: 300,
  innerHeightMm: 160,
  innerSlots: 3,
  airflowCfm: 60,
  chargeOutW: 87,
} as const;
const CARD = {
  plugs8Pin: 1,
  lengthMm: 250,
  heightMm: 120,
  slots: 2,
  slotW: 60,
  weightG: 900,
} as const;
const HOST = { batteryWh: 60, drawW: 50 } as const;

/** A laptop on a filled enclosure, everything stated and nothing wrong. */
export function whole(o: Over = {}): Chain {
  return tunnelChain({
    ...o,
    socket: { chargeInW: 100, ...o.socket },
    host: { ...HOST, ...o.host },
    cable: { markedW: 100, ...o.cable },
    dock: { ...SUPPLIED, ...ROOM, ...o.dock },
    card: { ...CARD, ...o.card },
  });
}

type Pair = readonly [code: FindingCode, made: Case, nearest: Case];
/** The finding is made with the first change and not with the second; both of the same attributes. */
function pair(code: FindingCode, made: Over, nearest: Over, context?: Partial<Context>): Pair {
  return [
    code,
    { chain: whole(made), ...(context && { context }) },
    { chain: whole(nearest), ...(context && { context }) },
  ];
}

const m2 = { connector: 'm2', standard: 'pcie', tunnelling: null, controller: null } as const;
const slot = (over: object, lengthMm = 300) => ({
  chain: {
    ...chain({
      socket: { ...m2, ...over },
      path: path(
        adapter(),
        cable({ connector: 'oculink-4i', markedGbps: null, pcieGen: 4, lengthMm }),
      ),
      dock: dock({ connector: 'oculink-4i', uplink: 'oculink', slotGen: 4 }),
    }),
  },
});
const lan = (has: 'yes' | 'no') => {
  const c = slot({ connector: 'mini-card', lanes: 1, holds: 'radio' }).chain;
  return { chain: { ...c, host: c.host && { ...c.host, lan: has } } };
};
const leadOf = (fixedLead: 'yes' | 'no'): Case => {
  const c = directChain();
  return { chain: { ...c, path: [], dock: c.dock && { ...c.dock, fixedLead } } };
};
const own = {
  connector: 'own-port',
  standard: 'pcie',
  tunnelling: null,
  controller: null,
  family: 'Wide',
} as const;
const family = (name: string): Case => ({
  chain: chain({
    socket: own,
    path: [],
    dock: dock({ fixedLead: 'yes', connector: 'own-port', uplink: 'pcie', family: name }),
  }),
});
const shown = (
  over: object,
  by: 'card' | 'dock' = 'card',
  plug: 'displayport' | 'hdmi' = 'displayport',
) => ({
  picture: [{ key: 'a', by, plug, screen: screen(over) }],
});
const fed = (...feeds: ('dock' | 'card' | 'both')[]) => ({
  supplies: feeds.map((f, i) => ({ key: 'ab'.charAt(i), feeds: f, spec: supply() })),
  dock: { supply: 'none' as const },
});
const board = (over: object): Over => ({
  dock: { form: 'open-board', retention: 'clamp', maxWeightG: 1000, ...over },
});
const judged = (r: object, over: Over = {}) => ({
  chain: whole(over),
  context: { requirements: [requirement(r)] },
});
const news = (r: object, over: Over = {}) => ({
  chain: whole(over),
  context: { releases: [release(r)] },
});
const twin = (standard: 'usb4-20' | 'usb4-40') => ({
  chain: {
    ...whole(),
    host: { ...host(), sockets: [socket({ chargeInW: 100 }), socket({ key: 'right', standard })] },
  },
});
const evidence = (works: number, fails: number) => ({
  ...NO_EVIDENCE,
  exact: { n: works + fails, works, care: 0, unreliable: 0, fails, newest: '2026-11-01' },
});
const joined = (n: number) => ({
  chain: {
    ...whole(),
    path: path(...Array.from({ length: n }, () => cable({ lengthMm: 200, markedW: 100 }))),
  },
});

/** For every finding code what provokes it and the nearest input at which it is absent. */
export const PROVOKED: readonly Pair[] = [
  pair('link/no-tunnel', { socket: { tunnelling: 'no' } }, { socket: { tunnelling: 'yes' } }),
  ['link/no-pcie', slot({ standard: 'sata' }), slot({ standard: 'pcie' })],
  pair(
    'link/too-old',
    { socket: { tb3Compat: 'no' }, dock: { uplink: 'thunderbolt-3' } },
    { socket: { tb3Compat: 'yes' }, dock: { uplink: 'thunderbolt-3' } },
  ),
  ['link/other-family', family('Long'), family('Wide')],
  [
    'link/plug-mismatch',
    { chain: directChain({ cable: { connector: 'oculink-8i' } }) },
    { chain: directChain() },
  ],
  ['cable/missing', leadOf('no'), leadOf('yes')],
  pair('cable/no-data', { cable: { markedGbps: 0.48 } }, { cable: { markedGbps: 20 } }),
  pair(
    'software/security',
    { settings: { securityLevel: 'usbonly' } },
    { settings: { securityLevel: 'user' } },
  ),
  pair(
    'software/no-outside',
    { system: { outsideCards: 'no' } },
    { system: { outsideCards: 'yes' } },
  ),
  [
    'software/refused',
    judged({ needs: 'refused', atLeast: '', severity: 'blocks' }),
    judged({ needs: 'refused', atLeast: '', severity: 'note' }),
  ],
  pair('power/plugs-short', { card: { plugs8Pin: 3 } }, { card: { plugs8Pin: 2 } }),
  pair('power/over', { dock: { supplyW: 290 } }, { dock: { supplyW: 320 } }),
  pair('fit/too-big', { card: { lengthMm: 301 } }, { card: { lengthMm: 300 } }),
  [
    'fit/supply-form',
    { chain: whole({ ...fed('both'), dock: { supply: 'separate', supplyForm: 'sfx' } }) },
    { chain: whole({ ...fed('both'), dock: { supply: 'separate', supplyForm: 'atx' } }) },
  ],
  ['plan/unchosen', { chain: { ...whole(), dock: null } }, { chain: whole() }],
  pair('power/two-on-card', fed('both', 'card'), fed('both', 'dock')),
  ['route/cutting', slot({ reach: 'cut' }), slot({ reach: 'cover' })],
  ['route/boot', slot({ holds: 'system-drive' }), slot({ holds: 'drive' })],
  ['route/network', slot({ holds: 'radio' }), slot({ holds: 'nothing' })],
  pair(
    'preflight/recovery-key',
    { settings: { encryption: 'yes', recoveryKey: 'no' } },
    { settings: { encryption: 'yes', recoveryKey: 'yes' } },
  ),
  pair(
    'preflight/way-back',
    { settings: { internalGraphics: 'off' } },
    { settings: { internalGraphics: 'on' } },
  ),
  [
    'software/firmware-first',
    judged({}, { installed: { dockFirmware: '1.7' } }),
    judged({}, { installed: { dockFirmware: '1.8' } }),
  ],
  [
    'software/unmet',
    judged({ needs: 'driver', atLeast: '', atMost: '38' }, { installed: { driver: '38.1' } }),
    judged({ needs: 'driver', atLeast: '', atMost: '38' }, { installed: { driver: '38.0' } }),
  ],
  [
    'software/withdrawn',
    news({ withdrawnOn: '2026-03-01' }, { installed: { dockFirmware: '1.8' } }),
    news({ withdrawnOn: '2027-03-01' }, { installed: { dockFirmware: '1.8' } }),
  ],
  pair(
    'software/repackaged',
    { settings: { driverKind: 'repackaged' } },
    { settings: { driverKind: 'maker' } },
  ),
  pair(
    'software/driver-class',
    { settings: { driverClass: 'consumer' }, uses: [{ work: 'cad' }] },
    { settings: { driverClass: 'consumer' }, uses: [{ work: 'games' }] },
  ),
  pair(
    'software/approval',
    { settings: { approval: 'once' } },
    { settings: { approval: 'always' } },
  ),
  pair('cable/too-long', { cable: { lengthMm: 801 } }, { cable: { lengthMm: 800 } }),
  pair('cable/beyond-standard', { cable: { lengthMm: 2001 } }, { cable: { lengthMm: 2000 } }),
  ['cable/joined', joined(2), joined(1)],
  ['cable/direct-long', joint(900), joint(300)],
  pair('power/uncovered', { card: { boardW: 226 } }, { card: { boardW: 225 } }),
  pair(
    'dock/firmware-cap',
    { dock: { capFirmware: '1.8', capBeforeGbps: 12 }, installed: { dockFirmware: '1.7' } },
    { dock: { capFirmware: '1.8', capBeforeGbps: 12 }, installed: { dockFirmware: '1.8' } },
  ),
  pair('link/pinch', { dock: { slotLanes: 1 } }, { dock: { slotLanes: 4 } }),
  pair('power/no-supply', { dock: { supply: 'separate' } }, { dock: { supply: 'inside' } }),
  pair('power/tight', { dock: { supplyW: 370 } }, { dock: { supplyW: 400 } }),
  pair(
    'power/peak',
    { dock: { supplyW: 380, supplyStandard: 'older' } },
    { dock: { supplyW: 480, supplyStandard: 'older' } },
  ),
  pair('power/slot', { dock: { slotW: 40 } }, { dock: { slotW: 60 } }),
  pair('power/sense', sensed('150'), sensed('300')),
  pair('charging/drains', { host: { drawW: 90 } }, { host: { drawW: 87 } }),
  pair('charging/refused', { host: { chargeMinW: 90 } }, { host: { chargeMinW: 87 } }),
  pair('fit/bend', { card: { heightMm: 141 } }, { card: { heightMm: 140 } }),
  pair('fit/unheld', board({ retention: 'none' }), board({ retention: 'clamp' })),
  pair('fit/heavy', board({ maxWeightG: 800 }), board({ maxWeightG: 1000 })),
  pair('cooling/hot', { dock: { airflowCfm: 17 } }, { dock: { airflowCfm: 18 } }),
  pair(
    'screen/no-plug',
    { card: { dpLevel: 'none' }, ...shown({}) },
    { card: { dpLevel: 'hbr2' }, ...shown({}) },
  ),
  pair(
    'screen/too-much',
    { card: { dpLevel: 'hbr2' }, ...shown({ hz: 240 }) },
    { card: { dpLevel: 'hbr2' }, ...shown({ hz: 60 }) },
  ),
  pair('screen/panel', { settings: { toPanel: 'yes' } }, { settings: { toPanel: 'no' } }),
  pair(
    'card/name-trap',
    { card: { chip: 'mobile', namesake: 'Alder C-2' } },
    { card: { chip: 'desktop', namesake: 'Alder C-2' } },
  ),
  [
    'log/contradiction',
    { chain: whole(), context: { evidence: evidence(0, 3) } },
    { chain: whole(), context: { evidence: evidence(3, 0) } },
  ],
  ['link/all-off', { chain: directChain() }, { chain: whole() }],
  [
    'link/looks-like-video',
    {
      chain: chain({
        socket: { ...m2, connector: 'mini-card', lanes: 1 },
        path: [],
        dock: dock({ connector: 'mini-card', uplink: 'pcie' }),
      }),
    },
    {
      chain: chain({
        socket: { ...m2, lanes: 1 },
        path: [],
        dock: dock({ connector: 'm2', uplink: 'pcie' }),
      }),
    },
  ],
  pair('power/beside', fed('dock', 'card'), { ...fed('card'), dock: { supply: 'none' } }),
  pair('power/used', { dock: { condition: 'used' } }, { dock: { condition: 'new' } }),
  pair(
    'power/cpu-plug',
    { card: { plugs8Pin: 3 }, dock: { cablesCpu8Pin: 1 } },
    { card: { plugs8Pin: 3 }, dock: { cablesCpu8Pin: 0 } },
  ),
  pair('fit/open-board', board({}), board({ form: 'enclosure' })),
  ['route/opening', slot({ reach: 'cover' }), slot({ reach: 'outside' })],
  ['path/slot-used', slot({ holds: null }), slot({ holds: 'nothing' })],
  pair('charging/none', { dock: { chargeOutW: 0 } }, { dock: { chargeOutW: 87 } }),
  pair(
    'fit/short-only',
    { dock: { innerLengthMm: 180 }, card: { lengthMm: 170 } },
    { dock: { innerLengthMm: 220 }, card: { lengthMm: 170 } },
  ),
  pair('fit/screws', { dock: { screws: 4 } }, { dock: { screws: null } }),
  pair('cooling/lid', { settings: { lid: 'closed' } }, { settings: { lid: 'open' } }),
  pair('cooling/loud', { dock: { noiseDb: 45 } }, { dock: { noiseDb: 40 } }),
  pair('screen/compressed', squeezed('yes'), squeezed('no')),
  pair(
    'screen/through-dock',
    { dock: { videoOut: 'hbr2' }, ...shown({}, 'dock') },
    { dock: { videoOut: 'hbr2' }, ...shown({}, 'card') },
  ),
  [
    'software/heed',
    judged({ needs: 'heed', atLeast: '', severity: 'note' }),
    judged({ needs: 'heed', atLeast: '', severity: 'note', untilOn: '2026-10-01' }),
  ],
  [
    'software/newer',
    news({}, { installed: { dockFirmware: '1.7' } }),
    news({}, { installed: { dockFirmware: '1.8' } }),
  ],
  pair('software/many-chips', { host: { graphics: 'both' } }, { host: { graphics: 'internal' } }),
  pair('link/shared', { loads: [load({ ownLead: 'no' })] }, { loads: [load({ ownLead: 'yes' })] }),
  pair('link/read-out', { card: { lanes: 16 } }, { card: { lanes: 4 } }),
  pair('card/inner-switch', { card: { innerSwitch: 'full' } }, { card: { innerSwitch: 'none' } }),
  ['host/look-alike', twin('usb4-20'), twin('usb4-40')],
  pair('cable/watts', { cable: { markedGbps: 20 } }, { cable: { markedGbps: 40 } }),
];

/** A direct path of adapter and cable without a promise on either. */
function joint(lengthMm: number): Case {
  const c = slot({}).chain;
  return {
    chain: {
      ...c,
      path: path(
        adapter({ pcieGen: null }),
        cable({ connector: 'oculink-4i', markedGbps: null, pcieGen: null, lengthMm }),
      ),
    },
  };
}

function sensed(watts: '150' | '300'): Over {
  return {
    card: { boardW: 350, plugs8Pin: 0, plugs16Pin: 1 },
    dock: { cables16Pin: 1, cable16PinW: watts, supplyW: 850 },
  };
}

function squeezed(compression: 'yes' | 'no'): Over {
  return {
    card: { dpLevel: 'hbr3', compression: 'yes' },
    ...shown({ hz: 240, dpLevel: 'hbr3', bits: '30', compression }),
  };
}

export { lan };
