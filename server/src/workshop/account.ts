import { Transaction } from 'sequelize';
import type { Account, CodesBegun } from '@ruddy/core/workshop/contract';
import type { OpenSession } from '../platform/access/actor';
import { MemberModel } from '../platform/access/models/member';
import { RecoveryCodeModel } from '../platform/access/models/recovery-code';
import { newRecoveryCodes, newSecret, stepOf } from '../platform/access/one-time-codes';
import { endOthers, openSessions } from '../platform/access/sessions';
import { inTransaction } from '../platform/db/transaction';
import { HttpProblem, invalid, notFound } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';

/** Who asks, with the session they ask in. */
interface Mine {
  actor: Actor;
  session: OpenSession | null;
}

function requireSession({ session }: Mine): OpenSession {
  if (!session)
    throw new HttpProblem(409, 'Nobody signs in here', {
      detail: 'Only this machine reaches this server; there are no accounts',
    });
  return session;
}

/** One's own one-time codes and browsers. */
export async function readAccount(s: Services, mine: Mine): Promise<Account> {
  const here = requireSession(mine);
  const { id } = mine.actor;
  const member = await MemberModel.findByPk(id, { rejectOnEmpty: true });
  const recoveryLeft = await RecoveryCodeModel.count({ where: { memberId: id, usedAt: null } });
  const sessions = await openSessions(id, s.now());
  return {
    oneTimeCodes: member.codeSecret !== null,
    recoveryLeft: member.codeSecret === null ? 0 : recoveryLeft,
    sessions: sessions.map((x) => ({
      id: x.id,
      begunAt: x.begunAt.toISOString(),
      seenAt: x.seenAt.toISOString(),
      address: x.address,
      browser: x.browser,
      here: x.id === here.id,
    })),
  };
}

/** A new secret, which counts once a code of it was given. */
export async function beginCodes(mine: Mine): Promise<CodesBegun> {
  requireSession(mine);
  const made = await newSecret(mine.actor.name);
  await MemberModel.update({ codePending: made.secret }, { where: { id: mine.actor.id } });
  return made;
}

/** The first code of the new secret: from now on the sign-in asks for one. Gives the recovery codes. */
export async function acceptCodes(s: Services, mine: Mine, code: string): Promise<string[]> {
  requireSession(mine);
  return inTransaction(async () => {
    const member = await MemberModel.findByPk(mine.actor.id, {
      lock: Transaction.LOCK.UPDATE,
      rejectOnEmpty: true,
    });
    if (member.codePending === null)
      throw invalid('code', 'One-time code: begin with a new secret first');
    const step = stepOf(member.codePending, code, 0, s.now());
    if (step === null)
      throw invalid('code', 'One-time code: does not fit; look at the clock of the device too');
    await member.update({ codeSecret: member.codePending, codePending: null, codeStep: step });
    return newRecoveryCodes(member.id);
  });
}

/** No more one-time codes for a member. Gives the name of whose they were. */
export async function dropCodes(id: string): Promise<string> {
  return inTransaction(async () => {
    const member = await MemberModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    if (!member) throw notFound('member');
    await member.update({ codeSecret: null, codePending: null, codeStep: null });
    await RecoveryCodeModel.destroy({ where: { memberId: id } });
    return member.name;
  });
}

/** Ends another browser's session, or those of all others. */
export async function endMine(s: Services, mine: Mine, id: string | null): Promise<Account> {
  const here = requireSession(mine);
  if (id === here.id) throw invalid('id', 'This browser is the one you are in: sign out to end it');
  const ended = await endOthers(mine.actor.id, id === null ? { allBut: here.id } : { id });
  if (id !== null && ended === 0) throw notFound('session');
  return readAccount(s, mine);
}
