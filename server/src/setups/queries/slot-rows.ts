import { type AnySpec, type Differs, pieceSpec } from '@ruddy/core/parts';
import { select } from '../../platform/db/database';
import type { SlotDetail, SlotName } from '../models/setup-slot';

export interface SlotRow {
  setup_id: string;
  slot: SlotName;
  ord: number;
  part_id: string;
  item_id: string | null;
  spec: AnySpec;
  socket: string | null;
  detail: SlotDetail;
}

/** The filled slots of several setups with their whole parts, in one query. */
export async function slotRows(setupIds: readonly string[]): Promise<Map<string, SlotRow[]>> {
  const rows = await select<SlotRow & { differs: Differs | null }>(
    `SELECT t.setup_id, t.slot, t.ord, t.part_id, t.item_id, p.spec, i.differs, k.key AS socket, t.detail
     FROM setup_slots t JOIN parts p ON p.id = t.part_id LEFT JOIN sockets k ON k.id = t.socket_id LEFT JOIN items i ON i.id = t.item_id
     WHERE t.setup_id = ANY($1::uuid[]) ORDER BY t.setup_id, t.slot, t.ord`,
    [setupIds],
  );
  const by = new Map<string, SlotRow[]>();
  for (const { differs, ...r } of rows)
    by.set(r.setup_id, [...(by.get(r.setup_id) ?? []), { ...r, spec: pieceSpec(r.spec, differs) }]);
  return by;
}
