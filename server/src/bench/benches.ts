import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { randomInt } from 'node:crypto';
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

async function lockBench(id: string, how = 'FOR UPDATE'): Promise<StoredBench | null> {
  const [row] = await select<StoredBench>(
    `SELECT ${COLUMNS} FROM benches b WHERE b.id = $1 ${how}`,
    [id],
  );
  return row ?? null;
}

/** What was done to several benches, each in order. */
async function actsOf(ids: readonly string[]): Promise<Map<string, TimedAct[]>> {
  const rows = await select<{ bench_id: string; bench_ms: string; body: Act }>(
    `SELECT bench_id, bench_ms, body FROM bench_events WHERE bench_id = ANY($1::uuid[]) AND kind = 'act' ORDER BY bench_id, seq`,
    [ids],
  );
  const by = new Map<string, TimedAct[]>(ids.map((id) => [id, []]));
  for (const r of rows) by.get(r.bench_id)?.push({ ms: Number(r.bench_ms), act: r.body });
  return by;
}

async function actsOfOne(id: string): Promise<TimedAct[]> {
  return (await actsOf([id])).get(id) ?? [];
}

type NewEvent = Pick<BenchEvent, 'kind' | 'ms'> & { body: object; actId?: string };

/** Append under the next numbers, which the locked row hands out, and wake who watches once it is committed. */
async function append(b: StoredBench, events: readonly NewEvent[]): Promise<void> {
  if (events.length === 0) return;
  const rows = events.map((e, i) => ({ ...e, seq: b.next_seq + i }));
  b.next_seq += rows.length;
  await execute(
    `INSERT INTO bench_events (bench_id, seq, bench_ms, kind, body, act_id)
     SELECT $1, x.seq, x.ms, x.kind, x.body, x."actId" FROM jsonb_to_recordset($2::jsonb) AS x(seq int, ms bigint, kind text, body jsonb, "actId" uuid)`,
    [b.id, JSON.stringify(rows)],
  );
  await execute(`SELECT pg_notify('ruddy_stream', $1)`, [`bench/${b.id}`]);
}

/** Write what came about by itself up to a moment of bench time. The fold gives the whole log; what is new of it is appended. */
async function catchUp(b: StoredBench, acts: readonly TimedAct[], ms: number): Promise<BenchRun> {
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
  await append(b, lines);
  return run;
}

/** Store where the numbers stand. */
async function keep(b: StoredBench): Promise<void> {
  await execute('UPDATE benches SET next_seq = $2, lines = $3, reads = $4 WHERE id = $1', [
    b.id,
    b.next_seq,
    b.lines,
    b.reads,
  ]);
}

/** Bench time now; never before what was already written, though the clock may be set back by a hair. */
function nowOf(b: StoredBench, acts: readonly TimedAct[]): number {
  return Math.max(Number(b.now_ms), acts[acts.length - 1]?.ms ?? 0, Number(b.base_ms));
}

/** Do something to a bench under its lock, after what came about before it was written. */
async function withBench<T>(
  id: string,
  work: (b: StoredBench, acts: TimedAct[], run: BenchRun) => Promise<T>,
): Promise<T> {
  return inTransaction(async () => {
    const b = await lockBench(id);
    if (!b) throw notFound('bench');
    const acts = await actsOfOne(id);
    return work(b, acts, await catchUp(b, acts, nowOf(b, acts)));
  });
}

async function chainFor(body: z.output<typeof benchBody>): Promise<Chain> {
  if (body.setupId === null) return resolveChain(body.chain ?? {}, null);
  const { rows, row } = await readSetup(body.setupId);
  return chainOf(rows, row.details);
}

