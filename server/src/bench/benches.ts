import { inTransaction } from '../platform/db/transaction';
import { randomInt } from 'node:crypto';
import { QueryTypes, type Sequelize } from 'sequelize';
import type * as z from 'zod';
import type { Act, TimedAct } from '@ruddy/core/bench';
import type {
  actBody,
  Bench,
  benchBody,
  BenchEvent,
  BenchRow,
  clockBody,
} from '@ruddy/core/bench/contract';
import { type Chain, chainNames } from '@ruddy/core/chain';
import { MAX_ACTS, simulate, type BenchRun } from '@ruddy/simbench';
import { HttpProblem, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { chainOf, resolveChain } from '../setups/chain';
import { readSetup } from '../setups/setup-store';

/** A bench as it is stored, with its clock read in the database: the one clock all server processes share. */
interface StoredBench {
  id: string;
  name: string;
  seed: number;
  chain: Chain;
  setup_id: string | null;
  setup_name: string | null;
  speed: number;
  origin: BenchRow['origin'];
  created_at: Date;
  base_ms: string;
  /** Bench time now, ms. */
  now_ms: string;
  next_seq: number;
  lines: number;
  reads: number;
}

const COLUMNS = `b.id, b.name, b.seed, b.chain, b.setup_id, b.speed, b.origin, b.created_at, b.base_ms, b.next_seq, b.lines, b.reads,
  (SELECT s.name FROM setups s WHERE s.id = b.setup_id) AS setup_name,
  floor(b.base_ms + extract(epoch FROM clock_timestamp() - b.base_at) * 1000 * b.speed)::bigint AS now_ms`;

async function lockBench(
  db: Sequelize,
  id: string,
  how = 'FOR UPDATE',
): Promise<StoredBench | null> {
  const [row] = await db.query<StoredBench>(
    `SELECT ${COLUMNS} FROM benches b WHERE b.id = $1 ${how}`,
    {
      type: QueryTypes.SELECT,
      bind: [id],
    },
  );
  return row ?? null;
}

/** What was done to several benches, each in order. */
async function actsOf(db: Sequelize, ids: readonly string[]): Promise<Map<string, TimedAct[]>> {
  const rows = await db.query<{ bench_id: string; bench_ms: string; body: Act }>(
    `SELECT bench_id, bench_ms, body FROM bench_events WHERE bench_id = ANY($1::uuid[]) AND kind = 'act' ORDER BY bench_id, seq`,
    { type: QueryTypes.SELECT, bind: [ids] },
  );
  const by = new Map<string, TimedAct[]>(ids.map((id) => [id, []]));
  for (const r of rows) by.get(r.bench_id)?.push({ ms: Number(r.bench_ms), act: r.body });
  return by;
}

async function actsOfOne(db: Sequelize, id: string): Promise<TimedAct[]> {
  return (await actsOf(db, [id])).get(id) ?? [];
}

type NewEvent = Pick<BenchEvent, 'kind' | 'ms'> & { body: object; actId?: string };

/** Append under the next numbers, which the locked row hands out, and wake who watches once it is committed. */
async function append(db: Sequelize, b: StoredBench, events: readonly NewEvent[]): Promise<void> {
  if (events.length === 0) return;
  const rows = events.map((e, i) => ({ ...e, seq: b.next_seq + i }));
  b.next_seq += rows.length;
  await db.query(
    `INSERT INTO bench_events (bench_id, seq, bench_ms, kind, body, act_id)
     SELECT $1, x.seq, x.ms, x.kind, x.body, x."actId" FROM jsonb_to_recordset($2::jsonb) AS x(seq int, ms bigint, kind text, body jsonb, "actId" uuid)`,
    { bind: [b.id, JSON.stringify(rows)] },
  );
  await db.query(`SELECT pg_notify('ruddy_stream', $1)`, { bind: [`bench/${b.id}`] });
}

/** Write what came about by itself up to a moment of bench time. The fold gives the whole log; what is new of it is appended. */
async function catchUp(
  db: Sequelize,
  b: StoredBench,
  acts: readonly TimedAct[],
  ms: number,
): Promise<BenchRun> {
  const def = { chain: b.chain, seed: b.seed };
  const run = simulate(def, acts, ms);
  const fresh = run.log.slice(b.lines);
  const states = new Map(
    [...new Set(fresh.map((l) => l.ms))].map((at) => [
      at,
      at === ms ? run.state : simulate(def, acts, at).state,
    ]),
  );
  b.lines += fresh.length;
  const lines = fresh.map(({ ms: at, code, params }) => ({
    kind: 'line' as const,
    ms: at,
    body: { code, params, state: states.get(at) },
  }));
  await append(db, b, lines);
  return run;
}

/** Store where the numbers stand. */
async function keep(db: Sequelize, b: StoredBench): Promise<void> {
  await db.query('UPDATE benches SET next_seq = $2, lines = $3, reads = $4 WHERE id = $1', {
    bind: [b.id, b.next_seq, b.lines, b.reads],
  });
}

/** Bench time now; never before what was already written, though the clock may be set back by a hair. */
function nowOf(b: StoredBench, acts: readonly TimedAct[]): number {
  return Math.max(Number(b.now_ms), acts[acts.length - 1]?.ms ?? 0, Number(b.base_ms));
}

/** Do something to a bench under its lock, after what came about before it was written. */
async function withBench<T>(
  s: Services,
  id: string,
  work: (b: StoredBench, acts: TimedAct[], run: BenchRun) => Promise<T>,
): Promise<T> {
  return inTransaction(s.db, async () => {
    const b = await lockBench(s.db, id);
    if (!b) throw notFound('bench');
    const acts = await actsOfOne(s.db, id);
    return work(b, acts, await catchUp(s.db, b, acts, nowOf(b, acts)));
  });
}

async function chainFor(s: Services, body: z.output<typeof benchBody>): Promise<Chain> {
  if (body.setupId === null) return resolveChain(s.db, body.chain ?? {}, null);
  const { rows, row } = await readSetup(s.db, body.setupId);
  return chainOf(rows, row.details);
}

/** Lay out a bench. A repeated id is answered with what is there. */
export async function createBench(
  s: Services,
  body: z.output<typeof benchBody>,
  actor: Actor,
): Promise<{ bench: Bench; fresh: boolean }> {
  const chain = await chainFor(s, body);
  const made = await s.db.query(
    `INSERT INTO benches (id, origin, created_at, created_by, name, seed, chain, setup_id, speed)
     VALUES ($1, 'own', $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (id) DO NOTHING RETURNING id`,
    {
      type: QueryTypes.SELECT,
      bind: [
        body.id,
        s.now(),
        actor.id,
        body.name,
        body.seed ?? randomInt(1_000_000),
        JSON.stringify(chain),
        body.setupId,
        body.speed,
      ],
    },
  );
  return { bench: await readBench(s, body.id), fresh: made.length > 0 };
}

function rowOf(b: StoredBench, run: BenchRun): BenchRow {
  const { host, dock, card } = chainNames(run.chain);
  const { id, name, seed, speed, origin } = b;
  const made = b.created_at.toISOString();
  return {
    id,
    name,
    seed,
    speed,
    origin,
    setupId: b.setup_id,
    setupName: b.setup_name,
    createdAt: made,
    host,
    dock,
    card,
    state: run.state,
  };
}

const MAX_BENCHES = 200;

/** Benches as they stand now, newest first. */
export async function listBenches(s: Services, setupId: string | undefined): Promise<BenchRow[]> {
  const rows = await s.db.query<StoredBench>(
    `SELECT ${COLUMNS} FROM benches b WHERE $1::uuid IS NULL OR b.setup_id = $1 ORDER BY b.created_at DESC, b.id DESC LIMIT ${MAX_BENCHES}`,
    { type: QueryTypes.SELECT, bind: [setupId ?? null] },
  );
  const acts = await actsOf(
    s.db,
    rows.map((b) => b.id),
  );
  return rows.map((b) =>
    rowOf(b, simulate({ chain: b.chain, seed: b.seed }, acts.get(b.id) ?? [], Number(b.now_ms))),
  );
}

/** Events of a bench after a number, in order. */
export async function benchEvents(
  db: Sequelize,
  id: string,
  after: number,
  limit: number,
): Promise<BenchEvent[]> {
  const rows = await db.query<{
    seq: number;
    bench_ms: string;
    kind: BenchEvent['kind'];
    body: BenchEvent['body'];
  }>(
    'SELECT seq, bench_ms, kind, body FROM bench_events WHERE bench_id = $1 AND seq > $2 ORDER BY seq LIMIT $3',
    { type: QueryTypes.SELECT, bind: [id, after, limit] },
  );
  return rows.map(
    ({ seq, bench_ms, kind, body }) => ({ seq, ms: Number(bench_ms), kind, body }) as BenchEvent,
  );
}

/** How much of a log the page opens with; the rest stays in the table. */
const LOG_LENGTH = 500;

/** A bench with its log after a number: all that fits when it is read, what was added when something was done. */
async function whole(s: Services, b: StoredBench, run: BenchRun, after: number): Promise<Bench> {
  const log = await benchEvents(s.db, b.id, after, LOG_LENGTH);
  return {
    ...rowOf(b, run),
    chain: run.chain,
    faults: run.faults,
    log,
    seq: b.next_seq - 1,
    nextMs: run.nextMs,
  };
}

export async function readBench(s: Services, id: string): Promise<Bench> {
  return withBench(s, id, async (b, _acts, run) => {
    await keep(s.db, b);
    return whole(s, b, run, Math.max(0, b.next_seq - 1 - LOG_LENGTH));
  });
}

/** Do one act at the bench, at its time of now. A repeated id is answered, not done twice. */
export async function doAct(
  s: Services,
  id: string,
  body: z.output<typeof actBody>,
): Promise<Bench> {
  return withBench(s, id, async (b, acts, { state: { ms } }) => {
    const before = b.next_seq - 1;
    const [known] = await s.db.query<{ bench_id: string }>(
      'SELECT bench_id FROM bench_events WHERE act_id = $1',
      {
        type: QueryTypes.SELECT,
        bind: [body.id],
      },
    );
    if (known && known.bench_id !== id)
      throw new HttpProblem(409, 'Another bench has this act', {
        errors: [{ path: 'id', message: 'Another bench has this act' }],
      });
    if (!known) {
      if (acts.length >= MAX_ACTS)
        throw new HttpProblem(409, 'This bench is full', {
          detail: `A bench holds ${MAX_ACTS} acts; lay out another one`,
        });
      await append(s.db, b, [{ kind: 'act', ms, body: body.act, actId: body.id }]);
      acts.push({ ms, act: body.act });
    }
    const run = await catchUp(s.db, b, acts, ms);
    await keep(s.db, b);
    return whole(s, b, run, before);
  });
}

/** Set the clock of a bench: its speed, a step, or on to what happens next. */
export async function setClock(
  s: Services,
  id: string,
  body: z.output<typeof clockBody>,
): Promise<Bench> {
  return withBench(s, id, async (b, acts, { state: { ms }, nextMs }) => {
    const before = b.next_seq - 1;
    const to = body.toNext ? (nextMs ?? ms) : ms + (body.stepMs ?? 0);
    b.speed = body.speed ?? b.speed;
    await s.db.query(
      'UPDATE benches SET base_ms = $2, base_at = clock_timestamp(), speed = $3 WHERE id = $1',
      {
        bind: [id, to, b.speed],
      },
    );
    const run = await catchUp(s.db, b, acts, to);
    await append(s.db, b, [{ kind: 'clock', ms: to, body: { speed: b.speed, state: run.state } }]);
    await keep(s.db, b);
    return whole(s, b, run, before);
  });
}

/** Bring a bench up to now, unless another process is at it; gives ms until something happens next by itself, null for never. */
export async function tick(s: Services, id: string): Promise<number | null> {
  return inTransaction(s.db, async () => {
    const b = await lockBench(s.db, id, 'FOR UPDATE SKIP LOCKED');
    if (!b) return 1000;
    const acts = await actsOfOne(s.db, id);
    const ms = nowOf(b, acts);
    const before = b.next_seq;
    const run = await catchUp(s.db, b, acts, ms);
    if (b.next_seq !== before) await keep(s.db, b);
    return run.nextMs === null || b.speed === 0 ? null : Math.max(1, (run.nextMs - ms) / b.speed);
  });
}

/** A reading takes the next number, so that no two are alike. */
export async function countReading(s: Services, id: string): Promise<{ run: BenchRun; n: number }> {
  return withBench(s, id, async (b, _acts, run) => {
    const n = b.reads++;
    await keep(s.db, b);
    return { run, n };
  });
}

export async function removeBench(s: Services, id: string): Promise<void> {
  const rows = await s.db.query('DELETE FROM benches WHERE id = $1 RETURNING id', {
    type: QueryTypes.SELECT,
    bind: [id],
  });
  if (rows.length === 0) throw notFound('bench');
  await s.db.query(`SELECT pg_notify('ruddy_stream', $1)`, { bind: [`bench/${id}`] });
}
