import type { Choice, ScoutInput } from '../src/buy';
import { matchOf } from '../src/compatibility';
import type { CardSpec, DockSpec, SupplySpec } from '../src/parts';
import { NO_TALLY } from '../src/plan';
import { statedTitle } from '../src/runs';
import {
  adapter,
  cable,
  card,
  dock,
  EMPTY,
  host,
  release,
  requirement,
  screen,
  socket,
  supply,
  system,
} from './make';

/** Numbers drawn by a small generator (a 32-bit mixer), so that a catalogue is the same for a seed everywhere. */
export function drawing(seed: number) {
  let s = seed >>> 0;
  const next = () => {
    s = (s + 0x6d2b79f5) >>> 0;
    let t = Math.imul(s ^ (s >>> 15), s | 1);
    t = (t + Math.imul(t ^ (t >>> 7), t | 61)) ^ t;
    return ((t ^ (t >>> 14)) >>> 0) / 4294967296;
  };
  return {
    next,
    from: <T>(...list: readonly T[]): T => list[Math.floor(next() * list.length)] as T,
    whole: (lo: number, hi: number) => lo + Math.floor(next() * (hi - lo + 1)),
  };
}

const choice = <S>(id: string, spec: S, minor: number | null, owned = false): Choice<S> => ({
  id,
  name: id,
  spec,
  minor: owned ? 0 : minor,
  owned,
  resaleMinor: null,
  alike: [],
});
const round = (x: number, to: number) => Math.round(x / to) * to;

export interface Sizes {
  readonly docks: number;
  readonly cards: number;
  readonly cables: number;
}

