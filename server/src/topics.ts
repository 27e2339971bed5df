import { BenchModel } from './bench/models/bench';
import { exists } from './platform/db/rows';
import { JobModel } from './platform/jobs/models/job';
import type { StreamEvent, TopicKind } from '@ruddy/core/bench/contract';
import type { Services } from './platform/http/route';
import { benchEvents, tick } from './bench/benches';
import { failStale, getJob } from './platform/jobs/jobs';

/** One thing to send, and the number up to which its topic is then seen. */
export interface Numbered {
  readonly seq: number;
  readonly event: StreamEvent;
}

/** Operations of a topic kind: existence, events after a number, and what to advance while it is watched. */
export interface TopicSource {
  exists(id: string): Promise<boolean>;
  /** In order and without gaps; null when what was watched is gone. */
  after(s: Services, id: string, seq: number): Promise<Numbered[] | null>;
  /** Move it on, and say in how many ms to do so again; null for not before it changes. */
  tick?(s: Services, id: string): Promise<number | null>;
}

const BATCH = 200;
/** Interval at which a watched job is checked. */
const STALE_LOOK_MS = 10_000;

export const TOPICS: Readonly<Record<TopicKind, TopicSource>> = {
  bench: {
    exists: (id) => exists(BenchModel, id),
    async after(s, id, seq) {
      const events = await benchEvents(id, seq, BATCH);
      if (events.length === 0 && !(await exists(BenchModel, id))) return null;
      return events.map((event) => ({
        seq: event.seq,
        event: { kind: 'bench', topic: `bench/${id}`, event },
      }));
    },
    tick: (s, id) => tick(id),
  },
  job: {
    exists: (id) => exists(JobModel, id),
    async tick(s, id) {
      await failStale(id);
      const row = await JobModel.findByPk(id);
      return row?.state === 'running' ? STALE_LOOK_MS : null;
    },
    async after(s, id, seq) {
      const row = await JobModel.findByPk(id);
      if (!row) return null;
      if (row.seq <= seq) return [];
      const job = await getJob(id);
      return [{ seq: row.seq, event: { kind: 'job', topic: `job/${id}`, seq: row.seq, job } }];
    },
  },
};
