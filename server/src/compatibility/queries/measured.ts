import type { Chain } from '@ruddy/core/chain';
import { select } from '../../platform/db/database';
import { NOT_RETRACTED } from '../../setups/queries/not-retracted';

interface OutcomeSeen {
  chain: Chain;
  worked: boolean;
  on: string;
  setup_id: string | null;
  name: string | null;
}

/** Outcomes that were seen, one a unit, newest first; hearsay is left out. */
export function outcomesSeen(): Promise<OutcomeSeen[]> {
  return select<OutcomeSeen>(
    `SELECT e.chain, u.worked, u.happened_on::text AS on, e.setup_id, t.name FROM log_units u JOIN log_entries e ON e.id = u.entry_id
     LEFT JOIN setups t ON t.id = e.setup_id WHERE NOT u.told ORDER BY u.happened_on DESC, u.entry_id LIMIT 20000`,
  );
}

interface CopyReading {
  setup_id: string;
  name: string;
  body: unknown;
  on: string;
}

/** Readings with a copy rate, retracted ones left out, newest first. */
export function copyReadings(): Promise<CopyReading[]> {
  return select<CopyReading>(
    `SELECT e.setup_id, t.name, e.body, e.happened_at::date::text AS on FROM events e JOIN setups t ON t.id = e.setup_id
     WHERE e.kind = 'reading' AND ${NOT_RETRACTED} AND (e.body ->> 'gbps') IS NOT NULL ORDER BY e.happened_at DESC, e.seq DESC LIMIT 5000`,
  );
}
