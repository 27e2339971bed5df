import { Op } from 'sequelize';
import { newId } from '../db/ids';
import type { Signed, Visit } from './actor';
import { SessionModel } from './models/session';
import { newToken, tokenHash } from './token';

/** A session ends after two weeks without a visit, and after 30 days anyway. */
const IDLE_MS = 14 * 86_400_000;
export const SESSION_MS = 30 * 86_400_000;
/** A visit is noted at most this often: reading a page should not write. */
const NOTE_MS = 600_000;

const idleSince = (now: Date) => new Date(now.getTime() - IDLE_MS);

/** Begin a session and give what the browser keeps. */
export async function beginSession(memberId: string, visit: Visit, now: Date): Promise<string> {
  const token = newToken();
  const over = {
    [Op.or]: [{ expiresAt: { [Op.lt]: now } }, { seenAt: { [Op.lt]: idleSince(now) } }],
  };
  await SessionModel.destroy({ where: over });
  await SessionModel.create({
    tokenHash: tokenHash(token),
    id: newId(),
    memberId,
    begunAt: now,
    seenAt: now,
    confirmedAt: now,
    address: visit.address,
    browser: visit.browser,
    expiresAt: new Date(now.getTime() + SESSION_MS),
  });
  return token;
}

/** Member of a session, and the session; null when it has ended. The role is read anew each time. */
export async function sessionActor(token: string, now: Date): Promise<Signed | null> {
  const session = await SessionModel.findOne({
    where: {
      tokenHash: tokenHash(token),
      expiresAt: { [Op.gt]: now },
      seenAt: { [Op.gt]: idleSince(now) },
    },
    include: { association: 'member', where: { active: true } },
  });
  if (!session?.member) return null;
  if (now.getTime() - session.seenAt.getTime() > NOTE_MS) await session.update({ seenAt: now });
  const { id, name, role } = session.member;
  const { id: sessionId, confirmedAt } = session;
  return { actor: { id, name, role }, session: { id: sessionId, confirmedAt } };
}

/** The password was given again in this session. */
export async function confirmSession(id: string, now: Date): Promise<void> {
  await SessionModel.update({ confirmedAt: now }, { where: { id } });
}

/** Sessions of a member that are open, the last used first. */
export function openSessions(memberId: string, now: Date): Promise<SessionModel[]> {
  return SessionModel.findAll({
    where: { memberId, expiresAt: { [Op.gt]: now }, seenAt: { [Op.gt]: idleSince(now) } },
    order: [['seenAt', 'DESC']],
  });
}

/** End sessions of a member: one by its id, or all but one. */
export async function endOthers(
  memberId: string,
  which: { id: string } | { allBut: string },
): Promise<number> {
  const id = 'id' in which ? which.id : { [Op.ne]: which.allBut };
  return SessionModel.destroy({ where: { memberId, id } });
}

/** End one session. */
export async function endSession(token: string): Promise<void> {
  await SessionModel.destroy({ where: { tokenHash: tokenHash(token) } });
}

/** End every session of a member. */
export async function endSessionsOf(memberId: string): Promise<void> {
  await SessionModel.destroy({ where: { memberId } });
}
