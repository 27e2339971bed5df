import type { Origin } from '@ruddy/core/base/contract';
import type { SetupEvent } from '@ruddy/core/compatibility/contract';
import { select } from '../../platform/db/database';

/** What was paid for the parts and pieces that stand in a setup. */
export async function pricesPaid(setupId: string): Promise<SetupEvent[]> {
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
