import { isIP } from 'node:net';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { HttpProblem } from '../http/problem';
import { THIS_MACHINE, type Access, type Signed, type Visit } from './actor';
import { KNOWN_MS } from './known-browsers';
import { SESSION_MS, sessionActor } from './sessions';

/** The prefix makes browsers refuse the cookie from any other host or without encryption. */
const nameOf = (access: Access) => (access.secure ? '__Host-ruddy' : 'ruddy');
const knownNameOf = (access: Access) => `${nameOf(access)}-known`;

const tokenIn = (value: string | undefined) => (value && value.length < 200 ? value : null);

/** The visit behind a request. */
export function visitOf(req: Request, access: Access | undefined): Visit {
  const cookies = access ? parse(req.headers.cookie ?? '') : {};
  const address = req.ip ?? '';
  // A proxy that passes on what it was sent may pass on anything.
  if (address !== '' && isIP(address) === 0)
    throw new HttpProblem(400, 'Request not understood', {
      detail: 'X-Forwarded-For: holds something else than an address',
    });
  return {
    address,
    token: access ? tokenIn(cookies[nameOf(access)]) : null,
    known: access ? tokenIn(cookies[knownNameOf(access)]) : null,
    browser: (req.headers['user-agent'] ?? '').replaceAll(/[^\x20-\x7e]/g, '').slice(0, 200),
  };
}

/** Caller of a request: the built-in keeper without sign-in, otherwise the member of the session, or none. */
export async function actorOf(
  s: { now: () => Date; access?: Access },
  visit: Visit,
): Promise<Signed | null> {
  if (!s.access) return { actor: THIS_MACHINE, session: null };
  return visit.token === null ? null : sessionActor(visit.token, s.now());
}

const cookieOptions = (access: Access) =>
  ({ httpOnly: true, sameSite: 'strict', secure: access.secure, path: '/' }) as const;

/** Hand the browser its session, or take it back. No page can read it, and no other site's request carries it. */
export function setSession(res: Response, access: Access | undefined, token: string | null): void {
  if (!access) return;
  const how = cookieOptions(access);
  if (token === null) res.clearCookie(nameOf(access), how);
  else res.cookie(nameOf(access), token, { ...how, maxAge: SESSION_MS });
}

/** Hand the browser the token by which its next sign-in is known as one of the member's. */
export function setKnown(res: Response, access: Access | undefined, token: string): void {
  if (access)
    res.cookie(knownNameOf(access), token, { ...cookieOptions(access), maxAge: KNOWN_MS });
}
