import { fn } from 'sequelize';
import type { BenchRow } from '@ruddy/core/bench/contract';
import type { Chain } from '@ruddy/core/chain';
import { select } from '../../platform/db/database';
import { BenchModel } from '../models/bench';

/** A bench as it is stored, with its clock read in the database: the one clock all server processes share. */
export interface StoredBench {
  id: string;
  name: string;
  seed: number;
  chain: Chain;
  setup_id: string | null;
  setup_name: string | null;
  speed: number;
  origin: BenchRow['origin'];
  created_at: Date;
  base_ms: number;
  /** Bench time now, ms. */
  now_ms: number;
  next_seq: number;
  lines: number;
  reads: number;
}

const COLUMNS = `b.id, b.name, b.seed, b.chain, b.setup_id, b.speed, b.origin, b.created_at, b.base_ms, b.next_seq, b.lines, b.reads,
  (SELECT s.name FROM setups s WHERE s.id = b.setup_id) AS setup_name,
  floor(b.base_ms + extract(epoch FROM clock_timestamp() - b.base_at) * 1000 * b.speed)::bigint AS now_ms`;

/** A bench under its lock; with `skip`, null where another process holds it. */
export async function lockBench(id: string, skip = false): Promise<StoredBench | null> {
  const [row] = await select<StoredBench>(
    `SELECT ${COLUMNS} FROM benches b WHERE b.id = $1 FOR UPDATE ${skip ? 'SKIP LOCKED' : ''}`,
    [id],
  );
  return row ?? null;
}

/** Benches, newest first: of one setup, or all. */
export function benchRows(setupId: string | null, limit: number): Promise<StoredBench[]> {
  return select<StoredBench>(
    `SELECT ${COLUMNS} FROM benches b WHERE $1::uuid IS NULL OR b.setup_id = $1 ORDER BY b.created_at DESC, b.id DESC LIMIT $2`,
    [setupId, limit],
  );
}

/** Sets where the clock of a bench stands and how fast it runs, from the moment of the statement on. */
export async function writeClock(id: string, baseMs: number, speed: number): Promise<void> {
  await BenchModel.update({ baseMs, speed, baseAt: fn('clock_timestamp') }, { where: { id } });
}
