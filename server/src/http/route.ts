import { Router, type Request, type RequestHandler, type Response } from 'express';
import * as z from 'zod';
import type { StreamEvent } from '@ruddy/core/api';
import type { Sequelize } from 'sequelize';
import { fromZod, HttpProblem, refusal } from './problem';
import { unstorable } from './storable';

export type Role = 'reader' | 'member' | 'keeper';
export interface Actor {
  id: string;
  name: string;
  role: Role;
}
/** The built-in keeper, until sign-in exists. */
export const THIS_MACHINE: Actor = { id: '00000000-0000-7000-8000-000000000001', name: 'this machine', role: 'keeper' };

/** Where a stream goes: false from `send` means the client is slow, and `ready` is called when it has caught up. */
export interface Sink {
  send(id: string, event: StreamEvent): boolean;
  comment(): void;
  close(): void;
}

/** Opens a stream over topics, each from after the number given. */
export interface LiveStreams {
  open(topics: ReadonlyMap<string, number>, sink: Sink): { close: () => void; ready: () => void };
}

export interface Services {
  db: Sequelize;
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
  actor: Actor;
}

export interface Answer<T> {
  status?: number;
  etag?: number;
  body: T;
  /** A file to keep instead of JSON: its name and type; the body is then its text or its bytes. */
  file?: { name: string; type: string };
}

export interface Route {
  method: 'get' | 'post' | 'put' | 'patch' | 'delete';
  path: string;
  summary: string;
  role: Role;
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
  open: ((call: Call<unknown, unknown, unknown>, services: Services, req: Request, res: Response) => Promise<void>) | null;
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
  role: Role;
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
const ODD = 'holds a null character or half of a character';

/** Declare a route that stays open: validated and checked like every other, and written into by what it opens. */
export function streamRoute<Q extends z.ZodType>(r: {
  path: string;
  summary: string;
  role: Role;
  query: Q;
  /** One event of it. */
  response: z.ZodType;
  open(query: z.infer<Q>, services: Services, req: Request, res: Response): Promise<void>;
}): Route {
  const { open, ...rest } = r;
  return {
    ...rest,
    ...{ method: 'get', params: NONE, body: null, bodyLimit: '1kb', text: null, bytes: false },
    handle: () => Promise.reject(new TypeError('a stream has no single answer')),
    open: (call, services, req, res) => open(call.query as z.infer<Q>, services, req, res),
  };
}

function parse(schema: z.ZodType, value: unknown, where: 'body' | 'query' | 'path'): unknown {
  const odd = unstorable(value);
  if (odd !== null)
    throw refusal(where, {
      detail: `${odd || where}: ${ODD}`,
      errors: [{ path: odd, message: ODD }],
    });
  const result = schema.safeParse(value);
  if (!result.success) throw fromZod(result.error, where);
  return result.data;
}

/** Bytes are checked by their own schema alone: looking for odd characters in them makes no sense. */
function parsedBytes(schema: z.ZodType, sent: unknown): unknown {
  const result = schema.safeParse(sent);
  if (!result.success) throw fromZod(result.error, 'body');
  return result.data;
}

/** The revision in an If-Match header: `"7"` gives 7. Any other form is refused. */
function revision(header: string | undefined): number | null {
  if (header === undefined) return null;
  const found = /^"(\d{1,9})"$/.exec(header.trim());
  if (!found) throw new HttpProblem(400, 'If-Match must hold one revision, like "3"');
  return Number(found[1]);
}

const RANK: Record<Role, number> = { reader: 0, member: 1, keeper: 2 };

function handler(r: Route, services: Services): RequestHandler {
  return async (req: Request, res: Response) => {
    const actor = THIS_MACHINE;
    if (RANK[actor.role] < RANK[r.role]) throw new HttpProblem(403, `This needs a ${r.role}`);
    const params = parse(r.params, req.params, 'path');
    const query = parse(r.query, req.query, 'query');
    const types = r.bytes ? [BYTES] : (r.text ?? ['application/json']);
    if (r.body && !req.is([...types])) throw new HttpProblem(415, `Send ${types.join(' or ')}`);
    // An empty text leaves nothing behind in the parser.
    const sent: unknown = r.text && typeof req.body !== 'string' ? '' : req.body;
    const body = r.body ? (r.bytes ? parsedBytes(r.body, sent) : parse(r.body, sent, 'body')) : undefined;
    const call = { params, query, body, ifMatch: revision(req.header('if-match')), actor };
    if (r.open) {
      await r.open(call, services, req, res);
      return;
    }
    const answer = await r.handle(call, services);
    if (answer.etag !== undefined) res.setHeader('ETag', `"${answer.etag}"`);
    res.setHeader('Cache-Control', 'no-store');
    res.status(answer.status ?? 200);
    if (answer.file) {
      res.attachment(answer.file.name).type(answer.file.type).send(answer.body);
      return;
    }
    res.json(answer.body);
  };
}

/** A router over all declared routes; `parser` makes the body parser for a route's limit. */
export function mount(routes: readonly Route[], services: Services, parser: (route: Route) => RequestHandler): Router {
  const router = Router();
  for (const r of routes) router[r.method](r.path, ...(r.body ? [parser(r)] : []), handler(r, services));
  return router;
}

/** Refuse an edit without If-Match (428) or of an older revision (412, with what is stored now). */
export function checkRevision(ifMatch: number | null, rev: number, current: unknown): void {
  if (ifMatch === null) throw new HttpProblem(428, 'Say which revision you edited: If-Match is missing');
  if (ifMatch !== rev) throw new HttpProblem(412, 'Changed elsewhere since you opened it', { current });
}
