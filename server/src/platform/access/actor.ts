import type { Role } from '@ruddy/core/workshop/contract';

export interface Actor {
  id: string;
  name: string;
  role: Role;
}
/** The built-in keeper: the user of this machine while only this machine can reach the server. */
export const THIS_MACHINE: Actor = {
  id: '00000000-0000-7000-8000-000000000001',
  name: 'this machine',
  role: 'keeper',
};

/** Settings of the sign-in. Absent: only this machine can reach the server, and there is no sign-in. */
export interface Access {
  /** Is the way in from the browser encrypted? Then the cookie travels no other way. */
  secure: boolean;
}

/** Where a request comes from, and the session it brought. */
export interface Visit {
  address: string;
  token: string | null;
  /** Token of a browser that has signed in before. */
  known: string | null;
  /** What the browser calls itself. */
  browser: string;
}

/** A session: its id, and when the password was last given in it. */
export interface OpenSession {
  id: string;
  confirmedAt: Date;
}

/** Who calls: a member with the session, or the built-in keeper without one. */
export interface Signed {
  actor: Actor;
  session: OpenSession | null;
}
