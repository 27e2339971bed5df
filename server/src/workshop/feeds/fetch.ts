import { request as plainRequest, type IncomingMessage } from 'node:http';
import { request as secureRequest } from 'node:https';
import type { LookupFunction } from 'node:net';
import { inflated, packedWrongly } from '../../platform/files/inflate';
import { checkedAddress, FeedProblem, resolveHost, type Address, type Resolve } from './address';

export interface FetchAsk {
  readonly url: string;
  readonly near: boolean;
  readonly etag: string;
  readonly modified: string;
}
export type Fetched =
  | { readonly state: 'same' }
  | {
      readonly state: 'new';
      readonly text: string;
      readonly etag: string;
      readonly modified: string;
    };

export interface Limits {
  readonly ms: number;
  readonly bytes: number;
  readonly redirects: number;
}
export const LIMITS: Limits = { ms: 10_000, bytes: 2 * 1024 * 1024, redirects: 3 };
const REDIRECTS = [301, 302, 303, 307, 308];
const seconds = (ms: number) => `${ms / 1000} s`;
const megabytes = (bytes: number) => `${Math.round(bytes / 1024 / 102.4) / 10} MB`;

function open(url: URL, at: Address, ask: FetchAsk, signal: AbortSignal): Promise<IncomingMessage> {
  // The name was resolved and checked already: the connection goes to that address, whatever the name says by now.
  const lookup = ((
    _host: string,
    options: { all?: boolean },
    done: (e: null, a: unknown, f?: number) => void,
  ) =>
    options.all
      ? done(null, [at])
      : done(null, at.address, at.family)) as unknown as LookupFunction;
  const headers = {
    accept:
      'application/feed+json, application/atom+xml, application/json;q=0.9, application/xml;q=0.8',
    'accept-encoding': 'gzip, deflate, br',
    'user-agent': 'ruddy-bridge',
    ...(ask.etag && { 'if-none-match': ask.etag }),
    ...(ask.modified && { 'if-modified-since': ask.modified }),
  };
  return new Promise((resolve, reject) => {
    const make = url.protocol === 'https:' ? secureRequest : plainRequest;
    make(url, { headers, lookup, signal, agent: false }, resolve).on('error', reject).end();
  });
}

/** The body as text, inflated, given up as soon as it grows over the limit. */
async function bodyOf(res: IncomingMessage, most: number): Promise<string> {
  const coding = res.headers['content-encoding'] ?? 'identity';
  const stream = inflated(res, coding);
  if (!stream) throw new FeedProblem(`The answer is packed as "${coding}", which is not read`);
  const parts: Buffer[] = [];
  let size = 0;
  try {
    for await (const chunk of stream as AsyncIterable<Buffer>) {
      size += chunk.length;
      if (size > most)
        throw new FeedProblem(`The feed is larger than ${megabytes(most)}; nothing of it was read`);
      parts.push(chunk);
    }
  } catch (error) {
    if (packedWrongly(error))
      throw new FeedProblem('The answer is packed wrongly and cannot be read');
    throw error;
  } finally {
    res.destroy();
  }
  return Buffer.concat(parts).toString('utf8');
}

function nextUrl(res: IncomingMessage, from: URL): URL {
  const to = res.headers.location;
  res.destroy();
  if (!to || !URL.canParse(to, from.href)) throw new FeedProblem('The feed sends on to no address');
  const next = new URL(to, from);
  if (next.protocol !== 'https:' && next.protocol !== 'http:')
    throw new FeedProblem(`The feed sends on to ${next.protocol}`);
  if (from.protocol === 'https:' && next.protocol === 'http:')
    throw new FeedProblem('The feed sends on from https to http; that is not followed');
  if (next.hostname !== from.hostname)
    throw new FeedProblem(
      `The feed sends on to ${next.hostname}. If you trust that place, set its address: ${next.href}`,
    );
  return next;
}

function wordsFor(error: unknown, ms: number, late: boolean): FeedProblem {
  if (error instanceof FeedProblem) return error;
  const { code, message } = error as NodeJS.ErrnoException;
  if (late) return new FeedProblem(`No whole answer within ${seconds(ms)}; nothing of it was read`);
  if (code === 'ECONNREFUSED') return new FeedProblem('Nobody answers at this address');
  return new FeedProblem(`The feed could not be read: ${message}`);
}

/**
 * Fetch a feed when it changed. Each step – the address itself and at most three redirects on the same host – is resolved, every address
 * it stands for is checked, and the connection goes to the one that was checked. Ten seconds and two megabytes after inflating at most.
 * Rejects with a `FeedProblem` in words for a person.
 */
export async function fetchFeed(
  ask: FetchAsk,
  resolve: Resolve = resolveHost,
  limits: Limits = LIMITS,
): Promise<Fetched> {
  const signal = AbortSignal.timeout(limits.ms);
  // A name lookup cannot be cancelled: its result is ignored after the timeout.
  const late = new Promise<never>((_go, fail) =>
    signal.addEventListener('abort', () => fail(new Error('late')), { once: true }),
  );
  late.catch(() => undefined);
  try {
    let url = new URL(ask.url);
    for (let hop = 0; ; hop++) {
      const at = await Promise.race([checkedAddress(url.hostname, ask.near, resolve), late]);
      const res = await open(url, at, ask, signal);
      const status = res.statusCode ?? 0;
      if (REDIRECTS.includes(status)) {
        url = nextUrl(res, url);
        if (hop >= limits.redirects)
          throw new FeedProblem(`The feed sends on more than ${limits.redirects} times`);
        continue;
      }
      if (status === 304) {
        res.destroy();
        return { state: 'same' };
      }
      if (status !== 200) {
        res.destroy();
        throw new FeedProblem(`The address answers ${status}`);
      }
      const { etag = '', 'last-modified': modified = '' } = res.headers;
      return { state: 'new', text: await bodyOf(res, limits.bytes), etag, modified };
    }
  } catch (error) {
    throw wordsFor(error, limits.ms, signal.aborted);
  }
}
