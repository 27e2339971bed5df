import { createHash } from 'node:crypto';
import ipaddr from 'ipaddr.js';
import { RateLimiterPostgres, RateLimiterRes } from 'rate-limiter-flexible';
import type { Sequelize } from 'sequelize';
import { database } from '../db/database';
import { outsideTransaction } from '../db/transaction';
import { HttpProblem } from '../http/problem';
import type { Visit } from './actor';
import { isKnownBrowser } from './known-browsers';

/** Wrong passwords are counted per name over all addresses, per address, and per browser that has signed in under the name before. */
type Counted = 'name' | 'address' | 'browser';

interface Rule {
  /** Wrong ones in a row before the first delay. */
  readonly free: number;
  /** The count starts anew after this. */
  readonly windowS: number;
  /** A delay never grows longer than this. */
  readonly longestS: number;
}
/** The window of an address is short: behind one address there may be a whole house. */
export const RULES: Readonly<Record<Counted, Rule>> = {
  name: { free: 5, windowS: 86_400, longestS: 900 },
  address: { free: 20, windowS: 900, longestS: 300 },
  browser: { free: 5, windowS: 86_400, longestS: 900 },
};

/** The wait after a wrong try, s: none up to the free ones, then 1, 2, 4, … */
export function delayAfter(tries: number, { free, longestS }: Rule): number {
  return tries <= free ? 0 : Math.min(2 ** (tries - free - 1), longestS);
}

interface Limiter {
  /** Tries in the window; it counts and refuses nothing. */
  readonly count: RateLimiterPostgres;
  /** Lets one try in per delay. */
  readonly gate: RateLimiterPostgres;
}

/** Counts live in the database: several processes count together, and a restart forgets nothing. */
const made = new WeakMap<Sequelize, Record<Counted, Limiter>>();
function limiters(): Record<Counted, Limiter> {
  const known = made.get(database());
  if (known) return known;
  const limiter = (keyPrefix: string, points: number, duration: number) =>
    new RateLimiterPostgres({
      storeClient: database(),
      storeType: 'sequelize',
      tableName: 'sign_in_tries',
      tableCreated: true,
      keyPrefix,
      points,
      duration,
    });
  const pair = (letter: string, rule: Rule): Limiter => ({
    count: limiter(letter, Number.MAX_SAFE_INTEGER, rule.windowS),
    gate: limiter(`${letter}g`, 1, rule.longestS),
  });
  const all = {
    name: pair('n', RULES.name),
    address: pair('a', RULES.address),
    browser: pair('b', RULES.browser),
  };
  made.set(database(), all);
  return all;
}

/** Somebody with one address of version 6 has the other 2^64 of its network too. */
export function addressBlock(address: string): string {
  if (!ipaddr.isValid(address)) return address;
  const a = ipaddr.process(address);
  return a.kind() === 'ipv4' ? a.toString() : `${a.toByteArray().slice(0, 8).join('.')}/64`;
}

/** A typed name may be a password in the wrong field: only its hash is kept. */
const nameKey = (name: string) =>
  createHash('sha256').update(name.trim().normalize('NFKC').toLowerCase()).digest('base64url');

type Key = readonly [kind: Counted, key: string];

/** A browser the name has signed in with before is counted by itself: nobody else's guesses lock it out. */
async function keysOf(name: string, visit: Visit): Promise<Key[]> {
  if (visit.known !== null && (await isKnownBrowser(visit.known, name)))
    return [['browser', nameKey(`${name} ${visit.known}`)]];
  return [
    ['address', addressBlock(visit.address)],
    ['name', nameKey(name)],
  ];
}

/** A try that was let in: what becomes of its count. */
export interface Try {
  /** It was the right one: tries of this name count anew, and those of the address by one less. */
  forget(): Promise<void>;
  /** It was no try: what was missing is asked for. */
  giveBack(): Promise<void>;
}

/** Counts one try; null when it is let in, otherwise when the next one is, ms. */
async function waitFor([kind, key]: Key): Promise<number | null> {
  const { count, gate } = limiters()[kind];
  const { consumedPoints } = await count.consume(key);
  const delay = delayAfter(consumedPoints, RULES[kind]);
  if (delay === 0) return null;
  try {
    await gate.consume(key, 1, { customDuration: delay });
    return null;
  } catch (refused) {
    if (!(refused instanceof RateLimiterRes)) throw refused;
    return refused.msBeforeNext;
  }
}

function tooMany(ms: number): HttpProblem {
  const seconds = Math.max(1, Math.ceil(ms / 1000));
  const minutes = Math.ceil(seconds / 60);
  const words =
    seconds < 60
      ? `${seconds} ${seconds === 1 ? 'second' : 'seconds'}`
      : `${minutes} ${minutes === 1 ? 'minute' : 'minutes'}`;
  return new HttpProblem(429, 'Too many tries', {
    detail: `Too many tries; the next one in ${words}`,
    retryAfterS: seconds,
  });
}

/**
 * Takes one try before the password is looked at, so that many at once cannot slip past. One that comes too early is
 * refused and does not count: who waits as told is let in.
 */
export async function takeTry(name: string, visit: Visit): Promise<Try> {
  const all = limiters();
  const keys = await keysOf(name, visit);
  const giveBack = (some: readonly Key[]) =>
    outsideTransaction(async () => {
      for (const [kind, key] of some) await all[kind].count.reward(key);
    });
  // On connections of their own: a sign-in that is rolled back has been a try all the same.
  const waitMs = await outsideTransaction(async () => {
    for (const [i, key] of keys.entries()) {
      const ms = await waitFor(key);
      if (ms !== null) {
        await giveBack(keys.slice(0, i + 1));
        return ms;
      }
    }
    return null;
  });
  if (waitMs !== null) throw tooMany(waitMs);
  return {
    giveBack: () => giveBack(keys),
    forget: () =>
      outsideTransaction(async () => {
        for (const [kind, key] of keys)
          if (kind === 'address') await all.address.count.reward(key);
          else await Promise.all([all[kind].count.delete(key), all[kind].gate.delete(key)]);
      }),
  };
}
