import { hash, verify } from '@node-rs/argon2';

/**
 * Argon2id with the library's settings (19 MiB, 2 passes, 1 lane: the first choice of OWASP's password storage sheet, from memory).
 * Letters that look the same are brought into one form, so that keyboards agree.
 */
export function hashPassword(password: string): Promise<string> {
  return hash(password.normalize('NFKC'));
}

/** What an unknown name is held against, so that it takes as long as a known one. */
const NOBODY = hashPassword('nobody has this password');

/** Does the password belong to the hash? Without a hash: never, and as slowly. */
export async function passwordFits(stored: string | null, password: string): Promise<boolean> {
  const fits = await verify(stored ?? (await NOBODY), password.normalize('NFKC'));
  return fits && stored !== null;
}
