import { Op, Transaction } from 'sequelize';
import type * as z from 'zod';
import type { passwordBody, signInBody, MemberRow } from '@ruddy/core/workshop/contract';
import { type OpenSession, THIS_MACHINE, type Visit } from '../platform/access/actor';
import { CONFIRMED_MS, requireConfirmed } from '../platform/access/confirmed';
import { rememberBrowser } from '../platform/access/known-browsers';
import { MemberModel } from '../platform/access/models/member';
import { codeFits } from '../platform/access/one-time-codes';
import { hashPassword, passwordFits } from '../platform/access/password';
import { beginSession, confirmSession, endSession } from '../platform/access/sessions';
import { takeTry, type Try } from '../platform/access/tries';
import { sameText } from '../platform/db/rows';
import { inTransaction } from '../platform/db/transaction';
import { HttpProblem, invalid } from '../platform/http/problem';
import type { Actor, Services } from '../platform/http/route';
import { changeMember, endEverything, getMember, refuseWeak } from './members';

export interface SignedIn {
  member: Actor;
  token: string;
  known: string;
}

/** Sign in by name, password and, where the member has one, a one-time code: always a new session; the one the browser came with ends. */
export async function signIn(
  s: Services,
  body: z.output<typeof signInBody>,
  visit: Visit,
): Promise<SignedIn> {
  const attempt = await takeTry(body.name, visit);
  const row = await MemberModel.findOne({
    where: { [Op.and]: [sameText('name', body.name), { active: true }] },
  });
  const fits = await passwordFits(row?.passwordHash ?? null, body.password);
  if (!row || !fits) throw notTogether(row?.name);
  if (row.codeSecret !== null && body.code === '') {
    await attempt.giveBack();
    throw codeNeeded();
  }
  const done = await inTransaction(async () => {
    const held = await unchangedSince(row);
    if (!(await codeFits(held, body.code, s.now()))) return null;
    if (visit.token !== null) await endSession(visit.token);
    return {
      member: { id: held.id, name: held.name, role: held.role },
      token: await beginSession(held.id, visit, s.now()),
      known: await rememberBrowser(held.id, visit.known, s.now()),
    };
  });
  if (done === null) throw wrongCode(row.name);
  await attempt.forget();
  return done;
}

/** A wrong name is not written down: it may be a password in the wrong field. */
const notTogether = (about = 'a name that is no member') =>
  new HttpProblem(401, 'Name and password do not belong together', { about });

const codeNeeded = () =>
  new HttpProblem(401, 'Give a one-time code', {
    code: 'code-needed',
    detail: 'Name and password are right; give a code of your authenticator program too',
  });

const WRONG_CODE = 'One-time code: does not fit, or was used already';
const wrongCode = (about: string) =>
  new HttpProblem(401, 'The one-time code does not fit', {
    code: 'code-needed',
    detail: WRONG_CODE,
    errors: [{ path: 'code', message: WRONG_CODE }],
    about,
  });

/**
 * The member whose password was just found right, held until the session is stored: looking at a password takes long,
 * and a new one given meanwhile ends all sessions but the one that comes after it.
 */
async function unchangedSince(seen: MemberModel): Promise<MemberModel> {
  const row = await MemberModel.findByPk(seen.id, { lock: Transaction.LOCK.UPDATE });
  if (!row?.active || row.passwordHash !== seen.passwordHash) throw notTogether(seen.name);
  return row;
}

const anotherPassword = () => invalid('current', 'The current password is another one');

/** Looks at the password of somebody signed in; each look is a try as at the sign-in. */
async function lookedAt(
  member: MemberModel,
  password: string,
  visit: Visit,
  wrong: () => HttpProblem,
): Promise<Try> {
  const attempt = await takeTry(member.name, visit);
  if (!(await passwordFits(member.passwordHash, password))) throw wrong();
  return attempt;
}

/** The password again, before an act that asks for it; counts for the session for a while. */
export async function confirm(
  s: Services,
  body: { password: string; code: string },
  actor: Actor,
  visit: Visit & { session: OpenSession | null },
): Promise<Date> {
  const { session } = visit;
  if (!session) throw new HttpProblem(409, 'Nobody signs in here');
  const member = await MemberModel.findByPk(actor.id, { rejectOnEmpty: true });
  const wrong = () => invalid('password', 'The password is another one');
  const attempt = await lookedAt(member, body.password, visit, wrong);
  const fits = await inTransaction(async () => {
    const held = await unchangedSince(member);
    if (held.codeSecret !== null && body.code === '') return 'missing' as const;
    if (!(await codeFits(held, body.code, s.now()))) return 'wrong' as const;
    await confirmSession(session.id, s.now());
    return 'right' as const;
  });
  if (fits === 'missing') {
    await attempt.giveBack();
    throw codeNeeded();
  }
  if (fits === 'wrong') throw invalid('code', WRONG_CODE);
  await attempt.forget();
  return new Date(s.now().getTime() + CONFIRMED_MS);
}

/**
 * Sets a new password. Members give their current one; a keeper sets those of others. Every older session ends;
 * members who changed their own get a new one.
 */
export async function setPassword(
  s: Services,
  id: string,
  body: z.output<typeof passwordBody>,
  actor: Actor,
  visit: Visit & { session: OpenSession | null },
): Promise<{ row: MemberRow; session: { token: string; known: string } | null }> {
  if (id === THIS_MACHINE.id) throw invalid('id', 'This machine has no password');
  const own = actor.id === id;
  if (!own && actor.role !== 'keeper')
    throw new HttpProblem(403, 'Not for this role', {
      detail: 'A password of others is given by a keeper',
    });
  if (!own) requireConfirmed(visit.session, s.now());
  const { name } = await getMember(s, id);
  const member = await MemberModel.findByPk(id, { rejectOnEmpty: true });
  if (own) await (await lookedAt(member, body.current, visit, anotherPassword)).forget();
  refuseWeak(name, body.password);
  const passwordHash = await hashPassword(body.password);
  return inTransaction(async () => {
    const now = await MemberModel.findByPk(id, { lock: Transaction.LOCK.UPDATE });
    // Somebody gave another one while this one was looked at.
    if (own && now?.passwordHash !== member.passwordHash) throw anotherPassword();
    await changeMember(id, { passwordHash });
    await endEverything(id);
    const session =
      own && s.access
        ? {
            token: await beginSession(id, visit, s.now()),
            known: await rememberBrowser(id, null, s.now()),
          }
        : null;
    return { row: await getMember(s, id), session };
  });
}
