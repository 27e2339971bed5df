import { type Chain, chainSchema, type Load, loadSchema } from '../src/chain';
import {
  adapterSchema,
  type AdapterSpec,
  cableSchema,
  type CableSpec,
  cardSchema,
  type CardSpec,
  dockSchema,
  type DockSpec,
  hostSchema,
  type HostSpec,
  type Installed,
  NOTHING_INSTALLED,
  type PieceSpec,
  releaseSchema,
  type ReleaseSpec,
  requirementSchema,
  type RequirementSpec,
  screenSchema,
  type ScreenSpec,
  type Settings,
  settingsSchema,
  socketSchema,
  type SocketSpec,
  supplySchema,
  type SupplySpec,
  systemSchema,
  type SystemSpec,
  type Use,
  useSchema,
} from '../src/parts';
import { type Context, evaluate, type Evaluation } from '../src/plan';

const named = { maker: 'Alder', variant: '' };

/** Parts for tests, invented; every test says only what it is about. */
export function socket(over: Partial<SocketSpec> = {}): SocketSpec {
  const usual = {
    connector: 'usb-c',
    standard: 'usb4-40',
    tunnelling: 'yes',
    controller: 'built-in',
    pcieGen: 4,
    lanes: 4,
  };
  return socketSchema.parse({ key: 'left', position: 'left', mark: '40', ...usual, ...over });
}

export function host(over: Partial<SocketSpec> = {}): HostSpec {
  const battery = { batteryWh: 60, drawW: 60, chargeMinW: 30 };
  return hostSchema.parse({
    ...named,
    model: 'H-1',
    form: 'laptop',
    ...battery,
    sockets: [socket({ chargeInW: 100, ...over })],
  });
}

export function cable(over: Partial<CableSpec> = {}): CableSpec {
  const usual = {
    connector: 'usb-c',
    construction: 'passive',
    lengthMm: 700,
    markedGbps: 40,
    markedW: 100,
  };
  return cableSchema.parse({ ...named, model: 'K-1', ...usual, ...over });
}

export function adapter(over: Partial<AdapterSpec> = {}): AdapterSpec {
  const usual = { hostEnd: 'm2', farEnd: 'oculink-4i', pcieGen: 4, lanes: 4, lengthMm: 0 };
  return adapterSchema.parse({ ...named, model: 'T-1', ...usual, ...over });
}

/** A supply inside a dock with everything known: two 8-pin cables and no others. */
const CABLES = {
  cables8Pin: 2,
  cables8PinPair: 0,
  cables6Pin: 0,
  cables16Pin: 0,
  cablesCpu8Pin: 0,
} as const;
const INSIDE = { supply: 'inside', supplyW: 450, supplyStandard: 'atx3', ...CABLES } as const;
const SEPARATE = { supply: 'separate', supplyForm: 'atx' } as const;

export function dock(over: Partial<DockSpec> = {}): DockSpec {
  const usual = {
    form: 'enclosure',
    connector: 'usb-c',
    uplink: 'usb4-40',
    fixedLead: 'no',
    slotGen: 3,
    slotLanes: 4,
  } as const;
  const room = {
    innerLengthMm: 330,
    innerHeightMm: 180,
    innerSlots: 3,
    airflowCfm: 60,
    slotW: 75,
    chargeOutW: 100,
  };
  const held = over.form === 'open-board' ? { retention: 'clamp', maxWeightG: 2000 } : {};
  const fed = over.supply === undefined ? INSIDE : {};
  return dockSchema.parse({ ...named, model: 'D-1', ...usual, ...room, ...held, ...fed, ...over });
}

export function card(over: Partial<CardSpec> = {}): CardSpec {
  const plugs = {
    plugs8Pin: 1,
    plugs6Pin: 0,
    plugs16Pin: 0,
    plugSide: 'top',
    plugAngled: 'no',
    slotW: 66,
  };
  const size = { lengthMm: 240, heightMm: 115, slots: 2, weightG: 900, cooler: 'open-air' };
  const usual = { pcieGen: 4, lanes: 16, memoryGB: 12, boardW: 200 };
  return cardSchema.parse({ ...named, model: 'C-1', ...usual, ...plugs, ...size, ...over });
}

export function load(over: Partial<Load> = {}): Load {
  return loadSchema.parse({ kind: 'hub', downGbps: 5, upGbps: 5, ownLead: 'no', ...over });
}

/** Pieces of a path with keys a, b, c. */
export function path(...specs: PieceSpec[]): Chain['path'] {
  return specs.map((spec, i) => ({ key: 'abcdef'.charAt(i), spec }));
}

/** A chain from whole parts; what is left out is not chosen. */
export function chain(c: {
  socket?: Partial<SocketSpec>;
  path?: Chain['path'];
  dock?: DockSpec;
  card?: CardSpec;
  loads?: Load[];
  installed?: Partial<Installed>;
}): Chain {
  return chainSchema.parse({
    host: c.socket ? host(c.socket) : null,
    socket: c.socket ? (c.socket.key ?? 'left') : null,
    path: c.path ?? null,
    dock: c.dock ?? null,
    card: c.card ?? card(),
    loads: c.loads ?? [],
    installed: { ...NOTHING_INSTALLED, ...c.installed },
  });
}

