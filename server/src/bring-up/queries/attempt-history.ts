import type { StepNote } from '@ruddy/core/bring-up';
import type { TriedRow, UsedRow } from '@ruddy/core/bring-up/contract';
import { select } from '../../platform/db/database';
import { NOT_RETRACTED } from '../../setups/queries/not-retracted';

/** A host and a kind of link, as attempts are counted. */
interface CountedAs {
  host: string;
  link: string;
}

/**
 * Tries of a host through a kind of link, oldest first; those taken back do not count. Entries of the log that name an order count, too,
 * unless an attempt of the same setup already tells of that order on that day: what the last step wrote is no second try.
 */
export async function triedOn({ host, link }: CountedAs): Promise<TriedRow[]> {
  const rows = await select<Omit<TriedRow, 'at'> & { at: Date }>(
    `SELECT e.id, e.setup_id AS "setupId", s.name AS setup, e.body ->> 'order' AS "order", e.body ->> 'build' AS build,
       (e.body ->> 'worked')::boolean AS worked, e.happened_at AS at
     FROM events e JOIN setups s ON s.id = e.setup_id
     WHERE e.kind = 'ended' AND e.body ->> 'host' = $1 AND e.body ->> 'link' = $2 AND e.body ->> 'worked' IS NOT NULL
       AND ${NOT_RETRACTED}
     UNION ALL
     SELECT l.id, l.setup_id, coalesce(s.name, ''), l.order_used, coalesce(l.versions ->> 'system', ''), u.worked,
       l.happened_on::timestamptz + interval '12 hours'
     FROM log_units u JOIN log_entries l ON l.id = u.entry_id LEFT JOIN setups s ON s.id = l.setup_id
     WHERE NOT u.told AND l.order_used IS NOT NULL AND u.host = $1 AND replace(u.link, 'not-known', 'not known') = $2
       AND NOT EXISTS (SELECT 1 FROM events e WHERE e.setup_id = l.setup_id AND e.kind = 'ended' AND e.body ->> 'order' = l.order_used
         AND (e.happened_at AT TIME ZONE 'UTC')::date = l.happened_on)
     ORDER BY at, id`,
    [host, link],
  );
  return rows.map((r) => ({ ...r, at: r.at.toISOString() }));
}

/** Hours in use and drops of every setup, or of one; what was taken back does not count. */
export function usedHours(setupId: string | null = null): Promise<UsedRow[]> {
  return select<UsedRow>(
    `SELECT e.setup_id AS "setupId", s.name, sum((e.body ->> 'hours')::float8) AS hours, sum((e.body ->> 'drops')::int)::int AS drops,
       sum((e.body ->> 'freezes')::int)::int AS freezes, count(*)::int AS spans
     FROM events e JOIN setups s ON s.id = e.setup_id
     WHERE e.kind = 'used' AND ($1::uuid IS NULL OR e.setup_id = $1) AND ${NOT_RETRACTED} GROUP BY e.setup_id, s.name ORDER BY lower(s.name)`,
    [setupId],
  );
}

/** So many notes at steps tell how long steps take; the newest count. */
const TIMED = 5000;

/** Steps done in attempts of this workshop, and the starts of those attempts, without the demo's. */
export function timedNotes(): Promise<StepNote[]> {
  return select<StepNote>(
    `SELECT coalesce(e.body ->> 'attempt', e.id::text) AS attempt, e.body ->> 'step' AS step,
       to_char(e.happened_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS at
     FROM events e WHERE e.origin <> 'demo' AND (e.kind = 'attempt' OR e.kind = 'step' AND e.body ->> 'state' = 'done') AND ${NOT_RETRACTED}
     ORDER BY e.seq DESC LIMIT ${TIMED}`,
  );
}
