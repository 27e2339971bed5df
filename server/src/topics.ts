import type { Sequelize } from 'sequelize';
import { QueryTypes } from 'sequelize';
import type { StreamEvent, TopicKind } from '@ruddy/core/bench/contract';
import type { Services } from './platform/http/route';
import { benchEvents, tick } from './bench/benches';
import { failStale, getJob } from './platform/jobs/jobs';

/** One thing to send, and the number up to which its topic is then seen. */
export interface Numbered {
  readonly seq: number;
  readonly event: StreamEvent;
}

/** What a kind of topic can do: is it there, what came after a number, and what has to be moved on while somebody watches. */
export interface TopicSource {
  exists(db: Sequelize, id: string): Promise<boolean>;
  /** In order and without gaps; null when what was watched is gone. */
  after(s: Services, id: string, seq: number): Promise<Numbered[] | null>;
  /** Move it on, and say in how many ms to do so again; null for not before it changes. */
  tick?(s: Services, id: string): Promise<number | null>;
}

const BATCH = 200;
/** How often a job that somebody watches is looked after. */
const STALE_LOOK_MS = 10_000;

async function has(db: Sequelize, table: 'benches' | 'jobs', id: string): Promise<boolean> {
  const rows = await db.query(`SELECT 1 FROM ${table} WHERE id = $1`, {
    type: QueryTypes.SELECT,
    bind: [id],
  });
  return rows.length > 0;
}

export const TOPICS: Readonly<Record<TopicKind, TopicSource>> = {
  bench: {
    exists: (db, id) => has(db, 'benches', id),
    async after(s, id, seq) {
      const events = await benchEvents(s.db, id, seq, BATCH);
      if (events.length === 0 && !(await has(s.db, 'benches', id))) return null;
      return events.map((event) => ({
        seq: event.seq,
        event: { kind: 'bench', topic: `bench/${id}`, event },
      }));
    },
    tick: (s, id) => tick(s, id),
  },
  job: {
    exists: (db, id) => has(db, 'jobs', id),
    async tick(s, id) {
      await failStale(s.db, id);
      const [row] = await s.db.query<{ state: string }>('SELECT state FROM jobs WHERE id = $1', {
        type: QueryTypes.SELECT,
        bind: [id],
      });
      return row?.state === 'running' ? STALE_LOOK_MS : null;
    },
    async after(s, id, seq) {
      const [row] = await s.db.query<{ seq: number }>('SELECT seq FROM jobs WHERE id = $1', {
        type: QueryTypes.SELECT,
        bind: [id],
      });
      if (!row) return null;
      if (row.seq <= seq) return [];
      const job = await getJob(s.db, id);
      return [{ seq: row.seq, event: { kind: 'job', topic: `job/${id}`, seq: row.seq, job } }];
    },
  },
};
