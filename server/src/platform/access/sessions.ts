import { execute, select } from '../db/database';
import { createHash, randomBytes } from 'node:crypto';
import type { Actor } from './actor';

/** A session ends after two weeks without a visit, and after 30 days anyway. */
const IDLE_MS = 14 * 86_400_000;
export const SESSION_MS = 30 * 86_400_000;
/** A visit is noted at most this often: reading a page should not write. */
const NOTE_MS = 600_000;

/** Only the hash is stored: who reads the database cannot sign in with what stands there. */
function hashOf(token: string): Buffer {
  return createHash('sha256').update(token).digest();
}

/** Begin a session and give what the browser keeps. */
export async function beginSession(memberId: string, now: Date): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  await execute('DELETE FROM sessions WHERE expires_at < $1 OR seen_at < $2', [
    now,
    new Date(now.getTime() - IDLE_MS),
  ]);
  await execute(
    'INSERT INTO sessions (token_hash, member_id, begun_at, seen_at, expires_at) VALUES ($1, $2, $3, $3, $4)',
    [hashOf(token), memberId, now, new Date(now.getTime() + SESSION_MS)],
  );
  return token;
}

/** Who holds this session, if anybody still does. Roles are read anew each time. */
export async function sessionActor(token: string, now: Date): Promise<Actor | null> {
  const [row] = await select<Actor & { seenAt: Date }>(
    `SELECT m.id, m.name, m.role, s.seen_at AS "seenAt" FROM sessions s JOIN members m ON m.id = s.member_id
     WHERE s.token_hash = $1 AND s.expires_at > $2 AND s.seen_at > $3 AND m.active`,
    [hashOf(token), now, new Date(now.getTime() - IDLE_MS)],
  );
  if (!row) return null;
  if (now.getTime() - row.seenAt.getTime() > NOTE_MS)
    await execute('UPDATE sessions SET seen_at = $2 WHERE token_hash = $1', [hashOf(token), now]);
  return { id: row.id, name: row.name, role: row.role };
}

/** End one session. */
export async function endSession(token: string): Promise<void> {
  await execute('DELETE FROM sessions WHERE token_hash = $1', [hashOf(token)]);
}

/** End every session of a member. */
export async function endSessionsOf(memberId: string): Promise<void> {
  await execute('DELETE FROM sessions WHERE member_id = $1', [memberId]);
}
