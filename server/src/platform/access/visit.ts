import { isIP } from 'node:net';
import { parse } from 'cookie';
import type { Request, Response } from 'express';
import { HttpProblem } from '../http/problem';
import { THIS_MACHINE, type Access, type Actor, type Visit } from './actor';
import { SESSION_MS, sessionActor } from './sessions';

/** The prefix makes browsers refuse the cookie from any other host or without encryption. */
const nameOf = (access: Access) => (access.secure ? '__Host-ruddy' : 'ruddy');

/** The visit behind a request. */
export function visitOf(req: Request, access: Access | undefined): Visit {
  const token = access ? parse(req.headers.cookie ?? '')[nameOf(access)] : undefined;
  const address = req.ip ?? '';
  // A proxy that passes on what it was sent may pass on anything.
  if (address !== '' && isIP(address) === 0)
    throw new HttpProblem(400, 'Request not understood', {
      detail: 'X-Forwarded-For: holds something else than an address',
    });
  return { address, token: token && token.length < 200 ? token : null };
}

/** Caller of a request: the built-in keeper without sign-in, otherwise the member of the session, or none. */
export async function actorOf(
  s: { now: () => Date; access?: Access },
  visit: Visit,
): Promise<Actor | null> {
  if (!s.access) return THIS_MACHINE;
  return visit.token === null ? null : sessionActor(visit.token, s.now());
}

/** Hand the browser its session, or take it back. No page can read it, and no other site's request carries it. */
export function setSession(res: Response, access: Access | undefined, token: string | null): void {
  if (!access) return;
  const how = { httpOnly: true, sameSite: 'strict', secure: access.secure, path: '/' } as const;
  if (token === null) res.clearCookie(nameOf(access), how);
  else res.cookie(nameOf(access), token, { ...how, maxAge: SESSION_MS });
}
