import * as z from 'zod';
import { fileId, instant, origin, uuid } from '../../base/contract';
import { PASSWORD_LEAST, ROLE_NAMES } from '../accounts';

export const role = z.enum(ROLE_NAMES);
export type Role = z.infer<typeof role>;

const name = z
  .string()
  .trim()
  .min(1, { error: 'Name: must not be empty' })
  .max(60, { error: 'Name: at most 60 characters' });
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

export const signInBody = z.strictObject({
  name: z.string().trim().min(1, { error: 'Name: must not be empty' }).max(60),
  password: z.string().min(1, { error: 'Password: must not be empty' }).max(200),
});
/** The present session, and whether this server requires sign-in. */
export const meAnswer = z.object({
  signIn: z.boolean(),
  member: z.object({ id: uuid, name: z.string(), role }).nullable(),
});
export type Me = z.infer<typeof meAnswer>;

/** A member in a file: names and roles, never a password. */
export const memberInFile = z.strictObject({
  id: fileId,
  name,
  role,
  active: z.boolean().default(true),
});
