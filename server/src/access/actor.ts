import type { Request, Response } from 'express';
import { parse } from 'cookie';
import type { Role } from '@ruddy/core/api';
import type { Sequelize } from 'sequelize';
import { SESSION_MS, sessionActor } from './sessions';

export interface Actor {
  id: string;
  name: string;
  role: Role;
}
/** The built-in keeper: whoever sits at this machine, where nobody else can reach it. */
export const THIS_MACHINE: Actor = { id: '00000000-0000-7000-8000-000000000001', name: 'this machine', role: 'keeper' };

/** How people come in. Left out: nobody but this machine can reach the server, and no one signs in. */
export interface Access {
  /** Is the way in from the browser encrypted? Then the cookie travels no other way. */
  secure: boolean;
}

/** Where a request comes from, and the session it brought. */
export interface Visit {
  address: string;
  token: string | null;
}

/** The prefix makes browsers refuse the cookie from any other host or without encryption. */
const nameOf = (access: Access) => (access.secure ? '__Host-ruddy' : 'ruddy');

/** The visit behind a request. */
export function visitOf(req: Request, access: Access | undefined): Visit {
  const token = access ? parse(req.headers.cookie ?? '')[nameOf(access)] : undefined;
  return { address: req.ip ?? '', token: token && token.length < 200 ? token : null };
}

/** Who asks: the built-in keeper where no one signs in, otherwise who holds the session, or nobody. */
export async function actorOf(s: { db: Sequelize; now: () => Date; access?: Access }, visit: Visit): Promise<Actor | null> {
  if (!s.access) return THIS_MACHINE;
  return visit.token === null ? null : sessionActor(s.db, visit.token, s.now());
}

/** Hand the browser its session, or take it back. No page can read it, and no other site's request carries it. */
export function setSession(res: Response, access: Access | undefined, token: string | null): void {
  if (!access) return;
  const how = { httpOnly: true, sameSite: 'strict', secure: access.secure, path: '/' } as const;
  if (token === null) res.clearCookie(nameOf(access), how);
  else res.cookie(nameOf(access), token, { ...how, maxAge: SESSION_MS });
}
