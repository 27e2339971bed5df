import type { Chain } from '@ruddy/core/chain';
import { select } from '../../platform/db/database';
import type { OutcomeBody } from '@ruddy/core/compatibility/contract';

/** An entry here that has an id of the file. */
export interface Known {
  id: string;
  setup_id: string | null;
  unit: string;
  chain: Chain;
  body: OutcomeBody;
}

/** Entries that say the same as one of the file, by their hash, or have its id. */
export function entriesKnown(
  hashes: readonly string[],
  ids: readonly string[],
): Promise<(Known & { hash: string })[]> {
  return select<Known & { hash: string }>(
    `SELECT id, setup_id, unit, chain, content_hash AS hash, jsonb_build_object('outcome', outcome, 'happenedOn', happened_on, 'versions', versions,
       'symptoms', symptoms, 'fixes', fixes, 'provenance', provenance, 'confidence', round(confidence::numeric, 3), 'order', order_used,
       'corrects', supersedes) AS body
     FROM log_entries WHERE content_hash = ANY ($1::text[]) OR id = ANY ($2::uuid[])`,
    [hashes, ids],
  );
}
