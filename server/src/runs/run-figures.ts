import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { setImmediate as breathe } from 'node:timers/promises';
import { quantile } from '@ruddy/core/base';
import {
  cutFrames,
  FRAMES_VERSION,
  frameStats,
  type FrameStats,
  type Segment,
  type Sensor,
  SENSOR_IDS,
  type SensorSeen,
  type SensorsSeen,
} from '@ruddy/core/runs';
import { invalid } from '../platform/http/problem';
import { channelValues } from './captures';

/** What figures of a run hang on. */
export interface Counted {
  readonly id: string;
  readonly cutS: number;
  readonly segments: readonly Segment[];
  readonly setFps: number | null;
}

/** Compute what a run of frames shows and keep it. Others get their turn between the parts. */
export async function figure(run: Counted): Promise<void> {
  const frames = await channelValues(run.id, 'frames');
  if (!frames) return;
  const counted = cutFrames(frames, run.cutS, null);
  if (counted.length === 0) throw invalid('cutS', `Cut: nothing is left after ${run.cutS} s`);
  const limit = run.setFps === 0 ? null : run.setFps;
  const stats = frameStats(counted, limit);
  await breathe();
  const shown = await channelValues(run.id, 'shown');
  const shownStats = shown ? frameStats(cutFrames(shown, run.cutS, null), limit) : null;
  const segments: (FrameStats | null)[] = [];
  for (const s of run.segments) {
    await breathe();
    const part = cutFrames(frames, s.fromS, s.toS);
    segments.push(part.length > 0 ? frameStats(part, limit) : null);
  }
  await execute(
    `INSERT INTO run_figures (run_id, version, stats, shown, segments, sensors) VALUES ($1, $2, $3, $4, $5, $6)
     ON CONFLICT (run_id) DO UPDATE SET version = excluded.version, stats = excluded.stats, shown = excluded.shown,
       segments = excluded.segments, sensors = excluded.sensors`,
    [
      ...[
        run.id,
        FRAMES_VERSION,
        JSON.stringify(stats),
        shownStats && JSON.stringify(shownStats),
        JSON.stringify(segments),
      ],
      await sensorsSeen(run).then((s) => s && JSON.stringify(s)),
    ],
  );
}

/** What one meter showed after the cut; values it did not have are left out. */
function seenOf(values: Float32Array, from: number): SensorSeen | null {
  const known = values.subarray(Math.max(0, from)).filter((v) => Number.isFinite(v));
  if (known.length === 0) return null;
  const sorted = known.sort();
  const sum = sorted.reduce((a, b) => a + b, 0);
  return {
    mean: sum / sorted.length,
    p95: quantile(sorted, 0.95),
    most: sorted[sorted.length - 1] as number,
  };
}

/** What meters beside a run showed on average; null without any. */
async function sensorsSeen(run: Counted): Promise<SensorsSeen | null> {
  const lanes = await select<{ channel: Sensor; t0: number; dt: number | null }>(
    'SELECT channel, t0_ms AS t0, dt_ms AS dt FROM run_channels WHERE run_id = $1 AND channel = ANY($2::text[])',
    [run.id, [...SENSOR_IDS]],
  );
  const seen: Partial<Record<Sensor, SensorSeen>> = {};
  for (const lane of lanes) {
    const values = await channelValues(run.id, lane.channel);
    const from = lane.dt ? Math.ceil((run.cutS * 1000 - lane.t0) / lane.dt) : 0;
    const one = values && seenOf(values, from);
    if (one) seen[lane.channel] = one;
  }
  return Object.keys(seen).length > 0 ? seen : null;
}

/** Make the figures of runs anew that were made by older rules. */
export async function refreshFigures(one: (id: string) => Promise<void>): Promise<number> {
  const old = await select<{ id: string }>(
    `SELECT f.run_id AS id FROM run_figures f WHERE f.version < $1
       AND NOT EXISTS (SELECT 1 FROM events s WHERE s.kind = 'struck' AND s.corrects = f.run_id)`,
    [FRAMES_VERSION],
  );
  for (const { id } of old) await inTransaction(() => one(id));
  return old.length;
}
