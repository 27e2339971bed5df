import { Op } from 'sequelize';
import { notify } from '../platform/db/notify';
import { createOnce } from '../platform/db/rows';
import { BenchModel } from './models/bench';
import { BenchEventModel } from './models/bench-event';
import { benchRows, lockBench, type StoredBench, writeClock } from './queries/bench-clock';
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

/** What was done to several benches, each in order. */
async function actsOf(ids: readonly string[]): Promise<Map<string, TimedAct[]>> {
  const rows = await BenchEventModel.findAll({
    where: { benchId: [...ids], kind: 'act' },
    order: ['benchId', 'seq'],
  });
  const by = new Map<string, TimedAct[]>(ids.map((id) => [id, []]));
  for (const r of rows) by.get(r.benchId)?.push({ ms: r.benchMs, act: r.body as Act });
  return by;
}

async function actsOfOne(id: string): Promise<TimedAct[]> {
  return (await actsOf([id])).get(id) ?? [];
}

type NewEvent = Pick<BenchEvent, 'kind' | 'ms'> & { body: object; actId?: string };

/** Appends events under the next numbers, taken from the locked row, and notifies watchers after the commit. */
async function append(b: StoredBench, events: readonly NewEvent[]): Promise<void> {
  if (events.length === 0) return;
  await BenchEventModel.bulkCreate(
    events.map(({ kind, ms, body, actId }, i) => ({
      benchId: b.id,
      seq: b.next_seq + i,
      benchMs: ms,
      kind,
      body,
      actId: actId ?? null,
    })),
  );
  b.next_seq += events.length;
  await notify(`bench/${b.id}`);
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
  const { next_seq: nextSeq, lines, reads } = b;
  await BenchModel.update({ nextSeq, lines, reads }, { where: { id: b.id } });
}

/** Bench time now; never before what was already written, though the clock may be set back by a hair. */
function nowOf(b: StoredBench, acts: readonly TimedAct[]): number {
  return Math.max(b.now_ms, acts[acts.length - 1]?.ms ?? 0, b.base_ms);
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

/** Creates a bench. A repeated id is answered with what is there. */
export async function createBench(
  s: Services,
  body: z.output<typeof benchBody>,
  actor: Actor,
): Promise<{ bench: Bench; fresh: boolean }> {
  const chain = await chainFor(body);
  const isNew = await createOnce(BenchModel, {
    id: body.id,
    origin: 'own',
    createdAt: s.now(),
    createdBy: actor.id,
    name: body.name,
    seed: body.seed ?? randomInt(1_000_000),
    chain,
    setupId: body.setupId,
    speed: body.speed,
  });
  return { bench: await readBench(body.id), fresh: isNew };
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
  const rows = await benchRows(setupId ?? null, MAX_BENCHES);
  const acts = await actsOf(rows.map((b) => b.id));
  return rows.map((b) =>
    rowOf(b, simulate({ chain: b.chain, seed: b.seed }, acts.get(b.id) ?? [], b.now_ms)),
  );
}

/** Events of a bench after a number, in order. */
export async function benchEvents(id: string, after: number, limit: number): Promise<BenchEvent[]> {
  const rows = await BenchEventModel.findAll({
    where: { benchId: id, seq: { [Op.gt]: after } },
    order: ['seq'],
    limit,
  });
  return rows.map(
    ({ seq, benchMs, kind, body }) => ({ seq, ms: benchMs, kind, body }) as BenchEvent,
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
    const known = await BenchEventModel.findOne({ where: { actId: body.id } });
    if (known && known.benchId !== id)
      throw new HttpProblem(409, 'Another bench has this act', {
        errors: [{ path: 'id', message: 'Another bench has this act' }],
      });
    if (!known) {
      if (acts.length >= MAX_ACTS)
        throw new HttpProblem(409, 'This bench is full', {
          detail: `A bench holds ${MAX_ACTS} acts; create another one`,
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
    await writeClock(id, to, b.speed);
    const run = await catchUp(b, acts, to);
    await append(b, [{ kind: 'clock', ms: to, body: { speed: b.speed, state: run.state } }]);
    await keep(b);
    return whole(b, run, before);
  });
}

/** Bring a bench up to now, unless another process is at it; gives ms until something happens next by itself, null for never. */
export async function tick(id: string): Promise<number | null> {
  return inTransaction(async () => {
    const b = await lockBench(id, true);
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
  if ((await BenchModel.destroy({ where: { id } })) === 0) throw notFound('bench');
  await notify(`bench/${id}`);
}
