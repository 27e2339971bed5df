import type { Request, Response } from 'express';
import * as z from 'zod';
import type { StreamEvent } from '@ruddy/core/bench/contract';
import type { Role } from '@ruddy/core/workshop/contract';
import type { Sequelize } from 'sequelize';
import { THIS_MACHINE, type Access, type Actor, type Visit } from '../access/actor';
import { HttpProblem } from './problem';

export { THIS_MACHINE, type Actor };
/** Who may call a route. `anyone`: also who has not signed in; such a route tells and changes nothing of the workshop. */
export type Caller = Role | 'anyone';

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
  db: Sequelize;
  /** How people sign in; left out: only this machine can reach the server. */
  access?: Access;
  /** Where backups of this database go; left out: none are made from here. */
  backups?: { dir: string; bin: string | null; url: string };
  /** Live streams of this process. */
  streams?: LiveStreams;
  now: () => Date;
  /** Where an error goes that no request is there to answer with. */
  unexpected?: (error: unknown) => void;
  /** Where the thread of a search lies; beside the built server when left out. */
  scoutThread?: string | URL;
}

export interface Call<P, Q, B> {
  params: P;
  query: Q;
  body: B;
  /** The revision the client edited, from If-Match; null without the header. */
  ifMatch: number | null;
  /** Who asks. On a route for anyone this may be nobody: `visit` says where the request came from. */
  actor: Actor;
  visit: Visit & { actor: Actor | null };
  /** Aborted when whoever asked has gone away before the answer. */
  signal: AbortSignal;
}

export interface Answer<T> {
  status?: number;
  etag?: number;
  body: T;
  /** A session for the browser to keep; null takes it back. */
  session?: string | null;
  /** A file to keep instead of JSON: its name and type; the body is then its text or its bytes. */
  file?: { name: string; type: string };
}

export interface Route {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  path: string;
  summary: string;
  role: Caller;
  params: z.ZodType;
  query: z.ZodType;
  body: z.ZodType | null;
  bodyLimit: string;
  /** Types of text the body may be sent as, as it is; null: JSON. */
  text: readonly string[] | null;
  /** The body is bytes, handed over as they came. */
  bytes: boolean;
  response: z.ZodType;
  handle(call: Call<unknown, unknown, unknown>, services: Services): Promise<Answer<unknown>>;
  /** Instead of one answer: the response stays open, and this writes into it. */
  open:
    | ((
        call: Call<unknown, unknown, unknown>,
        services: Services,
        req: Request,
        res: Response,
      ) => Promise<void>)
    | null;
}

const NONE = z.strictObject({});

/**
 * Declare a route once: OpenAPI, validation and the role check are all made from this.
 * The body a handler returns is typed by the response schema, not validated again.
 */
export function route<
  R extends z.ZodType,
  P extends z.ZodType = typeof NONE,
  Q extends z.ZodType = typeof NONE,
  B extends z.ZodType | null = null,
>(r: {
  method: Route['method'];
  path: string;
  summary: string;
  role: Caller;
  params?: P;
  query?: Q;
  body?: B;
  bodyLimit?: string;
  text?: readonly string[];
  bytes?: boolean;
  response: R;
  handle(
    call: Call<z.infer<P>, z.infer<Q>, B extends z.ZodType ? z.infer<B> : undefined>,
    services: Services,
  ): Promise<Answer<z.input<R>>>;
}): Route {
  return {
    ...r,
    params: r.params ?? NONE,
    query: r.query ?? NONE,
    body: r.body ?? null,
    bodyLimit: r.bodyLimit ?? '256kb',
    text: r.text ?? null,
    bytes: r.bytes ?? false,
    open: null,
    handle: r.handle as Route['handle'],
  };
}

/** How bytes are sent. */
export const BYTES = 'application/octet-stream';

/** Declare a route that stays open: validated and checked like every other, and written into by what it opens. */
export function streamRoute<Q extends z.ZodType>(r: {
  path: string;
  summary: string;
  role: Caller;
  query: Q;
  /** One event of it. */
  response: z.ZodType;
  open(
    query: z.infer<Q>,
    services: Services,
    req: Request,
    res: Response,
    call: Call<unknown, unknown, unknown>,
  ): Promise<void>;
}): Route {
  const { open, ...rest } = r;
  return {
    ...rest,
    method: 'get',
    params: NONE,
    body: null,
    bodyLimit: '1kb',
    text: null,
    bytes: false,
    handle: () => Promise.reject(new TypeError('a stream has no single answer')),
    open: (call, services, req, res) => open(call.query as z.infer<Q>, services, req, res, call),
  };
}

/** Refuse an edit without If-Match (428) or of an older revision (412, with what is stored now). */
export function checkRevision(ifMatch: number | null, rev: number, current: unknown): void {
  if (ifMatch === null)
    throw new HttpProblem(428, 'Say which revision you edited: If-Match is missing');
  if (ifMatch !== rev)
    throw new HttpProblem(412, 'Changed elsewhere since you opened it', { current });
}
