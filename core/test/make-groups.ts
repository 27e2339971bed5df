import {
  groupRuns,
  FACT_IDS,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  type RunClass,
  type RigFacts,
  type RunFacts,
  type RunGroup,
  type RunSeen,
} from '../src/runs';

/** A run of which nothing is to be told. */
export const PLAIN_RUN: RunClass = {
  repeats: [],
  slot: false,
  deviceSet: null,
  generated: false,
  capFps: null,
  heldAlone: null,
  outlier: null,
  throttled: null,
  spread: null,
  counts: true,
};

export function seeded(seed: number) {
  let a = seed >>> 0;
  const next = () => {
    a = (Math.imul(a, 1664525) + 1013904223) >>> 0;
    return (a >>> 8) / 16777216;
  };
  for (let i = 0; i < 8; i++) next();
  return {
    next,
    normal: () => Math.sqrt(-2 * Math.log(1 - next())) * Math.cos(2 * Math.PI * next()),
  };
}

export const WIDE = { slot: 252, direct: 57.3, tunnel: 26, half: 16 } as const;
export type LinkKind = keyof typeof WIDE;

export interface RunAsk {
  host?: string;
  card?: string;
  link?: LinkKind;
  resolution?: string;
  ms: readonly number[];
  setupId?: string;
  panel?: boolean;
  preset?: string;
  sameProcessor?: 'yes' | 'no' | null;
  title?: string;
  cardIndex?: number;
  hostIndex?: number;
  capped?: boolean;
  deviceSet?: 'inside' | 'card' | null;
  generation?: string;
}

/** A rig on a tunnelled link of which nothing but its names and rates is known. */
export function rigOf(host: string, card: string): RigFacts {
  return {
    host,
    card,
    hostIndex: null,
    cardIndex: null,
    down: { lo: WIDE.tunnel, hi: WIDE.tunnel },
    up: { lo: WIDE.tunnel * 0.97, hi: WIDE.tunnel * 0.97 },
    latencyUs: 2.2,
    memoryGB: null,
    boardW: null,
    memoryMHz: null,
    slot: false,
  };
}

let count = 0;

/** Repeats, as scores in frames/s. */
export function runsOf(a: RunAsk): RunSeen[] {
  const link = a.link ?? 'tunnel';
  const slot = link === 'slot';
  const host = a.host ?? 'host';
  const card = a.card ?? 'card';
  const resolution = a.resolution ?? '1920x1080';
  const settings = {
    ...NO_RUN_SETTINGS,
    resolution,
    preset: a.preset ?? 'High',
    screenPath: a.panel ? ('panel' as const) : ('outside' as const),
    deviceSet: a.deviceSet ?? null,
    generation: a.generation ?? 'off',
    upscaling: 'none',
    rayTracing: 'off' as const,
  };
  const down = WIDE[link];
  const foreign = slot && a.sameProcessor !== 'yes';
  const rig: RigFacts = {
    host: foreign ? 'another desktop' : host,
    card,
    hostIndex: a.hostIndex && !foreign ? { lo: a.hostIndex, hi: a.hostIndex } : null,
    cardIndex: a.cardIndex ? { lo: a.cardIndex, hi: a.cardIndex } : null,
    down: { lo: down, hi: down },
    up: { lo: down * 0.97, hi: down * 0.97 },
    latencyUs: link === 'slot' || link === 'direct' ? 1 : 2.2,
    memoryGB: null,
    boardW: null,
    memoryMHz: null,
    slot,
  };
  const facts = Object.fromEntries(FACT_IDS.map((f) => [f, ''])) as Record<string, string>;
  Object.assign(facts, {
    title: a.title ?? 'Title',
    card,
    host,
    resolution,
    link,
    preset: settings.preset,
    screenPath: settings.screenPath,
  });
  Object.assign(facts, { generation: settings.generation, deviceSet: settings.deviceSet ?? '' });
  return a.ms.map((ms) => ({
    id: `run-${count++}`,
    setupId: a.setupId ?? `${host}-${card}-${link}`,
    titleId: a.title ?? 'Title',
    title: a.title ?? 'Title',
    kind: 'score' as const,
    settings,
    rig,
    facts: facts as unknown as RunFacts,
    happenedAt: '2026-01-01T00:00:00Z',
    context: { ...NO_RUN_CONTEXT, norm: slot, sameProcessor: a.sameProcessor ?? null },
    result: { value: 1000 / ms, unit: 'frames/s' },
    stats: null,
    sensors: null,
  }));
}

/** One group of repeats. */
export const groupOf = (a: RunAsk): RunGroup => groupRuns(runsOf(a))[0] as RunGroup;
