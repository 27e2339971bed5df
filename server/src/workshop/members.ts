import { Op, Transaction } from 'sequelize';
import { MemberModel } from '../platform/access/models/member';
import { adopted, nextRevision } from '../platform/db/columns';
import { lock } from '../platform/db/locks';
import { exists, sameText } from '../platform/db/rows';
import { inTransaction } from '../platform/db/transaction';
import { memberRows } from './queries/member-rows';
import type * as z from 'zod';
import type { memberBody, memberPatch, MemberRow, Role } from '@ruddy/core/workshop/contract';
import { THIS_MACHINE } from '../platform/access/actor';
import { forgetBrowsers } from '../platform/access/known-browsers';
import { easilyGuessed, hashPassword } from '../platform/access/password';
import { endSessionsOf } from '../platform/access/sessions';
import { invalid, notFound } from '../platform/http/problem';
import { checkRevision, type Services } from '../platform/http/route';
import type { Made } from '../parts/items';

/** A keeper who can sign in. */
const WHO_CAN_KEEP = { role: 'keeper', active: true, passwordHash: { [Op.ne]: null } } as const;

export async function changeMember(
  id: string,
  values: Partial<Pick<MemberModel, 'name' | 'role' | 'active' | 'passwordHash' | 'codeSecret'>>,
): Promise<void> {
  await MemberModel.update(
    { ...values, rev: nextRevision(), origin: adopted() },
    { where: { id } },
  );
}

/** Ends every session of a member; no browser is known as theirs any more. */
export async function endEverything(id: string): Promise<void> {
  await endSessionsOf(id);
  await forgetBrowsers(id);
}

/** Members by name, the built-in keeper first. */
export async function listMembers(
  s: Pick<Services, 'now'>,
  id: string | null = null,
): Promise<MemberRow[]> {
  const rows = await memberRows(id, s.now());
  return rows.map((r) => ({ ...r, createdAt: r.createdAt.toISOString() }));
}

export async function getMember(s: Pick<Services, 'now'>, id: string): Promise<MemberRow> {
  const [found] = await listMembers(s, id);
  if (!found) throw notFound('member');
  return found;
}

/** Refuses a password that holds the name, or is one of the first that somebody would try. */
export function refuseWeak(name: string, password: string): void {
  if (password.toLowerCase().includes(name.trim().toLowerCase()) && name.trim().length > 3)
    throw invalid('password', 'Password: must not hold the name');
  const why = easilyGuessed(password, name);
  if (why !== null)
    throw invalid(
      'password',
      `Password: easily guessed, ${why}; take a few words that do not belong together`,
    );
}

async function refuseTaken(name: string, id: string): Promise<void> {
  const taken = await MemberModel.count({
    where: { [Op.and]: [sameText('name', name), { id: { [Op.ne]: id } }] },
  });
  if (taken > 0) throw invalid('name', `Name: ${name} is a member already`);
}

/** Write a member down. The same id twice changes nothing. */
export async function addMember(
  body: { id: string; name: string; role: Role; active?: boolean; passwordHash?: string | null },
  made: Omit<Made, 'by'>,
): Promise<'stored' | 'same'> {
  if (await exists(MemberModel, body.id)) return 'same';
  await refuseTaken(body.name, body.id);
  await MemberModel.create({
    id: body.id,
    origin: made.origin,
    createdAt: made.at,
    name: body.name,
    role: body.role,
    active: body.active ?? true,
    passwordHash: body.passwordHash ?? null,
  });
  return 'stored';
}

export async function createMember(
  s: Services,
  { password, ...body }: z.output<typeof memberBody>,
): Promise<{ row: MemberRow; fresh: boolean }> {
  if (password !== null) refuseWeak(body.name, password);
  const passwordHash = password === null ? null : await hashPassword(password);
  const fate = await inTransaction(() =>
    addMember({ ...body, passwordHash }, { origin: 'own', at: s.now() }),
  );
  return { row: await getMember(s, body.id), fresh: fate === 'stored' };
}

/**
 * At least one keeper who can sign in must remain. One lock, so that two keepers cannot retire each other at once.
 */
async function refuseLastKeeper(s: Services, id: string): Promise<void> {
  if (!s.access) return;
  const others = await MemberModel.count({
    where: { [Op.and]: [WHO_CAN_KEEP, { id: { [Op.ne]: id } }] },
  });
  if (others === 0) throw invalid('role', 'The last keeper who can sign in has to stay one');
}

/** Renames, changes the role, or retires a member; sessions of a retired member end at once. */
export async function patchMember(
  s: Services,
  id: string,
  patch: z.output<typeof memberPatch>,
  revision: number,
): Promise<MemberRow> {
  if (id === THIS_MACHINE.id)
    throw invalid('id', 'This machine is a keeper as long as nobody else can reach it');
  return inTransaction(async () => {
    await lock('members');
    const now = await getMember(s, id);
    checkRevision(revision, now.rev, now);
    if (patch.name !== undefined) await refuseTaken(patch.name, id);
    const role = patch.role ?? now.role;
    const active = patch.active ?? now.active;
    if (now.role === 'keeper' && now.active && now.hasPassword && (role !== 'keeper' || !active))
      await refuseLastKeeper(s, id);
    if (!active && now.out > 0)
      throw invalid(
        'active',
        `${now.name} still has ${now.out === 1 ? '1 item' : `${now.out} items`}; take them back first`,
      );
    await changeMember(id, { name: patch.name ?? now.name, role, active });
    if (!active) await endEverything(id);
    return getMember(s, id);
  });
}

/** Whether a keeper can sign in. Without one a server that other machines can reach does not start. */
export async function hasKeeper(): Promise<boolean> {
  return (await MemberModel.count({ where: WHO_CAN_KEEP })) > 0;
}

/** From the command line: give a keeper a password, and make the keeper when there is none of this name. */
export async function giveKeeper(
  s: Services,
  id: string,
  name: string,
  password: string,
): Promise<'made' | 'changed'> {
  refuseWeak(name, password);
  const passwordHash = await hashPassword(password);
  return inTransaction(async () => {
    const row = await MemberModel.findOne({
      where: sameText('name', name),
      lock: Transaction.LOCK.UPDATE,
    });
    if (row?.id === THIS_MACHINE.id)
      throw invalid('name', 'This machine has no password; give the keeper a name of their own');
    if (!row) {
      await addMember({ id, name, role: 'keeper', passwordHash }, { origin: 'own', at: s.now() });
      return 'made';
    }
    // Whoever has the machine in hand is let in: a lost authenticator must not keep the last keeper out.
    await changeMember(row.id, { role: 'keeper', active: true, passwordHash, codeSecret: null });
    await endEverything(row.id);
    return 'changed';
  });
}
