import { select } from '../platform/db/database';
import type * as z from 'zod';
import { type StepNote, stepTimes } from '@ruddy/core/bring-up';
import type {
  attemptEvent,
  AttemptRow,
  BringUp,
  endedEvent,
  goodEvent,
  stepEvent,
  StepRow,
  TriedRow,
  UsedRow,
} from '@ruddy/core/bring-up/contract';
import { type Chain, partName } from '@ruddy/core/chain';
import { chainOf } from '../setups/chain';
import { STANDS } from '../setups/events';
import { readSetup } from '../setups/setup-store';

/** Host and kind of link as tries are counted by: the cable may differ, the machine and its port may not. */
export function countedAs(chain: Chain): { host: string; link: string } {
  const port = chain.host?.sockets.find((s) => s.key === chain.socket);
  const standard = port
    ? typeof port.standard === 'string'
      ? port.standard
      : 'not known'
    : 'none';
  return {
    host: partName(chain.host).toLowerCase(),
    link: port ? `${port.connector} ${standard}` : 'none',
  };
}

interface EventRow<B> {
  id: string;
  body: B;
  at: Date;
  by: string;
}

/** Events of some kinds, oldest first, without those that were taken back. */
function notRetractedEvents<B>(setupId: string, kinds: readonly string[]) {
  return select<EventRow<B> & { kind: string }>(
    `SELECT e.id, e.kind, e.body, e.happened_at AS at, m.name AS by FROM events e JOIN members m ON m.id = e.created_by
     WHERE e.setup_id = $1 AND e.kind = ANY ($2::text[])
       AND ${STANDS} ORDER BY e.seq`,
    [setupId, kinds],
  );
}

type Ended = z.infer<typeof endedEvent>;

/** Attempts of a setup, oldest first, each with how it ended. */
export async function attemptsOf(setupId: string): Promise<AttemptRow[]> {
  const rows = await notRetractedEvents<z.infer<typeof attemptEvent> | Ended>(setupId, [
    'attempt',
    'ended',
  ]);
  const ended = new Map(
    rows.flatMap((r) =>
      r.kind === 'ended'
        ? [[(r.body as Ended).attempt, { body: r.body as Ended, at: r.at }] as const]
        : [],
    ),
  );
  return rows.flatMap((r): AttemptRow[] => {
    if (r.kind !== 'attempt') return [];
    const end = ended.get(r.id);
    return [
      {
        id: r.id,
        ...(r.body as z.infer<typeof attemptEvent>),
        startedAt: r.at.toISOString(),
        ended: end
          ? { outcome: end.body.outcome, worked: end.body.worked, at: end.at.toISOString() }
          : null,
      },
    ];
  });
}

/** What was noted at steps, in the order it was noted. */
export async function stepsOf(setupId: string): Promise<StepRow[]> {
  const rows = await notRetractedEvents<z.infer<typeof stepEvent>>(setupId, ['step']);
  return rows.map((r) => ({ id: r.id, at: r.at.toISOString(), by: r.by, ...r.body }));
}

/**
 * Tries of a host through a kind of link, oldest first; those taken back do not count. Entries of the log that name an order count, too,
 * unless an attempt of the same setup already tells of that order on that day: what the last step wrote is no second try.
 */
export async function triedOn({ host, link }: ReturnType<typeof countedAs>): Promise<TriedRow[]> {
  const rows = await select<Omit<TriedRow, 'at'> & { at: Date }>(
    `SELECT e.id, e.setup_id AS "setupId", s.name AS setup, e.body ->> 'order' AS "order", e.body ->> 'build' AS build,
       (e.body ->> 'worked')::boolean AS worked, e.happened_at AS at
     FROM events e JOIN setups s ON s.id = e.setup_id
     WHERE e.kind = 'ended' AND e.body ->> 'host' = $1 AND e.body ->> 'link' = $2 AND e.body ->> 'worked' IS NOT NULL
       AND ${STANDS}
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
     WHERE e.kind = 'used' AND ($1::uuid IS NULL OR e.setup_id = $1) AND ${STANDS} GROUP BY e.setup_id, s.name ORDER BY lower(s.name)`,
    [setupId],
  );
}

/** So many notes at steps tell how long steps take; the newest count. */
const TIMED = 5000;

/** Steps that were done in attempts of this workshop, and the beginnings of those attempts. The demo's were never done by anybody here. */
function timedNotes(): Promise<StepNote[]> {
  return select<StepNote>(
    `SELECT coalesce(e.body ->> 'attempt', e.id::text) AS attempt, e.body ->> 'step' AS step,
       to_char(e.happened_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"') AS at
     FROM events e WHERE e.origin <> 'demo' AND (e.kind = 'attempt' OR e.kind = 'step' AND e.body ->> 'state' = 'done') AND ${STANDS}
     ORDER BY e.seq DESC LIMIT ${TIMED}`,
  );
}

/** Everything the page of bringing up shows of a setup. */
export async function readBringUp(setupId: string): Promise<BringUp> {
  const { setup, rows, row } = await readSetup(setupId);
  const counted = countedAs(chainOf(rows, row.details));
  const [attempts, steps, tried, goods, notes] = await Promise.all([
    attemptsOf(setupId),
    stepsOf(setupId),
    counted.host === '' ? [] : triedOn(counted),
    notRetractedEvents<z.infer<typeof goodEvent>>(setupId, ['good']),
    timedNotes(),
  ]);
  const last = goods[goods.length - 1];
  const good = last ? { id: last.id, at: last.at.toISOString(), ...last.body } : null;
  const times = [...stepTimes(notes)].map(([step, t]) => ({ step, ...t }));
  return { setup, attempts, steps, tried, good, times };
}
