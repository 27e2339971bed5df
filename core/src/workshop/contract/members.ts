import * as z from 'zod';
import { fileId, instant, origin, uuid, nameLine } from '../../base/contract';
import { PASSWORD_LEAST, ROLE_NAMES } from '../accounts';

export const role = z.enum(ROLE_NAMES);
export type Role = z.infer<typeof role>;

const name = nameLine('Name', 60);
const password = z
  .string()
  .min(PASSWORD_LEAST, { error: `Password: at least ${PASSWORD_LEAST} characters` })
  .max(200, { error: 'Password: at most 200 characters' });

/** A member who borrows or signs in. Without a password there is no sign-in under this name. */
export const memberBody = z.strictObject({
  id: uuid,
  name,
  role: role.default('member'),
  password: password.nullable().default(null),
});
export const memberPatch = z.strictObject({ name, role, active: z.boolean() }).partial();
/** A new password; `current` when it is one's own. */
export const passwordBody = z.strictObject({ current: z.string().max(200).default(''), password });

export const memberRow = z.object({
  id: uuid,
  name: z.string(),
  role,
  active: z.boolean(),
  hasPassword: z.boolean(),
  /** Gives a one-time code beside the password. */
  oneTimeCodes: z.boolean(),
  /** Browsers signed in right now. */
  signedIn: z.number().int(),
  /** Pieces with this member now. */
  out: z.number().int(),
  builtIn: z.boolean(),
  rev: z.number().int(),
  origin,
  createdAt: instant,
});
export type MemberRow = z.infer<typeof memberRow>;
export const memberList = z.object({ items: z.array(memberRow) });

const given = z.string().min(1, { error: 'Password: must not be empty' }).max(200);
/** A code of an authenticator program, or one of the recovery codes; empty where the member has none. */
const code = z.string().trim().max(40).default('');

export const signInBody = z.strictObject({
  name: z.string().trim().min(1, { error: 'Name: must not be empty' }).max(60),
  password: given,
  code,
});
/** The password again, before an act that asks for it. */
export const confirmBody = z.strictObject({ password: given, code });
/** Until when acts that ask for the password are taken without it. */
export const confirmAnswer = z.object({ until: instant });
/** The present session, and whether this server requires sign-in. */
export const meAnswer = z.object({
  signIn: z.boolean(),
  member: z.object({ id: uuid, name: z.string(), role }).nullable(),
});
/** One's own account: one-time codes, and the browsers that are signed in. */
export const accountAnswer = z.object({
  oneTimeCodes: z.boolean(),
  /** Recovery codes that are not used yet. */
  recoveryLeft: z.number().int(),
  sessions: z.array(
    z.object({
      id: uuid,
      begunAt: instant,
      seenAt: instant,
      /** Where it was begun from, and what the browser calls itself. */
      address: z.string(),
      browser: z.string(),
      /** The browser that asks. */
      here: z.boolean(),
    }),
  ),
});
export type Account = z.infer<typeof accountAnswer>;
/** A new secret for an authenticator program; it counts once a code of it was given. */
export const codesBegun = z.object({
  secret: z.string(),
  /** The secret as an address that authenticator programs take. */
  uri: z.string(),
  /** The same as a picture to scan, SVG. */
  qr: z.string(),
});
export type CodesBegun = z.infer<typeof codesBegun>;
export const codesBody = z.strictObject({
  code: z
    .string()
    .trim()
    .regex(/^\d{6}$/, { error: 'One-time code: six digits' }),
});
/** Shown once: only their hashes are stored. */
export const recoveryCodes = z.object({ recovery: z.array(z.string()) });

export type Me = z.infer<typeof meAnswer>;

/** A member in a file: names and roles, never a password. */
export const memberInFile = z.strictObject({
  id: fileId,
  name,
  role,
  active: z.boolean().default(true),
});
