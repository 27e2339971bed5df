import type { Request, Response } from 'express';
import type * as z from 'zod';
import type { CallOf, Contract, EndpointKey, Method } from '@ruddy/core/base/contract';
import type { StreamEvent } from '@ruddy/core/bench/contract';
import {
  type Access,
  type Actor,
  type OpenSession,
  THIS_MACHINE,
  type Visit,
} from '../access/actor';
import type { Meter } from '../health/meter';
import { HttpProblem } from './problem';

export { THIS_MACHINE, type Actor };
/** Where a stream goes: false from `send` means the client is slow, and `ready` is called when it has caught up. */
export interface Sink {
  send(id: string, event: StreamEvent): boolean;
  comment(): void;
  close(): void;
}

/** Opens a stream over topics, each from after the number given. */
export interface LiveStreams {
  /** Can one more be opened for this member? */
  room(memberId: string): boolean;
  open(
    topics: ReadonlyMap<string, number>,
    sink: Sink,
    memberId?: string,
  ): { close: () => void; ready: () => void };
}

export interface Services {
  /** Sign-in settings; absent: only this machine can reach the server. */
  access?: Access;
  /** Backup settings; absent: no backups are made from here. */
  backups?: { dir: string; bin: string | null; url: string; restoreUrl: string };
  /** Live streams of this process. */
  streams?: LiveStreams;
  now: () => Date;
  /** Where an error goes that no request is there to answer with. */
  unexpected?: (error: unknown) => void;
  /** Where the programs of threads lie, as a URL; beside the built server when left out. */
  threads?: string;
  /** Numbers of what this process does; absent: none are kept. */
  meter?: Meter;
  /** Lets a collector read them without a session. */
  metricsToken?: string;
  /** Address of the database, for threads that read and store files on a connection of their own. */
  databaseUrl?: string;
}

/** What a handler receives beside the checked parts of the request. */
export interface Caller {
  /** The caller. Without a session on an endpoint for anyone it is the anonymous actor: `visit` has the address. */
  actor: Actor;
  visit: Visit & { actor: Actor | null; session: OpenSession | null };
  /** Aborted when whoever asked has gone away before the answer. */
  signal: AbortSignal;
}
export type Call<C> = CallOf<C> & Caller;

export interface Answer<T> {
  status?: number;
  etag?: number;
  body: T;
  /** A session for the browser to keep; null takes it back. */
  session?: string | null;
  /** A token by which the browser is known at its next sign-in. */
  known?: string;
  /** For the audit trail: who or what it was about, and who did it where the caller was nobody before. */
  about?: string;
  by?: Actor;
  /** A file to keep instead of JSON: its name and type; the body is then its text or its bytes. */
  file?: { name: string; type: string };
}

/** Gives one answer, typed by the response schema and not validated again. */
type Handle<C extends Contract> = (
  call: Call<C>,
  services: Services,
) => Promise<Answer<z.input<C['response']>>>;
/** Writes into a response that stays open. */
type Open<C extends Contract> = (
  call: Call<C>,
  services: Services,
  req: Request,
  res: Response,
) => Promise<void>;
type Handlers<T extends object> = {
  readonly [K in keyof T]: T[K] extends Contract
    ? T[K] extends { readonly sends: string }
      ? Open<T[K]>
      : Handle<T[K]>
    : never;
};

/** A contract with what implements it. */
export interface Route {
  readonly method: Method;
  readonly path: string;
  readonly contract: Contract;
  /** `Handle`, or `Open` where the contract says what it sends. */
  readonly run: (
    call: Call<Contract>,
    services: Services,
    req: Request,
    res: Response,
  ) => Promise<unknown>;
}

/**
 * Joins contracts with their handlers. A handler that is missing, one too many, or one that
 * answers something else than its contract says does not compile.
 */
export function implement<T extends object>(all: T, handlers: Handlers<T>): Route[] {
  return Object.entries(all as Record<EndpointKey, Contract>).map(([key, contract]) => {
    const [method, path = ''] = key.split(' ') as [Method, string];
    return { method, path, contract, run: handlers[key as keyof T] as unknown as Route['run'] };
  });
}

/** How bytes are sent. */
export const BYTES = 'application/octet-stream';

/** Refuses an edit of an older revision (412, with what is stored now). */
export function checkRevision(edited: number, rev: number, current: unknown): void {
  if (edited !== rev)
    throw new HttpProblem(412, 'Changed elsewhere since you opened it', { current });
}
