import { randomInt } from 'node:crypto';
import { generateSecret, generateURI, verifySync } from 'otplib';
import QRCode from 'qrcode';
import type { MemberModel } from './models/member';
import { RecoveryCodeModel } from './models/recovery-code';
import { tokenHash } from './token';

/**
 * One-time codes after RFC 6238: HMAC-SHA-1, six digits, 30 seconds. A clock may be one step early or late
 * (section 5.2), and no code counts twice.
 */
const STEP_S = 30;

/** A new secret, as authenticator programs take it. */
export async function newSecret(
  name: string,
): Promise<{ secret: string; uri: string; qr: string }> {
  const secret = generateSecret();
  const uri = generateURI({ issuer: 'Ruddy Bridge', label: name, secret });
  return { secret, uri, qr: await QRCode.toString(uri, { type: 'svg', margin: 2 }) };
}

/** The step of a code that fits and is newer than the last one used; null when it does not. */
export function stepOf(secret: string, code: string, after: number, now: Date): number | null {
  if (!/^\d{6}$/.test(code)) return null;
  const epoch = Math.floor(now.getTime() / 1000);
  // What lies ahead of every clock cannot have been used; the library takes it for a mistake.
  const afterTimeStep = Math.min(after, Math.floor(epoch / STEP_S) + 1);
  const found = verifySync({ secret, token: code, epoch, epochTolerance: STEP_S, afterTimeStep });
  return found.valid && 'timeStep' in found ? found.timeStep : null;
}

/** Letters and digits that are not taken for each other when written down. */
const LETTERS = 'abcdefghjkmnpqrstuvwxyz23456789';
const RECOVERY_CODES = 10;

const newRecoveryCode = () =>
  [0, 1]
    .map(() => Array.from({ length: 5 }, () => LETTERS[randomInt(LETTERS.length)]).join(''))
    .join('-');

const recoveryHash = (code: string) => tokenHash(code.toLowerCase().replace(/[^a-z0-9]/g, ''));

/** New recovery codes of a member; earlier ones are worth nothing any more. */
export async function newRecoveryCodes(memberId: string): Promise<string[]> {
  const codes = Array.from({ length: RECOVERY_CODES }, newRecoveryCode);
  await RecoveryCodeModel.destroy({ where: { memberId } });
  await RecoveryCodeModel.bulkCreate(
    codes.map((c) => ({ codeHash: recoveryHash(c), memberId, usedAt: null })),
  );
  return codes;
}

/**
 * Does the code belong to the member, whose row the caller holds? It is used up by that. A member without one-time
 * codes needs none.
 */
export async function codeFits(member: MemberModel, code: string, now: Date): Promise<boolean> {
  if (member.codeSecret === null) return true;
  const step = stepOf(member.codeSecret, code, member.codeStep ?? 0, now);
  if (step !== null) {
    await member.update({ codeStep: step });
    return true;
  }
  const [used] = await RecoveryCodeModel.update(
    { usedAt: now },
    { where: { codeHash: recoveryHash(code), memberId: member.id, usedAt: null } },
  );
  return used > 0;
}
