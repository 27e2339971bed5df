import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import {
  casesIn,
  countsOf,
  figureLimits,
  type TroubleNote,
  troubleState,
} from '@ruddy/core/troubleshoot';
import type { figureBody, FigureRow, TablesRead } from '@ruddy/core/troubleshoot/contract';
import { invalid } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { STANDS } from '../setups/events';
import { newId } from '../platform/db/ids';

/** Figures lie among the settings, under a prefix of their own. */
const PREFIX = 'faults/';
export const settingKey = (key: string): string => PREFIX + key;

/** What is wrong with a figure: there is none of this name, or its number is out of range. */
export function figureProblem(
  key: string,
  value: number,
): { path: string; message: string } | null {
  const limits = figureLimits(key);
  if (!limits) return { path: 'key', message: `The net has no figure "${key}"` };
  if (value >= limits.lo && value <= limits.hi) return null;
  return { path: 'value', message: `Figure: from ${limits.lo} to ${limits.hi}` };
}

/** Figures that this workshop set, by name. */
export async function listFigures(): Promise<FigureRow[]> {
  const rows = await select<FigureRow>(
    `SELECT substr(key, ${PREFIX.length + 1}) AS key, value, reason, rev FROM settings
     WHERE member_id IS NULL AND starts_with(key, '${PREFIX}') AND value <> 'null'::jsonb ORDER BY key`,
  );
  return rows.filter((r) => figureLimits(r.key) !== null);
}

/** Set a figure, or let it be as it shipped. */
export async function putFigure(
  s: Services,
  body: z.output<typeof figureBody>,
  revision: number | null,
  actor: Actor,
): Promise<void> {
  const problem = figureProblem(body.key, body.value ?? figureLimits(body.key)?.lo ?? 0);
  if (problem) throw invalid(problem.path, problem.message);
  await inTransaction(async () => {
    await execute('SELECT pg_advisory_xact_lock(4312)');
    const [now] = await select<{ rev: number }>(
      'SELECT rev FROM settings WHERE member_id IS NULL AND key = $1',
      [settingKey(body.key)],
    );
    if (revision !== null) checkRevision(revision, now?.rev ?? 0, now ?? null);
    await execute(
      `INSERT INTO settings (id, origin, created_at, created_by, member_id, key, value, reason)
       VALUES ($1, 'own', $2, $3, NULL, $4, $5::jsonb, $6)
       ON CONFLICT (member_id, key) DO UPDATE SET value = EXCLUDED.value, reason = EXCLUDED.reason, rev = settings.rev + 1, origin = 'own'`,
      [newId(), s.now(), actor.id, settingKey(body.key), JSON.stringify(body.value), body.reason],
    );
  });
}

interface OpenNote {
  what: 'opened';
  symptoms: Extract<TroubleNote, { what: 'seen' }>['symptoms'];
}

/** Notes of every search of the workshop, those taken back left out, each search in order. */
async function allNotes(): Promise<TroubleNote[][]> {
  const rows = await select<{ trouble: string; note: TroubleNote | OpenNote }>(
    `SELECT e.body ->> 'trouble' AS trouble, e.body -> 'note' AS note FROM events e
     WHERE e.kind = 'trouble' AND ${STANDS} ORDER BY e.setup_id, e.seq`,
  );
  const by = new Map<string, TroubleNote[]>();
  for (const { trouble, note } of rows) {
    const list = by.get(trouble) ?? [];
    list.push(note.what === 'opened' ? { what: 'seen', symptoms: note.symptoms } : note);
    by.set(trouble, list);
  }
  return [...by.values()];
}

/** What moves the net in this workshop: figures it set, and counts of searches that ended with their cause. Practice does not count. */
export async function readTables(): Promise<TablesRead> {
  const [figures, notes] = await Promise.all([listFigures(), allNotes()]);
  const stretches = notes.flatMap((n) => {
    const s = troubleState(n);
    return s.closed?.outcome === 'discarded' ? [] : s.stretches;
  });
  const counts = countsOf(stretches);
  return { figures, counts, cases: casesIn(counts) };
}
