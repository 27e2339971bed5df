import { select } from '../platform/db/database';
import type { Origin } from '@ruddy/core/base/contract';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { SOFTWARE_NAMES } from '@ruddy/core/parts';
import { EventModel } from './models/event';
import { notFound } from '../platform/http/problem';

export interface NewEvent {
  id: string;
  setupId: string;
  kind: SetupEvent['kind'];
  body: object;
  happenedAt: Date;
  recordedAt: Date;
  corrects?: string | null;
  private?: object | null;
  origin: Origin;
  by: string;
}

/** Condition on an event `e`: nobody has taken it back. */
export const STANDS = `NOT EXISTS (SELECT 1 FROM events c WHERE c.corrects = e.id AND c.kind = 'struck')`;

/** Append a fact to a setup's record under the next number, in the transaction of what it records. */
export async function addEvent(e: NewEvent): Promise<number> {
  const [row] = await select<{ next_seq: number }>(
    'UPDATE setups SET next_seq = next_seq + 1 WHERE id = $1 RETURNING next_seq',
    [e.setupId],
  );
  if (!row) throw notFound('setup');
  await EventModel.create({
    id: e.id,
    origin: e.origin,
    createdAt: e.recordedAt,
    createdBy: e.by,
    setupId: e.setupId,
    seq: row.next_seq,
    kind: e.kind,
    body: e.body,
    happenedAt: e.happenedAt,
    recordedAt: e.recordedAt,
    corrects: e.corrects ?? null,
    private: e.private ?? null,
  });
  return row.next_seq;
}

interface Row {
  id: string;
  seq: number;
  kind: SetupEvent['kind'];
  body: Record<string, unknown>;
  happened_at: Date;
  recorded_at: Date;
  corrects: string | null;
  by: string;
  origin: Origin;
}

const SOFTWARE = Object.values(SOFTWARE_NAMES).map((n) => n.toLowerCase());
const NAMED: readonly string[] = [
  'host',
  'port',
  'cable',
  'dock',
  'card',
  'loads',
  'supply',
  'screen',
  'system',
  'pieces',
  'approval',
  'security level',
  'internal graphics',
  'pins',
  'docked settings',
  'undocked settings',
  'buttons',
  'programs',
  'tuning',
  'use',
  ...SOFTWARE,
];
interface Snapshot {
  names?: Partial<Record<string, string>>;
}

function changes(before: Snapshot, after: Snapshot): { slot: string; from: string; to: string }[] {
  return NAMED.flatMap((slot) => {
    const from = before.names?.[slot] ?? '';
    const to = after.names?.[slot] ?? '';
    return from === to ? [] : [{ slot, from, to }];
  });
}

async function partChanges(setupId: string): Promise<SetupEvent[]> {
  const rows = await select<{
    id: string;
    rev: number;
    snapshot: Snapshot;
    at: Date;
    by: string;
    origin: Origin;
  }>(
    `SELECT r.id, r.rev, r.snapshot, r.at, m.name AS by, s.origin FROM setup_revisions r JOIN members m ON m.id = r.by
     JOIN setups s ON s.id = r.setup_id WHERE r.setup_id = $1 ORDER BY r.rev`,
    [setupId],
  );
  return rows.slice(1).flatMap((r, i): SetupEvent[] => {
    const list = changes(rows[i]?.snapshot ?? {}, r.snapshot);
    if (list.length === 0) return [];
    const at = r.at.toISOString();
    return [
      {
        id: r.id,
        seq: 0,
        kind: 'parts',
        body: { changes: list },
        happenedAt: at,
        recordedAt: at,
        corrects: null,
        by: r.by,
        origin: r.origin,
      },
    ];
  });
}

/** What was paid for the parts and pieces that stand in a setup. */
async function pricesPaid(setupId: string): Promise<SetupEvent[]> {
  const rows = await select<{
    id: string;
    body: Record<string, unknown>;
    on: string;
    recorded_at: Date;
    by: string;
    origin: Origin;
  }>(
    `SELECT p.id, jsonb_build_object('part', concat_ws(' ', x.spec ->> 'maker', x.spec ->> 'model', nullif(x.spec ->> 'variant', '')),
       'minor', p.minor, 'currency', p.currency, 'kind', p.kind, 'condition', p.condition) AS body,
       p.on_date::text AS "on", p.created_at AS recorded_at, m.name AS by, p.origin
     FROM prices p JOIN parts x ON x.id = p.part_id JOIN members m ON m.id = p.created_by
     WHERE p.withdrawn_at IS NULL AND p.kind = 'paid'
       AND EXISTS (SELECT 1 FROM setup_slots t WHERE t.setup_id = $1 AND t.part_id = p.part_id AND (p.item_id IS NULL OR p.item_id = t.item_id))`,
    [setupId],
  );
  return rows.map(({ on, recorded_at, ...r }): SetupEvent => ({
    ...r,
    seq: 0,
    kind: 'price',
    happenedAt: new Date(`${on}T12:00:00Z`).toISOString(),
    recordedAt: recorded_at.toISOString(),
    corrects: null,
  }));
}

/** A version marked as installed stands as its own fact; the change of the setup that came with it is not told twice. */
function unmarked(e: SetupEvent, marked: ReadonlySet<string>): SetupEvent[] {
  if (!marked.has(e.recordedAt)) return [e];
  const left = (e.body['changes'] as { slot: string }[]).filter((c) => !SOFTWARE.includes(c.slot));
  return left.length > 0 ? [{ ...e, body: { changes: left } }] : [];
}

/** The record of a setup, newest first: its facts, and its changes of parts folded by edit session. */
export async function recordOf(setupId: string): Promise<SetupEvent[]> {
  const rows = await select<Row>(
    `SELECT e.id, e.seq, e.kind, e.body || coalesce(e.private, '{}') AS body, e.happened_at, e.recorded_at, e.corrects, m.name AS by, e.origin
     FROM events e JOIN members m ON m.id = e.created_by WHERE e.setup_id = $1`,
    [setupId],
  );
  const facts = rows.map(({ happened_at, recorded_at, ...r }): SetupEvent => ({
    ...r,
    happenedAt: happened_at.toISOString(),
    recordedAt: recorded_at.toISOString(),
  }));
  const marked = new Set(facts.filter((f) => f.kind === 'version').map((f) => f.recordedAt));
  const changed = (await partChanges(setupId)).flatMap((e) => unmarked(e, marked));
  return [...facts, ...changed, ...(await pricesPaid(setupId))].sort(
    (a, b) =>
      b.happenedAt.localeCompare(a.happenedAt) ||
      b.recordedAt.localeCompare(a.recordedAt) ||
      b.seq - a.seq,
  );
}