/** A made-up catalogue of plausible parts; some values are not known, some are ranges. */
export function catalogue(seed: number, sizes: Sizes): ScoutInput {
  const d = drawing(seed);
  const maybe = <T>(v: T): T | null => (d.next() < 0.06 ? null : v);
  const near = (v: number) => (d.next() < 0.05 ? { lo: v * 0.9, hi: v * 1.1 } : v);
  const cards = Array.from({ length: sizes.cards }, (_, i) => {
    const index = d.whole(30, 320);
    const boardW = round(60 + index * d.from(0.7, 0.9, 1.1), 5);
    const big = boardW > 220;
    const spec: CardSpec = card({
      model: `C-${i}`,
      family: d.from('north', 'south', 'east'),
      pcieGen: d.from(3, 4, 4, 5),
      lanes: d.from(8, 16, 16),
      memoryGB: d.from(8, 8, 12, 16),
      frameIndex: maybe(index),
      boardW: maybe(boardW),
      slotW: d.from(null, 66, 75),
      plugs8Pin: big ? d.from(0, 2, 3) : d.from(0, 1, 1),
      plugs16Pin: big ? d.from(0, 1) : 0,
      plugs6Pin: d.from(0, 0, 1),
      lengthMm: near(round(170 + index / 2 + d.whole(0, 40), 5)),
      heightMm: d.whole(100, 140),
      slots: d.from(2, 2.5, 3),
      weightG: d.from(null, 700, 1100, 1600),
      plugSide: d.from('top', 'end', null),
      plugAngled: d.from('yes', 'no', null),
      cooler: d.from('open-air', 'blower', null),
      chip: d.from('desktop', 'desktop', 'trimmed', null),
      namesake: '',
      dpLevel: d.from('hbr3', 'hbr3', 'uhbr10', null),
      hdmiLevel: d.from('2.0', 'frl-48', null),
      compression: d.from('yes', null),
    });
    return choice(
      `c${i}`,
      spec,
      maybe(round(8000 + index * d.whole(150, 320), 100)),
      d.next() < 0.03,
    );
  });
  const docks = Array.from({ length: sizes.docks }, (_, i) => {
    const usbC = d.next() < 0.7;
    const direct = d.from('oculink-4i', 'oculink-4i', 'own-port');
    const own = d.next() < 0.6;
    const spec: DockSpec = dock({
      model: `D-${i}`,
      form: d.from('enclosure', 'enclosure', 'open-board'),
      connector: usbC ? 'usb-c' : direct,
      ...(usbC
        ? {
            uplink: d.from('usb4-40', 'thunderbolt-3', 'thunderbolt-4', 'usb4-80', null),
            controllerClass: d.from('c', 'd', 'a', null),
          }
        : { uplink: direct === 'own-port' ? null : ('oculink' as const), controllerClass: null }),
      fixedLead: (['no', 'no', 'yes', null] as const)[i % 4] ?? null,
      slotGen: d.from(3, 4, 4),
      slotLanes: maybe(4),
      tb3Compat: d.from('yes', null),
      ownLead: d.from('yes', 'no'),
      ...(own
        ? {
            supply: 'inside',
            supplyW: d.from(350, 450, 550, 650),
            supplyStandard: d.from('atx3', 'older', null),
          }
        : { supply: 'separate', supplyForm: d.from('atx', 'sfx', 'outside', null) }),
      cables8Pin: own ? d.from(1, 2, 2) : null,
      cables16Pin: own ? d.from(0, 0, 1) : null,
      slotW: d.from(75, null),
      chargeOutW: usbC ? maybe(d.from(15, 60, 87, 100)) : 0,
      innerLengthMm: maybe(round(d.whole(180, 360), 10)),
      innerHeightMm: d.from(130, 140, 160, null),
      innerSlots: d.from(2, 2.5, 3, 3),
      retention: d.from('bracket', 'none', null),
      maxWeightG: d.from(null, 1500),
      screws: d.whole(2, 6),
      airflowCfm: maybe(d.whole(15, 60)),
      noiseDb: maybe(d.whole(28, 48)),
    });
    return choice(`d${i}`, spec, maybe(round(d.whole(9000, 42_000), 100)), d.next() < 0.05);
  });
  const usb = Array.from({ length: sizes.cables }, (_, i) => {
    const spec = cable({
      model: `K-${i}`,
      lengthMm: near(d.from(300, 500, 800, 1200, 2000)),
      construction: d.from('passive', 'passive', 'active', null),
      markedGbps: maybe(d.from(20, 40, 40, 80)),
      markedW: d.from(null, 60, 100, 240),
    });
    return {
      socket: d.from('left', 'left', 'rear'),
      pieces: [choice(`k${i}`, spec, round(d.whole(1500, 8000), 100), d.next() < 0.1)],
    };
  });
  const m2 = choice('t0', adapter({ model: 'T-0' }), 2500);
  const oculink = choice(
    'k-o',
    cable({ model: 'K-O', connector: 'oculink-4i', pcieGen: 4, markedGbps: null, lengthMm: 500 }),
    2200,
  );
  const riser = choice('t1', adapter({ model: 'T-1', farEnd: 'pcie-slot', lengthMm: 250 }), 3100);
  const supplies = [450, 650, 850].map((w, i) => {
    const spec: SupplySpec = supply({
      model: `S-${i}`,
      form: d.from('atx', 'sfx'),
      supplyW: w,
      supplyStandard: d.from('atx3', 'older'),
      cables8Pin: i + 1,
      cables16Pin: i > 0 ? 1 : 0,
    });
    return choice(`s${i}`, spec, 5000 + 3000 * i, i === 0);
  });
  const own = host({ chargeInW: 100 });
  const machine = {
    ...own,
    singleThread: 96,
    drawW: 60,
    chargeMinW: 45,
    batteryWh: 60,
    sockets: [
      ...own.sockets,
      socket({
        key: 'rear',
        position: 'rear',
        standard: d.from('usb4-80', null, 'thunderbolt-4'),
        tunnelling: d.from('yes', null),
      }),
      socket({
        key: 'm2-a',
        connector: 'm2',
        standard: 'pcie',
        pcieGen: 4,
        lanes: 4,
        holds: 'system-drive',
        reach: 'cover',
      }),
    ],
  };
  const base = { ...EMPTY, host: machine, system: system() };
  const fresh: ScoutInput = {
    base,
    context: {
      asOf: '2026-11-20',
      house: {},
      requirements: [
        requirement({
          subject: 'card',
          maker: 'any',
          model: 'east',
          needs: 'driver',
          atLeast: '600.1',
          severity: 'care',
        }),
        requirement({
          subject: 'dock',
          maker: 'any',
          model: 'D-1',
          needs: 'dockFirmware',
          atLeast: '2.0',
          severity: 'blocks',
        }),
        requirement({
          subject: 'host',
          maker: 'any',
          model: 'any',
          andCard: 'south',
          needs: 'repackaged',
          atLeast: '',
          severity: 'care',
        }),
      ],
      releases: [
        release({
          what: 'dockFirmware',
          maker: 'Alder',
          model: 'D-2',
          variant: '3.1',
          capGbps: 20,
          capBeforeGbps: 14,
        }),
      ],
    },
    currency: 'EUR',
    routes: [],
    docks,
    cards,
    supplies,
    boxes: [{ dockId: 'd0', cardId: 'c0', minor: 12_345 }],
    screens: [1440, 2160].map((h, i) => ({
      ...choice(
        `p${i}`,
        screen({
          model: `P-${i}`,
          widthPx: (h * 16) / 9,
          heightPx: h,
          hz: 60,
          dpLevel: 'hbr2',
          hdmiLevel: '2.0',
        }),
        20_000 * (i + 1),
        i === 0,
      ),
      plug: 'displayport' as const,
    })),
    frames: [
      [2560, 1440],
      [1920, 1080],
      [3840, 2160],
    ].map(([w = 0, h = 0]) => ({
      resolution: `${w}x${h}`,
      title: {
        id: 't',
        name: 'Fen Rally',
        evidence: [],
        stated: statedTitle({ cpuMs: 6, cardMs: 7, trafficMB: 9, workingGB: 7 }),
      },
      picture: {
        pixels: w * h,
        panel: false,
        capFps: null,
        powerMode: '',
        preset: '',
        rayTracing: false,
      },
    })),
    forgotten: { 'display-cable': 900, input: 2500 },
    seen: [],
    near: [],
    limits: {
      budgetMinor: 90_000,
      targetFps: 60,
      chargeW: null,
      noiseDb: null,
      lengthMm: null,
      noOpening: false,
      portable: false,
      openOnly: false,
      noRepackaged: false,
      proven: false,
      unsure: true,
    },
    weights: { frames: 2, money: 1, quiet: 0, small: 0, proven: 1 },
  };
  const routes = [
    ...usb,
    { socket: 'm2-a', pieces: [m2, oculink] },
    { socket: 'm2-a', pieces: [riser] },
  ];
  const seenAt = matchOf({
    ...base,
    socket: 'left',
    path: [{ key: 'a', spec: usb[0]?.pieces[0]?.spec as never }],
    dock: docks[0]?.spec ?? null,
    card: cards[1]?.spec ?? null,
  });
  const seen = seenAt.key
    ? [{ key: seenAt.key, tally: { ...NO_TALLY, n: 5, works: 1, fails: 4 } }]
    : [];
  return { ...fresh, routes, seen };
}