export interface Over {
  socket?: Partial<SocketSpec>;
  cable?: Partial<CableSpec>;
  dock?: Partial<DockSpec>;
  card?: Partial<CardSpec>;
  loads?: Load[];
  installed?: Partial<Installed>;
  host?: Partial<HostSpec>;
  supplies?: Chain['supplies'];
  picture?: Chain['picture'];
  system?: Partial<SystemSpec>;
  settings?: Partial<Settings>;
  uses?: Partial<Use>[];
}

/** What stands round the link of every chain made here. */
function around(o: Over): object {
  return {
    card: card(o.card),
    loads: o.loads ?? [],
    installed: { ...NOTHING_INSTALLED, ...o.installed },
    supplies: o.supplies ?? [],
    picture: o.picture ?? [],
    system: o.system ? system(o.system) : null,
    settings: settingsSchema.parse(o.settings ?? {}),
    uses: (o.uses ?? []).map((u) => useSchema.parse({ work: 'games', ...u })),
  };
}

export function supply(over: Partial<SupplySpec> = {}): SupplySpec {
  return supplySchema.parse({
    ...named,
    model: 'S-1',
    form: 'atx',
    supplyW: 550,
    supplyStandard: 'atx3',
    ...CABLES,
    ...over,
  });
}

export function screen(over: Partial<ScreenSpec> = {}): ScreenSpec {
  const usual = {
    widthPx: 2560,
    heightPx: 1440,
    hz: 60,
    bits: '24',
    dpLevel: 'hbr2',
    hdmiLevel: '2.0',
  };
  return screenSchema.parse({ ...named, model: 'V-1', ...usual, ...over });
}

export function system(over: Partial<SystemSpec> = {}): SystemSpec {
  return systemSchema.parse({
    ...named,
    model: 'O-1',
    family: 'linux',
    outsideCards: 'yes',
    ...over,
  });
}

export function release(over: Partial<ReleaseSpec> = {}): ReleaseSpec {
  return releaseSchema.parse({
    maker: 'Alder',
    model: 'D-1',
    variant: '1.8',
    what: 'dockFirmware',
    releasedOn: '2026-01-10',
    ...over,
  });
}

export function requirement(over: Partial<RequirementSpec> = {}): RequirementSpec {
  return requirementSchema.parse({
    maker: 'Alder',
    model: 'D-1',
    variant: 'Dock firmware before first use',
    subject: 'dock',
    needs: 'dockFirmware',
    atLeast: '1.8',
    severity: 'care',
    effect: 'crashes on plugging in',
    source: 'maker, release notes',
    ...over,
  });
}

/** USB4 40 from end to end, 0.7 m passive cable, Gen3 ×4 slot. */
export function tunnelChain(o: Over = {}): Chain {
  return chainSchema.parse({
    ...around(o),
    host: { ...host(o.socket), ...o.host },
    socket: 'left',
    path: [{ key: 'a', spec: cable(o.cable) }],
    dock: dock({ ...forSupplies(o), ...o.dock }),
  });
}

/** A dock takes the chosen supply where one is chosen. */
function forSupplies(o: Over): Partial<DockSpec> {
  return o.supplies && o.supplies.length > 0 && o.dock?.supply === undefined ? SEPARATE : {};
}

/** OCuLink 4i, Gen4 on every part. */
export function directChain(o: Over = {}): Chain {
  const oculink = { connector: 'oculink-4i' } as const;
  return chainSchema.parse({
    ...around(o),
    host: {
      ...host({
        ...oculink,
        standard: 'oculink',
        tunnelling: null,
        controller: 'separate',
        ...o.socket,
      }),
      ...o.host,
    },
    socket: 'left',
    path: [
      {
        key: 'a',
        spec: cable({ ...oculink, markedGbps: null, pcieGen: 4, lengthMm: 500, ...o.cable }),
      },
    ],
    dock: dock({
      ...oculink,
      uplink: 'oculink',
      slotGen: 4,
      form: 'open-board',
      ...forSupplies(o),
      ...o.dock,
    }),
  });
}

/** A USB-C port that carries no PCIe, everything else fine. */
export function plainChain(o: Over = {}): Chain {
  return tunnelChain({ ...o, socket: { standard: 'usb-c', tunnelling: 'no', ...o.socket } });
}

export function judge(chain: Chain, context: Partial<Context> = {}): Evaluation {
  return evaluate({ chain, context: { asOf: '2026-11-20', house: {}, ...context } });
}

/** Nothing chosen. */
export const EMPTY: Chain = chainSchema.parse({
  host: null,
  socket: null,
  path: null,
  dock: null,
  card: null,
});

/** Usable down of a hop, in Gb/s rounded to one decimal; both ends. */
export function down(e: Evaluation, hop: number): { lo: number; hi: number } {
  const q = e.predicted.link.hops[hop]?.usable?.down;
  if (!q) throw new Error(`hop ${hop} is not known`);
  return { lo: Math.round(q.lo * 10) / 10, hi: Math.round(q.hi * 10) / 10 };
}

/** Usable down and up of a hop that is known exactly: "26.0/25.3". */
export function rates(e: Evaluation, hop: number): string {
  const u = e.predicted.link.hops[hop]?.usable;
  if (!u) throw new Error(`hop ${hop} is not known`);
  return `${u.down.lo.toFixed(1)}/${u.up.lo.toFixed(1)}`;
}
