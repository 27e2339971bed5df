import { Router, type Request, type RequestHandler, type Response } from 'express';
import type * as z from 'zod';
import { checked } from '@ruddy/core/base';
import { type Actor, type Visit } from '../access/actor';
import { actorOf, setSession, visitOf } from '../access/visit';
import { fromZod, HttpProblem, refusal } from './problem';
import { BYTES, type Caller, type Route, type Services } from './route';
import { unstorable } from './storable';

const ODD = 'holds a null character or half of a character';

/** Stands for nobody on routes for anyone: no member has this id, so nothing can be written in its name. */
const NOBODY: Actor = {
  id: '00000000-0000-0000-0000-000000000000',
  name: 'nobody',
  role: 'reader',
};

function parse(schema: z.ZodType, value: unknown, where: 'body' | 'query' | 'path'): unknown {
  const odd = unstorable(value);
  if (odd !== null)
    throw refusal(where, {
      detail: `${odd || where}: ${ODD}`,
      errors: [{ path: odd, message: ODD }],
    });
  const result = checked(schema, value);
  if (!result.success) throw fromZod(result.error, where);
  return result.data;
}

/** Bytes are checked by their own schema alone: looking for odd characters in them makes no sense. */
function parsedBytes(schema: z.ZodType, sent: unknown): unknown {
  const result = checked(schema, sent);
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

const RANK: Record<Caller, number> = { anyone: 0, reader: 1, member: 2, keeper: 3 };

type Known = Visit & { actor: Actor | null };

/** Before a body is read: who asks, and whether they may. */
function allow(r: Route, services: Services): RequestHandler {
  return async (req: Request, res: Response, next) => {
    const visit = visitOf(req, services.access);
    const actor = await actorOf(services, visit);
    if (r.role !== 'anyone') {
      if (!actor) throw new HttpProblem(401, 'Sign in first');
      if (RANK[actor.role] < RANK[r.role])
        throw new HttpProblem(403, 'Not for this role', {
          detail: `This needs a ${r.role}; ${actor.name} is a ${actor.role} here`,
        });
    }
    res.locals['known'] = { ...visit, actor } satisfies Known;
    next();
  };
}

function handler(r: Route, services: Services): RequestHandler {
  return async (req: Request, res: Response) => {
    const visit = res.locals['known'] as Known;
    const actor = visit.actor ?? NOBODY;
    const params = parse(r.params, req.params, 'path');
    const query = parse(r.query, req.query, 'query');
    const types = r.bytes ? [BYTES] : (r.text ?? ['application/json']);
    if (r.body && !req.is([...types])) throw new HttpProblem(415, `Send ${types.join(' or ')}`);
    // An empty text leaves nothing behind in the parser.
    const sent: unknown = r.text && typeof req.body !== 'string' ? '' : req.body;
    const body = r.body
      ? r.bytes
        ? parsedBytes(r.body, sent)
        : parse(r.body, sent, 'body')
      : undefined;
    const gone = new AbortController();
    res.once('close', () => gone.abort());
    const call = {
      params,
      query,
      body,
      ifMatch: revision(req.header('if-match')),
      actor,
      visit,
      signal: gone.signal,
    };
    if (r.open) {
      await r.open(call, services, req, res);
      return;
    }
    const answer = await r.handle(call, services);
    if (answer.session !== undefined) setSession(res, services.access, answer.session);
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
export function mount(
  routes: readonly Route[],
  services: Services,
  parser: (route: Route) => RequestHandler,
): Router {
  const router = Router();
  for (const r of routes)
    router[r.method](
      r.path,
      allow(r, services),
      ...(r.body ? [parser(r)] : []),
      handler(r, services),
    );
  return router;
}