/** Every limit off: nothing is left out but what cannot be. */
export function unlimited(i: ScoutInput): ScoutInput {
  return { ...i, limits: { ...i.limits, budgetMinor: null, targetFps: null } };
}

/**
 * A big catalogue as a market has it: docks are built round a few link chips, supplies and cases, cards round chips that several makers put
 * on boards of their own size. Common practice, no published source.
 */
export function market(seed: number, sizes: Sizes): ScoutInput {
  const wild = catalogue(seed, { docks: 1, cards: 1, cables: sizes.cables });
  const d = drawing(seed + 1);
  const chips = Array.from({ length: 40 }, (_, i) => {
    const index = 35 + i * 7;
    const boardW = round(70 + index * d.from(0.7, 0.9), 5);
    return {
      index,
      boardW,
      pcieGen: i < 12 ? 3 : i < 32 ? 4 : 5,
      lanes: i % 5 === 0 ? 8 : 16,
      memoryGB: d.from(8, 12, 16),
      plugs8Pin: boardW > 240 ? d.from(2, 3) : boardW > 75 ? 1 : 0,
    };
  });
  const links = [
    { uplink: 'thunderbolt-3', controllerClass: 'c' },
    { uplink: 'thunderbolt-3', controllerClass: 'a' },
    { uplink: 'thunderbolt-4', controllerClass: 'c' },
    { uplink: 'usb4-40', controllerClass: 'd', slotGen: 4, tb3Compat: 'yes' },
    { uplink: 'usb4-40', controllerClass: null, tb3Compat: null },
    { uplink: 'usb4-80', controllerClass: 'd', slotGen: 4, tb3Compat: 'yes' },
  ] as const;
  const powers = [350, 400, 450, 550, 650, 750].flatMap((w) =>
    [1, 2, 3].map((n) => ({
      supply: 'inside' as const,
      supplyW: w,
      cables8Pin: n,
      cables16Pin: 0,
      slotW: 75,
    })),
  );
  const cards = Array.from({ length: sizes.cards }, (_, i) => {
    const { index, ...chip } = chips[i % chips.length] as (typeof chips)[number];
    const spec = card({
      ...chip,
      model: `C-${i}`,
      frameIndex: index,
      plugs6Pin: 0,
      plugs16Pin: 0,
      slotW: 66,
      lengthMm: round(170 + index / 3 + d.whole(0, 60), 5),
      heightMm: round(d.whole(110, 140), 5),
      slots: d.from(2, 2.5, 3),
      cooler: d.from('open-air', 'blower'),
      plugSide: 'top',
      plugAngled: 'no',
      dpLevel: 'hbr3',
      hdmiLevel: '2.0',
    });
    return choice(`c${i}`, spec, round(8000 + index * d.whole(180, 320), 100));
  });
  const docks = Array.from({ length: sizes.docks }, (_, i) => {
    const link = links[i % links.length] as (typeof links)[number];
    const power =
      d.next() < 0.75
        ? d.from(...powers)
        : {
            supply: 'separate' as const,
            supplyForm: d.from('atx' as const, 'sfx' as const),
            slotW: 75,
          };
    const size = d.whole(0, 30);
    const spec = dock({
      slotGen: 3,
      ...link,
      ...power,
      model: `D-${i}`,
      slotLanes: 4,
      ownLead: 'no',
      chargeOutW: d.from(60, 87, 100),
      innerLengthMm: 200 + size * 5,
      innerHeightMm: 130 + (size % 4) * 10,
      innerSlots: d.from(2, 2.5, 3),
      retention: 'bracket',
      airflowCfm: d.from(25, 35, 50),
      noiseDb: d.whole(28, 44),
      screws: 4,
    });
    return choice(`d${i}`, spec, round(d.whole(9000, 42_000), 100));
  });
  const supplies = wild.supplies.slice(0, 2);
  const ports = [
    socket({ chargeInW: 100 }),
    socket({ key: 'rear', standard: 'usb4-80', chargeInW: 100 }),
  ];
  const base = { ...wild.base, host: wild.base.host && { ...wild.base.host, sockets: ports } };
  return {
    ...wild,
    base,
    cards,
    docks,
    supplies,
    boxes: [],
    screens: wild.screens.slice(0, 1),
    routes: wild.routes.slice(0, sizes.cables),
  };
}
