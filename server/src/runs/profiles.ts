import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import type * as z from 'zod';
import type { Origin } from '@ruddy/core/base/contract';
import {
  type csvMapping,
  type CsvMapping,
  PROFILE_KIND_WORDS,
  type profileBody,
  type ProfileEntry,
  type ProfileKind,
  type profilePatch,
  type sessionBody,
  type SessionEntry,
} from '@ruddy/core/runs/contract';
import { HttpProblem, notFound } from '../platform/http/problem';
import { checkRevision } from '../platform/http/route';

interface Made {
  origin: Origin;
  at: Date;
  by: string;
}

const PROFILE = `SELECT p.id, p.name, p.kind, p.note, p.engine, p.year, p.params, p.origin, p.rev,
    (SELECT count(*)::int FROM runs r WHERE r.title_id = p.id) AS runs,
    (SELECT max(f.made_at) FROM profile_fits f WHERE f.profile_id = p.id AND f.fit ->> 'refused' IS NULL) AS "fittedAt"
  FROM profiles p`;
type ProfileRow = Omit<ProfileEntry, 'fittedAt'> & { fittedAt: Date | null };
const toProfile = (r: ProfileRow): ProfileEntry => ({
  ...r,
  fittedAt: r.fittedAt?.toISOString() ?? null,
});

/** Titles and work, by name, with how many runs each has. */
export async function listProfiles(): Promise<ProfileEntry[]> {
  const rows = await select<ProfileRow>(`${PROFILE} ORDER BY lower(p.name)`);
  return rows.map(toProfile);
}

/** Change what is said of a title, under the revision the page showed. */
export async function patchProfile(
  id: string,
  patch: z.output<typeof profilePatch>,
  revision: number,
): Promise<ProfileEntry> {
  return inTransaction(async () => {
    const read = async (lock: string) =>
      (await select<ProfileRow>(`${PROFILE} WHERE p.id = $1 ${lock}`, [id]))[0];
    const now = await read('FOR UPDATE OF p');
    if (!now) throw notFound('title');
    checkRevision(revision, now.rev, toProfile(now));
    const next = { ...now, ...patch };
    await execute(
      'UPDATE profiles SET note = $2, year = $3, params = $4, engine = $5, rev = rev + 1 WHERE id = $1',
      [id, next.note, next.year, next.params && JSON.stringify(next.params), next.engine],
    );
    return toProfile((await read('')) as ProfileRow);
  });
}

/** Add a title or a kind of work. One of the same name and kind is met, not doubled: its id is the answer. */
export async function addProfile(
  p: z.output<typeof profileBody>,
  made: Made,
): Promise<{ id: string; fresh: boolean }> {
  const [known] = await select<{ id: string; kind: ProfileKind }>(
    'SELECT id, kind FROM profiles WHERE lower(name) = lower($1) OR id = $2',
    [p.name, p.id],
  );
  if (known && known.kind !== p.kind)
    throw new HttpProblem(409, `"${p.name}" is known here as ${PROFILE_KIND_WORDS[known.kind]}`);
  if (known) return { id: known.id, fresh: false };
  await execute(
    'INSERT INTO profiles (id, origin, created_at, created_by, name, kind, note, year, params, engine) VALUES ($1, $2, $3, $4, $5, $6, $7, $8, $9, $10)',
    [
      p.id,
      made.origin,
      made.at,
      made.by,
      p.name,
      p.kind,
      p.note,
      p.year,
      p.params && JSON.stringify(p.params),
      p.engine,
    ],
  );
  return { id: p.id, fresh: true };
}

/** How files of known signatures are read, most recently used first. */
export async function listMappings(): Promise<CsvMapping[]> {
  return select<CsvMapping>(
    'SELECT signature, mapping FROM csv_mappings ORDER BY used_at DESC, signature LIMIT 2000',
  );
}

export async function keepMapping(m: z.output<typeof csvMapping>, at: Date): Promise<void> {
  await execute(
    `INSERT INTO csv_mappings (signature, mapping, used_at) VALUES ($1, $2, $3)
     ON CONFLICT (signature) DO UPDATE SET mapping = excluded.mapping, used_at = excluded.used_at`,
    [m.signature, JSON.stringify(m.mapping), at],
  );
}

/** Planned sessions, newest first. */
export async function listSessions(): Promise<SessionEntry[]> {
  const rows = await select<{
    id: string;
    body: Omit<SessionEntry, 'id' | 'createdAt' | 'origin'>;
    created_at: Date;
    origin: Origin;
  }>(
    'SELECT id, body, created_at, origin FROM sessions_planned ORDER BY created_at DESC, id DESC LIMIT 500',
  );
  return rows.map((r) => ({
    ...r.body,
    id: r.id,
    createdAt: r.created_at.toISOString(),
    origin: r.origin,
  }));
}

export async function addSession(
  s: z.output<typeof sessionBody>,
  made: Made,
): Promise<'stored' | 'same'> {
  const { id, ...body } = s;
  const fresh = await select(
    `INSERT INTO sessions_planned (id, origin, created_at, created_by, body) VALUES ($1, $2, $3, $4, $5) ON CONFLICT (id) DO NOTHING RETURNING id`,
    [id, made.origin, made.at, made.by, JSON.stringify(body)],
  );
  return fresh.length === 0 ? 'same' : 'stored';
}

/** Drop a planned session; runs made for it stay. */
export async function dropSession(id: string): Promise<void> {
  const [gone] = await select('DELETE FROM sessions_planned WHERE id = $1 RETURNING id', [id]);
  if (!gone) throw notFound('session');
}
