import fc from 'fast-check';
import { type Chain, chainSchema } from '../src/chain';
import {
  adapterSchema,
  attributesOf,
  type AttrMeta,
  cableSchema,
  cardSchema,
  dockSchema,
  hostSchema,
  isAsked,
  optionsOf,
  screenSchema,
  socketSchema,
  supplySchema,
  systemSchema,
} from '../src/parts';

export type Values = Record<string, unknown>;
export type Shape = Parameters<typeof attributesOf>[0];

/** Figures where the parts of this trade lie, so that chains fit about as often as they do not; elsewhere the limits of the schema. */
const USUAL: Record<string, readonly number[]> = {
  boardW: [75, 120, 150, 200],
  slotW: [25, 66, 75, 75],
  supplyW: [330, 550, 850, 1000],
  plugs8Pin: [0, 1, 1, 2],
  plugs6Pin: [0, 0, 1],
  plugs16Pin: [0, 0, 1],
  adapter16Pin: [0, 2, 3],
  cables8Pin: [1, 2, 4],
  cables8PinPair: [0, 0, 2],
  cables6Pin: [0, 1],
  cables16Pin: [0, 1],
  lengthMm: [170, 240, 280, 280, 500],
  // An unknown ribbon counts as one of those that are sold.
  ribbonMm: [0, 170, 300],
  heightMm: [110, 120, 140],
  slots: [2, 2.5],
  innerLengthMm: [250, 330, 600, 600],
  innerHeightMm: [130, 200, 200],
  innerSlots: [2, 2.5, 2.5, 3],
  weightG: [700, 1100, 1800],
  maxWeightG: [1000, 1500],
  airflowCfm: [15, 30, 60],
  pcieGen: [3, 4],
  lanes: [2, 4, 8, 16],
  slotGen: [3, 4],
  slotLanes: [4],
  // Measured figures that replace a rule where they are there; where nobody measured them, the rule holds.
  completionBytes: [],
  capGbps: [],
  markedGbps: [20, 40, 40, 80],
  markedW: [60, 100, 240],
  chargeInW: [60, 100],
  chargeOutW: [0, 15, 60, 100],
  chargeMinW: [20, 45, 60],
  drawW: [30, 65, 120],
  batteryWh: [0, 60],
  widthPx: [2560, 3840],
  heightPx: [1440, 2160],
  hz: [60, 144, 240],
};

/** One value in so many is not known from the start. */
const OPEN_ONE_IN = 25;

/** A part of a kind whose attributes are known, some few not; `fixed` is decided before. */
function part(schema: Shape, fixed: Values): fc.Arbitrary<Values> {
  const attrs = attributesOf(schema).filter(([key, m]) => m.unsure && !(key in fixed));
  return fc
    .tuple(...attrs.map(() => fc.tuple(fc.nat(OPEN_ONE_IN - 1), fc.nat(1000))))
    .map((draws) => {
      const values: Values = { ...fixed };
      attrs.forEach(([key, meta], i) => {
        const [known, pick] = draws[i] as [number, number];
        const all =
          meta.input === 'choice'
            ? choicesOf(key, meta, values)
            : usualOf('hostEnd' in fixed && key === 'lengthMm' ? 'ribbonMm' : key, meta);
        if (isAsked(meta, values) && known > 0 && all.length > 0)
          values[key] = all[pick % all.length];
      });
      return values;
    });
}
/** Words that let a chain work come more often than those that stop it. */
const CALM: Record<string, readonly string[]> = {
  standard: ['usb4-40', 'pcie'],
  uplink: ['usb4-40'],
  tunnelling: ['yes'],
  outsideCards: ['yes'],
  chip: ['desktop'],
  supply: ['inside'],
  fixedLead: ['yes'],
  supplyForm: ['atx'],
  supplyStandard: ['atx3'],
  holds: ['nothing'],
  reach: ['outside'],
  retention: ['clamp'],
};
function choicesOf(key: string, meta: AttrMeta, values: Values): readonly string[] {
  const all = optionsOf(meta, values).map((o) => o.value);
  const calm = (CALM[key] ?? []).filter((word) => all.includes(word));
  return [...all, ...Array.from({ length: 7 }, () => calm).flat()];
}
function usualOf(key: string, meta: AttrMeta): readonly number[] {
  const min = meta.min ?? 0;
  const max = meta.max ?? Infinity;
  return (USUAL[key] ?? [min, max]).filter((n) => n >= min && n <= max);
}

