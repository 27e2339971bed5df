import { hash, verify } from '@node-rs/argon2';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Sequelize } from 'sequelize';
import { database } from '../db/database';
import { outsideTransaction } from '../db/transaction';
import { HttpProblem } from '../http/problem';

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

const WINDOW_S = 900;
const DAY_S = 86_400;

/** Ten wrong passwords for one name from one address in a quarter of an hour, a hundred from one address in a day, and wait. */
export const MAX_PER_NAME = 10;
export const MAX_PER_ADDRESS = 100;

/** Counts live in the database: several processes count together, and a restart forgets nothing. */
const made = new WeakMap<Sequelize, { name: RateLimiterPostgres; address: RateLimiterPostgres }>();
function limiters() {
  const known = made.get(database());
  if (known) return known;
  const common = {
    storeClient: database(),
    storeType: 'sequelize',
    tableName: 'sign_in_tries',
    tableCreated: true,
  } as const;
  const both = {
    name: new RateLimiterPostgres({
      ...common,
      keyPrefix: 'n',
      points: MAX_PER_NAME,
      duration: WINDOW_S,
    }),
    address: new RateLimiterPostgres({
      ...common,
      keyPrefix: 'a',
      points: MAX_PER_ADDRESS,
      duration: DAY_S,
    }),
  };
  made.set(database(), both);
  return both;
}

const nameKey = (name: string, address: string) =>
  `${name.trim().toLowerCase()} ${address}`.slice(0, 200);

/** Take one try before the password is looked at, so that many at once cannot slip past. Refuses when there are none left. */
export async function takeTry(name: string, address: string): Promise<void> {
  const { name: byName, address: byAddress } = limiters();
  try {
    // On connections of their own: a sign-in that is rolled back has been a try all the same.
    await outsideTransaction(async () => {
      await byAddress.consume(address);
      await byName.consume(nameKey(name, address));
    });
  } catch (refused) {
    if (!(refused instanceof RateLimiterRes)) throw refused;
    const minutes = Math.max(1, Math.ceil(refused.msBeforeNext / 60_000));
    throw new HttpProblem(429, 'Too many tries', {
      detail: `Too many tries; the next one in ${minutes} ${minutes === 1 ? 'minute' : 'minutes'}`,
      retryAfterS: Math.ceil(refused.msBeforeNext / 1000),
    });
  }
}

/** It was the right one: tries of this name from here count anew, and this one is given back. */
export async function forgetTries(name: string, address: string): Promise<void> {
  const { name: byName, address: byAddress } = limiters();
  await byName.delete(nameKey(name, address));
  await byAddress.reward(address);
}
