import {
  cellsOf,
  FACT_IDS,
  frameStats,
  type Judged,
  judgeShares,
  type Named,
  nameLimiter,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  observedOf,
  pairsOf,
  readBack,
  type RunFacts,
  type RunGroup,
  type RunSeen,
  tollsOf,
} from '@ruddy/core/runs';
import { readMeters, runRig, type Ask, type MadeRig } from '../src/frames';

/** Somebody who measures a made rig: runs, meters, repeats; knows nothing of how it is made. */
export const SIZES = [
  [1920, 1080],
  [2560, 1440],
  [3840, 2160],
] as const;
export interface Effort {
  readonly repeats?: number;
  readonly seconds?: number;
  readonly sizes?: readonly (readonly [number, number])[];
  /** Measure the other link as well, so that there is a pair. */
  readonly pair?: boolean;
  readonly meters?: boolean;
}

export function measured(
  rig: MadeRig,
  ask: Omit<Ask, 'repeat' | 'seconds'>,
  repeat: number,
  e: Effort,
): RunSeen {
  const whole: Ask = { ...ask, repeat, seconds: e.seconds ?? 20 };
  const run = runRig(rig, whole);
  const meters = e.meters === false ? null : readMeters(rig, run, whole);
  const gbps = ask.gbps ?? rig.linkGbps;
  const resolution = `${ask.width}x${ask.height}`;
  const path = ask.panel ? 'panel' : 'outside';
  const facts = Object.fromEntries(FACT_IDS.map((f) => [f, ''])) as Record<string, string>;
  Object.assign(facts, {
    title: 'made',
    card: 'card',
    host: 'host',
    resolution,
    link: String(gbps),
    screenPath: path,
  });
  const seen = (v: number) => ({ mean: v, p95: v, most: v });
  return {
    id: `${gbps} ${resolution} ${path} ${repeat}`,
    setupId: ask.gbps ? 'other' : 'own',
    titleId: 'made',
    title: 'made',
    kind: 'frames',
    facts: facts as unknown as RunFacts,
    result: null,
    happenedAt: '2026-01-01T00:00:00Z',
    settings: { ...NO_RUN_SETTINGS, resolution, screenPath: path, generation: 'off' },
    context: NO_RUN_CONTEXT,
    rig: {
      host: 'host',
      card: 'card',
      hostIndex: null,
      cardIndex: null,
      latencyUs: gbps > 50 ? 1 : rig.latencyUs,
      slot: false,
      down: { lo: gbps, hi: gbps },
      up: { lo: gbps * 0.97, hi: gbps * 0.97 },
      memoryGB: null,
      memoryMHz: null,
      boardW: { lo: rig.boardW, hi: rig.boardW },
    },
    stats: frameStats(run.frames),
    sensors:
      meters && Object.fromEntries(Object.entries(meters).map(([k, v]) => [k, seen(v as number)])),
  };
}

export interface Verdict {
  readonly cell: RunGroup;
  readonly judged: Judged | null;
  readonly named: Named | null;
}

/** What the limiter says of a rig at 2560x1440 after so much effort. */
export function verdictOn(rig: MadeRig, e: Effort = {}): Verdict {
  const { sizes = SIZES, repeats = 3, pair = true } = e;
  const runs = sizes.flatMap(([width, height]) =>
    [...(pair ? [undefined, rig.otherGbps] : [undefined])].flatMap((gbps, k) =>
      Array.from({ length: repeats }, (_, i) =>
        measured(rig, { width, height, ...(gbps && { gbps }) }, i + 10 * k, e),
      ),
    ),
  );
  const cells = cellsOf(runs);
  const { pairs } = pairsOf(cells);
  const cell = cells.find((c) => c.first.setupId === 'own' && c.pixels === 2560 * 1440) as RunGroup;
  const toll = tollsOf(pairs, 'own')[0] ?? null;
  const judged = judgeShares(observedOf(cell, cells, toll, readBack(pairs)));
  return { cell, judged, named: judged && nameLimiter(judged) };
}
