import { Op } from 'sequelize';
import { sameText } from '../db/rows';
import { KnownBrowserModel } from './models/known-browser';
import { MemberModel } from './models/member';
import { newToken, tokenHash } from './token';

/** A browser is forgotten this long after its last sign-in. */
export const KNOWN_MS = 180 * 86_400_000;

/** Has the browser of this token signed in under the name before? */
export async function isKnownBrowser(token: string, name: string): Promise<boolean> {
  const member = await MemberModel.findOne({ where: sameText('name', name) });
  if (!member) return false;
  return (
    (await KnownBrowserModel.count({
      where: { tokenHash: tokenHash(token), memberId: member.id },
    })) > 0
  );
}

/** Remembers a browser under a new token; the one it came with is worth nothing any more. */
export async function rememberBrowser(
  memberId: string,
  before: string | null,
  now: Date,
): Promise<string> {
  const token = newToken();
  const old = { seenAt: { [Op.lt]: new Date(now.getTime() - KNOWN_MS) } };
  await KnownBrowserModel.destroy({
    where: before === null ? old : { [Op.or]: [old, { tokenHash: tokenHash(before), memberId }] },
  });
  await KnownBrowserModel.create({ tokenHash: tokenHash(token), memberId, seenAt: now });
  return token;
}

/** Forgets every browser of a member. */
export async function forgetBrowsers(memberId: string): Promise<void> {
  await KnownBrowserModel.destroy({ where: { memberId } });
}