/** Lay out a bench. A repeated id is answered with what is there. */
export async function createBench(
  s: Services,
  body: z.output<typeof benchBody>,
  actor: Actor,
): Promise<{ bench: Bench; fresh: boolean }> {
  const chain = await chainFor(body);
  const made = await select(
    `INSERT INTO benches (id, origin, created_at, created_by, name, seed, chain, setup_id, speed)
     VALUES ($1, 'own', $2, $3, $4, $5, $6, $7, $8) ON CONFLICT (id) DO NOTHING RETURNING id`,
    [
      body.id,
      s.now(),
      actor.id,
      body.name,
      body.seed ?? randomInt(1_000_000),
      JSON.stringify(chain),
      body.setupId,
      body.speed,
    ],
  );
  return { bench: await readBench(body.id), fresh: made.length > 0 };
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
export async function listBenches(setupId: string | undefined): Promise<BenchRow[]> {
  const rows = await select<StoredBench>(
    `SELECT ${COLUMNS} FROM benches b WHERE $1::uuid IS NULL OR b.setup_id = $1 ORDER BY b.created_at DESC, b.id DESC LIMIT ${MAX_BENCHES}`,
    [setupId ?? null],
  );
  const acts = await actsOf(rows.map((b) => b.id));
  return rows.map((b) =>
    rowOf(b, simulate({ chain: b.chain, seed: b.seed }, acts.get(b.id) ?? [], Number(b.now_ms))),
  );
}

/** Events of a bench after a number, in order. */
export async function benchEvents(id: string, after: number, limit: number): Promise<BenchEvent[]> {
  const rows = await select<{
    seq: number;
    bench_ms: string;
    kind: BenchEvent['kind'];
    body: BenchEvent['body'];
  }>(
    'SELECT seq, bench_ms, kind, body FROM bench_events WHERE bench_id = $1 AND seq > $2 ORDER BY seq LIMIT $3',
    [id, after, limit],
  );
  return rows.map(
    ({ seq, bench_ms, kind, body }) => ({ seq, ms: Number(bench_ms), kind, body }) as BenchEvent,
  );
}

/** How much of a log the page opens with; the rest stays in the table. */
const LOG_LENGTH = 500;

/** A bench with its log after a number: all that fits when it is read, what was added when something was done. */
async function whole(b: StoredBench, run: BenchRun, after: number): Promise<Bench> {
  const log = await benchEvents(b.id, after, LOG_LENGTH);
  return {
    ...rowOf(b, run),
    chain: run.chain,
    faults: run.faults,
    log,
    seq: b.next_seq - 1,
    nextMs: run.nextMs,
  };
}

export async function readBench(id: string): Promise<Bench> {
  return withBench(id, async (b, _acts, run) => {
    await keep(b);
    return whole(b, run, Math.max(0, b.next_seq - 1 - LOG_LENGTH));
  });
}

/** Do one act at the bench, at its time of now. A repeated id is answered, not done twice. */
export async function doAct(id: string, body: z.output<typeof actBody>): Promise<Bench> {
  return withBench(id, async (b, acts, { state: { ms } }) => {
    const before = b.next_seq - 1;
    const [known] = await select<{ bench_id: string }>(
      'SELECT bench_id FROM bench_events WHERE act_id = $1',
      [body.id],
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
      await append(b, [{ kind: 'act', ms, body: body.act, actId: body.id }]);
      acts.push({ ms, act: body.act });
    }
    const run = await catchUp(b, acts, ms);
    await keep(b);
    return whole(b, run, before);
  });
}

/** Set the clock of a bench: its speed, a step, or on to what happens next. */
export async function setClock(id: string, body: z.output<typeof clockBody>): Promise<Bench> {
  return withBench(id, async (b, acts, { state: { ms }, nextMs }) => {
    const before = b.next_seq - 1;
    const to = body.toNext ? (nextMs ?? ms) : ms + (body.stepMs ?? 0);
    b.speed = body.speed ?? b.speed;
    await execute(
      'UPDATE benches SET base_ms = $2, base_at = clock_timestamp(), speed = $3 WHERE id = $1',
      [id, to, b.speed],
    );
    const run = await catchUp(b, acts, to);
    await append(b, [{ kind: 'clock', ms: to, body: { speed: b.speed, state: run.state } }]);
    await keep(b);
    return whole(b, run, before);
  });
}

/** Bring a bench up to now, unless another process is at it; gives ms until something happens next by itself, null for never. */
export async function tick(id: string): Promise<number | null> {
  return inTransaction(async () => {
    const b = await lockBench(id, 'FOR UPDATE SKIP LOCKED');
    if (!b) return 1000;
    const acts = await actsOfOne(id);
    const ms = nowOf(b, acts);
    const before = b.next_seq;
    const run = await catchUp(b, acts, ms);
    if (b.next_seq !== before) await keep(b);
    return run.nextMs === null || b.speed === 0 ? null : Math.max(1, (run.nextMs - ms) / b.speed);
  });
}

/** A reading takes the next number, so that no two are alike. */
export async function countReading(id: string): Promise<{ run: BenchRun; n: number }> {
  return withBench(id, async (b, _acts, run) => {
    const n = b.reads++;
    await keep(b);
    return { run, n };
  });
}

export async function removeBench(id: string): Promise<void> {
  const rows = await select('DELETE FROM benches WHERE id = $1 RETURNING id', [id]);
  if (rows.length === 0) throw notFound('bench');
  await execute(`SELECT pg_notify('ruddy_stream', $1)`, [`bench/${id}`]);
}
