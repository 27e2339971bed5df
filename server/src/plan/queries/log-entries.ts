import { select } from '../../platform/db/database';
import type * as z from 'zod';
import type { Origin, Page } from '@ruddy/core/base/contract';
import { type Chain, chainNames } from '@ruddy/core/chain';
import type { OutcomeEntry, outcomeQuery } from '@ruddy/core/compatibility/contract';
import { logConditions, NOT_RETRACTED } from './log-conditions';
import { decodeCursor, toPage } from '../../platform/db/paging';

export interface EntryRow {
  id: string;
  setup_id: string | null;
  setup_name: string | null;
  came_from: string;
  chain_key: string | null;
  chain: Chain;
  versions: OutcomeEntry['versions'];
  outcome: OutcomeEntry['outcome'];
  symptoms: string[];
  fixes: string[];
  provenance: OutcomeEntry['provenance'];
  confidence: number;
  happened_on: string;
  order_used: OutcomeEntry['order'];
  recorded_at: Date;
  supersedes: string | null;
  private: { note?: string } | null;
  corrected_by: string | null;
  superseded: boolean;
  origin: Origin;
}

export function toEntry(r: EntryRow): OutcomeEntry {
  return {
    id: r.id,
    setupId: r.setup_id,
    setupName: r.setup_name ?? '',
    cameFrom: r.came_from,
    chainKey: r.chain_key,
    chain: chainNames(r.chain),
    versions: r.versions,
    outcome: r.outcome,
    symptoms: r.symptoms,
    fixes: r.fixes,
    provenance: r.provenance,
    confidence: Math.round(r.confidence * 100) / 100,
    happenedOn: r.happened_on,
    order: r.order_used,
    note: r.private?.note ?? '',
    corrects: r.supersedes,
    correctedBy: r.corrected_by,
    superseded: r.superseded,
    origin: r.origin,
    recordedAt: r.recorded_at.toISOString(),
  };
}

/** Columns of an entry `e` with what became of it: corrected by another, or under versions that newer ones have taken the place of. */
export const ENTRY = `e.id, e.setup_id, (SELECT name FROM setups s WHERE s.id = e.setup_id) AS setup_name, e.came_from, e.chain_key, e.chain,
  e.versions, e.outcome, e.symptoms, e.fixes, e.provenance, e.confidence, e.happened_on::text AS happened_on, e.order_used, e.recorded_at,
  e.supersedes, e.private, e.origin, (SELECT c.id FROM log_entries c WHERE c.supersedes = e.id LIMIT 1) AS corrected_by`;
const SUPERSEDED = `EXISTS (SELECT 1 FROM log_entries n WHERE n.unit = e.unit AND n.chain_key IS NOT DISTINCT FROM e.chain_key
  AND n.versions <> e.versions AND n.happened_on > e.happened_on)`;
export const ENTRY_STATE = `${ENTRY}, ${SUPERSEDED} AS superseded`;

type ListQuery = Partial<z.output<typeof outcomeQuery>> & { limit: number; id?: string };

/** The statement of a page of the log with its values, newest first; one row more than asked tells whether there is another page. */
export function outcomesStatement(q: ListQuery): { sql: string; bind: unknown[] } {
  const after = decodeCursor(q.cursor, 2);
  const own = [
    q.setupId ?? null,
    q.outcome ?? null,
    q.id ?? null,
    q.chain ?? null,
    after?.[0] ?? null,
    after?.[1] ?? null,
  ];
  const filter = logConditions(q, own.length + 2);
  return {
    sql: `SELECT ${ENTRY_STATE} FROM (
        SELECT e.id FROM log_entries e
        WHERE ($1::uuid IS NULL OR e.setup_id = $1) AND ($2::text IS NULL OR e.outcome = $2) AND ($3::uuid IS NULL OR e.id = $3)
          AND ($4::text IS NULL OR e.chain_key = $4) AND ($5::date IS NULL OR (e.happened_on, e.id) < ($5::date, $6::uuid))
          AND ${filter.sql} ${q.newest ? `AND ${NOT_RETRACTED} AND NOT ${SUPERSEDED}` : ''}
        ORDER BY e.happened_on DESC, e.id DESC LIMIT $7
      ) p JOIN log_entries e USING (id) ORDER BY e.happened_on DESC, e.id DESC`,
    bind: [...own, q.limit + 1, ...filter.bind],
  };
}

/** A page of the log, newest first. An entry is superseded when the same setup was logged later under other versions. */
export async function listOutcomes(q: ListQuery): Promise<Page<OutcomeEntry>> {
  const { sql, bind } = outcomesStatement(q);
  const rows = await select<EntryRow>(sql, bind);
  return toPage(rows, q.limit, toEntry, (r) => [r.happened_on, r.id]);
}
