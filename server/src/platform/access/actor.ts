import type { Role } from '@ruddy/core/workshop/contract';

export interface Actor {
  id: string;
  name: string;
  role: Role;
}
/** The built-in keeper: whoever sits at this machine, where nobody else can reach it. */
export const THIS_MACHINE: Actor = {
  id: '00000000-0000-7000-8000-000000000001',
  name: 'this machine',
  role: 'keeper',
};

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
