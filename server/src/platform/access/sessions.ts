import { createHash, randomBytes } from 'node:crypto';
import { Op } from 'sequelize';
import type { Actor } from './actor';
import { SessionModel } from './models/session';

/** A session ends after two weeks without a visit, and after 30 days anyway. */
const IDLE_MS = 14 * 86_400_000;
export const SESSION_MS = 30 * 86_400_000;
/** A visit is noted at most this often: reading a page should not write. */
const NOTE_MS = 600_000;

/** Only the hash is stored, so that a copy of the database gives no session away. */
function hashOf(token: string): Buffer {
  return createHash('sha256').update(token).digest();
}

const idleSince = (now: Date) => new Date(now.getTime() - IDLE_MS);

/** Begin a session and give what the browser keeps. */
export async function beginSession(memberId: string, now: Date): Promise<string> {
  const token = randomBytes(32).toString('base64url');
  const over = {
    [Op.or]: [{ expiresAt: { [Op.lt]: now } }, { seenAt: { [Op.lt]: idleSince(now) } }],
  };
  await SessionModel.destroy({ where: over });
  await SessionModel.create({
    tokenHash: hashOf(token),
    memberId,
    begunAt: now,
    seenAt: now,
    expiresAt: new Date(now.getTime() + SESSION_MS),
  });
  return token;
}

/** Member of a session; null when it has ended. The role is read anew each time. */
export async function sessionActor(token: string, now: Date): Promise<Actor | null> {
  const session = await SessionModel.findOne({
    where: {
      tokenHash: hashOf(token),
      expiresAt: { [Op.gt]: now },
      seenAt: { [Op.gt]: idleSince(now) },
    },
    include: { association: 'member', where: { active: true } },
  });
  if (!session?.member) return null;
  if (now.getTime() - session.seenAt.getTime() > NOTE_MS) await session.update({ seenAt: now });
  const { id, name, role } = session.member;
  return { id, name, role };
}

/** End one session. */
export async function endSession(token: string): Promise<void> {
  await SessionModel.destroy({ where: { tokenHash: hashOf(token) } });
}

/** End every session of a member. */
export async function endSessionsOf(memberId: string): Promise<void> {
  await SessionModel.destroy({ where: { memberId } });
}
