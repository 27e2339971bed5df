import { setImmediate as breathe } from 'node:timers/promises';
import type { Sequelize, Transaction } from 'sequelize';
import { cutFrames, frameStats, FRAMES_VERSION, type FrameStats } from '@ruddy/core/frames';
import type { Segment } from '@ruddy/core/schema';
import { invalid } from '../http/problem';
import { channelValues } from './captures';

/** What figures of a run hang on. */
export interface Counted {
  readonly id: string;
  readonly cutS: number;
  readonly segments: readonly Segment[];
  readonly setFps: number | null;
}

/** Compute what a run of frames shows and keep it. Others get their turn between the parts. */
export async function figure(db: Sequelize, run: Counted, transaction: Transaction): Promise<void> {
  const frames = await channelValues(db, run.id, 'frames', transaction);
  if (!frames) return;
  const counted = cutFrames(frames, run.cutS, null);
  if (counted.length === 0) throw invalid('cutS', `Cut: nothing is left after ${run.cutS} s`);
  const limit = run.setFps === 0 ? null : run.setFps;
  const stats = frameStats(counted, limit);
  await breathe();
  const shown = await channelValues(db, run.id, 'shown', transaction);
  const shownStats = shown ? frameStats(cutFrames(shown, run.cutS, null), limit) : null;
  const segments: (FrameStats | null)[] = [];
  for (const s of run.segments) {
    await breathe();
    const part = cutFrames(frames, s.fromS, s.toS);
    segments.push(part.length > 0 ? frameStats(part, limit) : null);
  }
  await db.query(
    `INSERT INTO run_figures (run_id, version, stats, shown, segments) VALUES ($1, $2, $3, $4, $5)
     ON CONFLICT (run_id) DO UPDATE SET version = excluded.version, stats = excluded.stats, shown = excluded.shown, segments = excluded.segments`,
    {
      bind: [run.id, FRAMES_VERSION, JSON.stringify(stats), shownStats && JSON.stringify(shownStats), JSON.stringify(segments)],
      transaction,
    },
  );
}
