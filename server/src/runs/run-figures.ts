import { literal, Op } from 'sequelize';
import { RunChannelModel } from './models/run-channel';
import { RunStatisticsModel } from './models/run-statistics';
import { inTransaction } from '../platform/db/transaction';
import { setImmediate as breathe } from 'node:timers/promises';
import {
  cutFrames,
  FRAMES_VERSION,
  frameStats,
  type FrameStats,
  type Segment,
  type Sensor,
  SENSOR_IDS,
  type SensorSeen,
  sensorSeen,
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
  await RunStatisticsModel.upsert({
    runId: run.id,
    version: FRAMES_VERSION,
    stats,
    shown: shownStats,
    segments,
    sensors: await sensorsSeen(run),
  });
}

/** What meters beside a run showed on average; null without any. */
async function sensorsSeen(run: Counted): Promise<SensorsSeen | null> {
  const series = await RunChannelModel.findAll({
    where: { runId: run.id, channel: [...SENSOR_IDS] },
  });
  const seen: Partial<Record<Sensor, SensorSeen>> = {};
  for (const { channel, t0Ms, dtMs } of series) {
    const values = await channelValues(run.id, channel);
    const from = dtMs ? Math.ceil((run.cutS * 1000 - t0Ms) / dtMs) : 0;
    const one = values && sensorSeen(values.subarray(Math.max(0, from)));
    if (one) seen[channel as Sensor] = one;
  }
  return Object.keys(seen).length > 0 ? seen : null;
}

/** Make the figures of runs anew that were made by older rules. */
export async function refreshFigures(one: (id: string) => Promise<void>): Promise<number> {
  const old = await RunStatisticsModel.findAll({
    where: {
      [Op.and]: [
        { version: { [Op.lt]: FRAMES_VERSION } },
        literal(
          `NOT EXISTS (SELECT 1 FROM events s WHERE s.kind = 'struck' AND s.corrects = "RunStatisticsModel"."run_id")`,
        ),
      ],
    },
    attributes: ['runId'],
  });
  for (const { runId } of old) await inTransaction(() => one(runId));
  return old.length;
}
