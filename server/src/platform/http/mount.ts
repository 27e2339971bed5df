import { Router, type Request, type RequestHandler, type Response } from 'express';
import * as z from 'zod';
import { checked } from '@ruddy/core/base';
import type { Caller, Contract } from '@ruddy/core/base/contract';
import type { Actor, OpenSession, Visit } from '../access/actor';
import { requireConfirmed } from '../access/confirmed';
import { actorOf, setKnown, setSession, visitOf } from '../access/visit';
import { recorded } from '../audit/recorded';
import { fromZod, HttpProblem, idTaken, refusal } from './problem';
import { type Answer, BYTES, type Call, type Route, type Services } from './route';
import { unstorable } from './storable';

const ODD = 'holds a null character or half of a character';

/** Actor of endpoints for anyone without a session: no member has this id, so no row can be written in its name. */
const NOBODY: Actor = {
  id: '00000000-0000-0000-0000-000000000000',
  name: 'nobody',
  role: 'reader',
};

const NONE = z.strictObject({});

function parse(
  schema: z.ZodType | undefined,
  value: unknown,
  where: 'body' | 'query' | 'path',
): unknown {
  const odd = unstorable(value);
  if (odd !== null)
    throw refusal(where, {
      detail: `${odd || where}: ${ODD}`,
      errors: [{ path: odd, message: ODD }],
    });
  const result = checked(schema ?? NONE, value);
  if (!result.success) throw fromZod(result.error, where);
  return result.data;
}

/** Bytes are checked by their own schema alone: looking for odd characters in them makes no sense. */
function parsedBytes(schema: z.ZodType, sent: unknown): unknown {
  const result = checked(schema, sent);
  if (!result.success) throw fromZod(result.error, 'body');
  return result.data;
}

/** The revision in an If-Match header: `"7"` gives 7. Any other form is refused, and a missing one where it is required. */
function revision(header: string | undefined, { revision: wanted }: Contract): number | null {
  if (header === undefined) {
    if (wanted !== 'required') return null;
    throw new HttpProblem(428, 'Say which revision you edited: If-Match is missing');
  }
  const found = /^"(\d{1,9})"$/.exec(header.trim());
  if (!found) throw new HttpProblem(400, 'If-Match must hold one revision, like "3"');
  return Number(found[1]);
}

const RANK: Record<Caller, number> = { anyone: 0, reader: 1, member: 2, keeper: 3 };

/** Refuses a body of another type before any of it is read. */
function rightType({ text, bytes }: Contract): RequestHandler {
  const types = bytes ? [BYTES] : (text ?? ['application/json']);
  return (req, _res, next) => {
    if (!req.is([...types])) throw new HttpProblem(415, `Send ${types.join(' or ')}`);
    next();
  };
}

type Known = Visit & { actor: Actor | null; session: OpenSession | null };

/** Authenticates and checks the role before the body is read. */
function allow(route: Route, services: Services): RequestHandler {
  const { path, contract } = route;
  return async (req: Request, res: Response, next) => {
    res.locals['route'] = path;
    const visit = visitOf(req, services.access);
    const signed = await actorOf(services, visit);
    const known: Known = {
      ...visit,
      actor: signed?.actor ?? null,
      session: signed?.session ?? null,
    };
    res.locals['known'] = known;
    if (contract.role !== 'anyone') {
      if (!signed) throw new HttpProblem(401, 'Sign in first');
      // A member who is refused is written down; nobody in particular is not, whoever fills the trail that way.
      await recorded(route, services, req, known, () => {
        mayCall(signed.actor, contract);
        if (contract.confirm) requireConfirmed(signed.session, services.now());
        return Promise.resolve(null);
      });
    }
    next();
  };
}

function mayCall(actor: Actor, { role }: Contract): void {
  if (RANK[actor.role] < RANK[role])
    throw new HttpProblem(403, 'Not for this role', {
      detail: `This needs a ${role}; ${actor.name} is a ${actor.role} here`,
    });
}

/** The body as its contract takes it: JSON, text or bytes. */
function parsedBody(req: Request, res: Response, contract: Contract): unknown {
  const { body, text, bytes, file } = contract;
  if (!body) return undefined;
  if (file) return res.locals['file'];
  // An empty text leaves nothing behind in the parser.
  const sent: unknown = text && typeof req.body !== 'string' ? '' : req.body;
  return bytes ? parsedBytes(body, sent) : parse(body, sent, 'body');
}

function send(res: Response, services: Services, answer: Answer<unknown>): void {
  if (answer.session !== undefined) setSession(res, services.access, answer.session);
  if (answer.known !== undefined) setKnown(res, services.access, answer.known);
  if (answer.etag !== undefined) res.setHeader('ETag', `"${answer.etag}"`);
  res.setHeader('Cache-Control', 'no-store');
  res.status(answer.status ?? 200);
  if (answer.file) res.attachment(answer.file.name).type(answer.file.type).send(answer.body);
  else res.json(answer.body);
}

/**
 * Runs a handler again where somebody stored the same id in the moment between its look and its write: what it wrote
 * was rolled back, and this time it finds the row, as it would a moment later.
 */
async function storedOnce<T>(run: () => Promise<T>): Promise<T> {
  try {
    return await run();
  } catch (error) {
    if (!idTaken(error)) throw error;
    return run();
  }
}

/** What a handler is called with: each part of the request, checked by the contract. */
function callOf(contract: Contract, req: Request, res: Response): Call<Contract> {
  const visit = res.locals['known'] as Known;
  const params = parse(contract.params, req.params, 'path');
  const query = parse(contract.query, req.query, 'query');
  const body = parsedBody(req, res, contract);
  const gone = new AbortController();
  res.once('close', () => gone.abort());
  return {
    params,
    query,
    body,
    revision: revision(req.header('if-match'), contract),
    actor: visit.actor ?? NOBODY,
    visit,
    signal: gone.signal,
  } as Call<Contract>;
}

function handler(route: Route, services: Services): RequestHandler {
  const { contract, run } = route;
  return async (req: Request, res: Response) => {
    const known = res.locals['known'] as Known;
    const answer = await recorded(route, services, req, known, async () => {
      const call = callOf(contract, req, res);
      return (await storedOnce(() => run(call, services, req, res))) as Answer<unknown> | undefined;
    });
    if (!contract.sends) send(res, services, answer as Answer<unknown>);
  };
}

/** A fixed part of a path goes before a named one in its place: `/api/setups/summary` before `/api/setups/:id`. */
function bySpecificity(a: Route, b: Route): number {
  const parts = (r: Route) => r.path.replaceAll(/:\w+/g, '\uffff');
  return parts(a) < parts(b) ? -1 : 1;
}

/** A router over all declared routes; `parser` makes the body parser for a contract's limit. */
export function mount(
  routes: readonly Route[],
  services: Services,
  parser: (contract: Contract) => RequestHandler,
): Router {
  const router = Router();
  for (const r of [...routes].sort(bySpecificity))
    router[r.method.toLowerCase() as Lowercase<typeof r.method>](
      r.path,
      allow(r, services),
      ...(r.contract.body ? [rightType(r.contract), parser(r.contract)] : []),
      handler(r, services),
    );
  return router;
}
