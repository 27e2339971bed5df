import {
  FACT_IDS,
  frameStats,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  type RunFacts,
  type RunSeen,
} from '@ruddy/core/runs';
import { readMeters, runRig, type Ask, type MadeRig } from '../src/frames';

export interface Effort {
  readonly seconds?: number;
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
