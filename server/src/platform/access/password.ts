import { createRequire } from 'node:module';
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

// The package is CommonJS whose names Node does not see from a module.
const load = createRequire(import.meta.url);
const estimator = () => {
  const { ZxcvbnFactory } = load('@zxcvbn-ts/core') as typeof import('@zxcvbn-ts/core');
  const common = load('@zxcvbn-ts/language-common') as typeof import('@zxcvbn-ts/language-common');
  return new ZxcvbnFactory({ dictionary: common.dictionary, graphs: common.adjacencyGraphs });
};
let made: ReturnType<typeof estimator> | undefined;

/** Looking for patterns takes time that grows with the length: 64 characters say enough. */
const LOOKED_AT = 64;
/** Of 0 to 4: 3 is at least 10^8 guesses (after the zxcvbn paper, Wheeler 2016, from memory). */
const LEAST_SCORE = 3;

/** Why a password is easily guessed: it stands on a list of common ones, or is one with a little added. Null when it is not. */
export function easilyGuessed(password: string, name: string): string | null {
  made ??= estimator();
  const { score, sequence } = made.check(password.slice(0, LOOKED_AT), [name, 'ruddy', 'bridge']);
  if (score >= LEAST_SCORE) return null;
  const patterns = new Set(sequence.map((m) => m.pattern));
  if (patterns.has('repeat')) return 'it repeats itself';
  if (patterns.has('dictionary')) return 'it is made of common passwords and words';
  return 'it follows a common pattern';
}
