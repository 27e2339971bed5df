import { Op } from 'sequelize';
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
import { lock } from '../platform/db/locks';
import { putSetting, readSetting, settingsWhere } from '../setups/settings';
import { troubleNotes } from './queries/trouble-notes';

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
  const rows = await settingsWhere({ key: { [Op.startsWith]: PREFIX } });
  return rows.flatMap(({ key, value, reason, rev }) => {
    const name = key.slice(PREFIX.length);
    return typeof value === 'number' && figureLimits(name) !== null
      ? [{ key: name, value, reason, rev }]
      : [];
  });
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
    await lock('netParameters');
    const now = await readSetting(settingKey(body.key));
    if (revision !== null) checkRevision(revision, now?.rev ?? 0, now && { rev: now.rev });
    const writer = { at: s.now(), by: actor.id };
    await putSetting(settingKey(body.key), body.value, writer, body.reason);
  });
}

/** Notes of every search of the workshop, those taken back left out, each search in order. */
async function allNotes(): Promise<TroubleNote[][]> {
  const by = new Map<string, TroubleNote[]>();
  for (const { trouble, note } of await troubleNotes()) {
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