/** What a standard settles is not a choice: Thunderbolt always tunnels, a plain port never does. */
function settled(socket: Values): Values {
  const standard = String(socket['standard'] ?? '');
  const narrow =
    socket['connector'] === 'usb-c' && typeof socket['lanes'] === 'number' ? { lanes: 4 } : {};
  if (standard === 'thunderbolt-3')
    return {
      ...socket,
      ...narrow,
      tunnelling: 'yes',
      ...(socket['pcieGen'] !== null && { pcieGen: 3 }),
    };
  if (standard.startsWith('thunderbolt')) return { ...socket, ...narrow, tunnelling: 'yes' };
  return { ...socket, ...narrow, ...(standard === 'usb-c' && { tunnelling: 'no' }) };
}
/** The classes of link chips that go with a dock's uplink; a class that does not is a contradiction and not less known. */
const CLASSES: Record<string, readonly string[]> = {
  'thunderbolt-3': ['a', 'b', 'c'],
  'thunderbolt-4': ['c'],
  'thunderbolt-5': ['d'],
  'usb4-80': ['d'],
  'usb4-40': ['c', 'd'],
  'usb4-20': ['c', 'd'],
};
function fitting(dock: Values): Values {
  const may = CLASSES[String(dock['uplink'])];
  return may && !may.includes(String(dock['controllerClass']))
    ? { ...dock, controllerClass: may[0] }
    : dock;
}

const LINKS = [
  { socket: 'usb-c', path: ['cable:usb-c'], dock: 'usb-c' },
  { socket: 'usb-c', path: ['cable:usb-c'], dock: 'usb-c' },
  { socket: 'usb-c', path: [], dock: 'usb-c' },
  { socket: 'oculink-4i', path: ['cable:oculink-4i'], dock: 'oculink-4i' },
  { socket: 'm2', path: ['adapter:m2:oculink-4i', 'cable:oculink-4i'], dock: 'oculink-4i' },
  { socket: 'm2', path: ['adapter:m2:pcie-slot'], dock: null },
  { socket: 'mini-card', path: ['adapter:mini-card:pcie-slot'], dock: null },
] as const;

const named = { maker: 'Alder', model: 'M', variant: '' };
/** A whole chain of one kind of link, some of its values not known. Texts are names, and names are always known. */
export const chains: fc.Arbitrary<Chain> = fc
  .constantFrom(...LINKS)
  .chain((link) =>
    fc.record({
      host: fc
        .constantFrom('laptop', 'handheld', 'mini-pc', 'desktop')
        .chain((form) => part(hostSchema as unknown as Shape, { ...named, form })),
      socket: part(socketSchema as unknown as Shape, { key: 'left', connector: link.socket }).map(
        settled,
      ),
      path: fc.tuple(
        ...link.path.map((p) => {
          const [kind, a, b] = p.split(':');
          return kind === 'cable'
            ? part(cableSchema, { ...named, connector: a })
            : part(adapterSchema as unknown as Shape, { ...named, hostEnd: a, farEnd: b });
        }),
      ),
      dock: link.dock
        ? fc
            .constantFrom('enclosure', 'enclosure', 'open-board', 'all-in-one')
            .chain((form) =>
              part(dockSchema as unknown as Shape, {
                ...named,
                form,
                connector: link.dock,
                capBeforeGbps: null,
              }),
            )
            .map(fitting)
        : fc.constant(null),
      card: fc
        .constantFrom('', 'Q-9')
        .chain((namesake) => part(cardSchema, { ...named, namesake })),
      supplies: fc.array(
        fc.record({
          feeds: fc.constantFrom('both', 'card', 'dock'),
          spec: fc
            .constantFrom('atx', 'sfx')
            .chain((form) => part(supplySchema, { ...named, form })),
        }),
        { maxLength: 2 },
      ),
      picture: fc.array(
        fc.record({
          by: fc.constantFrom('card', 'dock'),
          plug: fc.constantFrom('displayport', 'hdmi'),
          screen: part(screenSchema, named),
        }),
        { maxLength: 1 },
      ),
      system: fc.oneof(fc.constant(null), part(systemSchema, { ...named, family: 'linux' })),
    }),
  )
  .map(({ socket, ...c }) => ({
    ...c,
    host: { ...c.host, sockets: [socket] },
    socket: 'left',
    path: c.path.map((spec, i) => ({ key: 'abc'.charAt(i), spec })),
    supplies: c.supplies.map((s, i) => ({ ...s, key: 'abc'.charAt(i) })),
    picture: c.picture.map((p, i) => ({ ...p, key: 'abc'.charAt(i) })),
  }))
  .map((c) => chainSchema.safeParse(c))
  .filter((r) => r.success)
  .map((r) => r.data as Chain);
