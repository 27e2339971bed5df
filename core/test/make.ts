import type { CableSpec, CardSpec, Chain, DockSpec, HostSpec, SocketSpec } from '../src/schema';
import { chainSchema } from '../src/schema';
import { evaluate, type Context, type Evaluation } from '../src/plan';

/** Parts for tests, invented; every test says only what it is about. */
export function socket(over: Partial<SocketSpec> = {}): SocketSpec {
  return {
    key: 'left',
    position: 'left',
    mark: '40',
    connector: 'usb-c',
    standard: 'usb4-40',
    tunnelling: 'yes',
    controller: 'built-in',
    pcieGen: 4,
    lanes: 4,
    chargeInW: null,
    chargeOutW: null,
    ...over,
  };
}

export function host(over: Partial<SocketSpec> = {}): HostSpec {
  return { maker: 'Alder', model: 'H-1', variant: '', form: 'laptop', sockets: [socket(over)] };
}

export function cable(over: Partial<CableSpec> = {}): CableSpec {
  return {
    maker: 'Alder',
    model: 'K-1',
    variant: '',
    connector: 'usb-c',
    construction: 'passive',
    lengthMm: 700,
    markedGbps: 40,
    markedW: null,
    pcieGen: null,
    ...over,
  };
}

export function dock(over: Partial<DockSpec> = {}): DockSpec {
  return {
    maker: 'Alder',
    model: 'D-1',
    variant: '',
    form: 'enclosure',
    connector: 'usb-c',
    uplink: 'usb4-40',
    slotGen: 3,
    slotLanes: 4,
    ...over,
  };
}

export function card(over: Partial<CardSpec> = {}): CardSpec {
  return { maker: 'Alder', model: 'C-1', variant: '', pcieGen: 4, lanes: 16, memoryGB: 12, boardW: 200, ...over };
}

export interface Over {
  socket?: Partial<SocketSpec>;
  cable?: Partial<CableSpec>;
  dock?: Partial<DockSpec>;
  card?: Partial<CardSpec>;
}

/** USB4 40 from end to end, 0.7 m passive cable, Gen3 ×4 slot. */
export function tunnelChain(o: Over = {}): Chain {
  return chainSchema.parse({
    host: host(o.socket),
    socket: 'left',
    path: [{ key: 'a', spec: cable(o.cable) }],
    dock: dock(o.dock),
    card: card(o.card),
  });
}

/** OCuLink 4i, Gen4 on every part. */
export function directChain(o: Over = {}): Chain {
  const oculink = { connector: 'oculink-4i' } as const;
  return chainSchema.parse({
    host: host({ ...oculink, standard: 'oculink', tunnelling: null, controller: 'separate', ...o.socket }),
    socket: 'left',
    path: [{ key: 'a', spec: cable({ ...oculink, markedGbps: null, pcieGen: 4, lengthMm: 500, ...o.cable }) }],
    dock: dock({ ...oculink, uplink: 'oculink', slotGen: 4, form: 'open-board', ...o.dock }),
    card: card(o.card),
  });
}

/** A USB-C port that carries no PCIe, everything else fine. */
export function plainChain(o: Over = {}): Chain {
  return tunnelChain({ ...o, socket: { standard: 'usb-c', tunnelling: 'no', ...o.socket } });
}

export function judge(chain: Chain, context: Partial<Context> = {}): Evaluation {
  return evaluate({ chain, context: { asOf: '2026-11-20', house: {}, ...context } });
}

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
