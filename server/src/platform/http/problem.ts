/// <reference types="pino-http" />
import type { ErrorRequestHandler } from 'express';
import type * as z from 'zod';
import { DEEPEST_JSON, problemCode, type ProblemCode, problemType } from '@ruddy/core/base';
import type { Problem } from '@ruddy/core/base/contract';

export interface FieldError {
  path: string;
  message: string;
}

/** An error that a client caused or can act on; anything else is a 500 without detail. */
export class HttpProblem extends Error {
  constructor(
    readonly status: number,
    readonly title: string,
    readonly more: {
      detail?: string;
      errors?: FieldError[];
      current?: unknown;
      retryAfterS?: number;
      /** The code where the status alone does not say it. */
      code?: ProblemCode;
      /** Who or what it was about, for the audit trail. */
      about?: string;
    } = {},
  ) {
    super(title);
  }
}

/** 404 with what was looked for. */
export function notFound(what: string): HttpProblem {
  return new HttpProblem(404, `No such ${what}`);
}

/** 422 of a file or a text: the detail names the place in it. */
export function notSaved(detail: string): HttpProblem {
  return new HttpProblem(422, 'Not saved', { detail });
}

/** 422 that names the field. */
export function invalid(path: string, message: string): HttpProblem {
  return new HttpProblem(422, 'Not saved', { detail: message, errors: [{ path, message }] });
}

/** Refuse a day that is still to come. */
export function refuseFuture(path: string, day: string, now: Date): void {
  const today = now.toISOString().slice(0, 10);
  if (day > today) throw invalid(path, `Date: ${day} is in the future; today is ${today}`);
}

function flatten(
  issues: readonly z.core.$ZodIssue[],
  base: readonly PropertyKey[] = [],
): FieldError[] {
  return issues.flatMap((i): FieldError[] => {
    const path = [...base, ...i.path];
    // A union says which branch came closest: the one whose complaint reaches deepest.
    if (i.code === 'invalid_union' && i.errors.length > 0) {
      const deepest = [...i.errors].sort(
        (a, b) =>
          Math.max(0, ...b.map((x) => x.path.length)) - Math.max(0, ...a.map((x) => x.path.length)),
      )[0];
      if (deepest?.some((x) => x.path.length > 0)) return flatten(deepest, path);
    }
    return [{ path: path.map(String).join('/'), message: i.message }];
  });
}

/** Refused at the border: a body is not stored, a query or path not understood. */
export function refusal(where: 'body' | 'query' | 'path', more: HttpProblem['more']): HttpProblem {
  return where === 'body'
    ? new HttpProblem(422, 'Not saved', more)
    : new HttpProblem(400, 'Request not understood', more);
}

/** A list of a hundred thousand wrong entries is not answered with as many complaints. */
const MOST_ERRORS = 100;

/** A refusal by a schema as a problem: each field with its place, as far as somebody reads them. */
export function fromZod(error: z.ZodError, where: 'body' | 'query' | 'path'): HttpProblem {
  const all = flatten(error.issues);
  const errors = all.slice(0, MOST_ERRORS);
  const first = errors[0];
  const detail = first
    ? `${first.path || where}: ${first.message}${all.length > 1 ? `; ${all.length - 1} more` : ''}`
    : undefined;
  return refusal(where, { detail, errors });
}

interface DatabaseError {
  readonly parent?: { readonly code?: string; readonly constraint?: string };
}

/** Was a row refused because one with its id is there? */
export function idTaken(error: unknown): boolean {
  const parent = (error as DatabaseError).parent;
  return parent?.code === '23505' && (parent.constraint ?? '').endsWith('_pkey');
}

function fromDatabase(error: unknown): HttpProblem | null {
  const { parent } = error as DatabaseError;
  switch (parent?.code) {
    case '23505':
      return new HttpProblem(
        409,
        parent.constraint === 'parts_name'
          ? 'A part of this kind, maker, model and variant exists already'
          : 'This exists already',
      );
    case '23503':
      return new HttpProblem(409, 'Something else still points to this');
    case '23001':
      return new HttpProblem(409, 'What has happened is not changed; add a correction instead');
    // A value that passed the border and is none for the database: a cursor made by hand, a number without end.
    case '22P02':
    case '22003':
    case '22007':
    case '22008':
      return new HttpProblem(400, 'Request not understood', {
        detail: 'A value is not of its kind',
      });
    case '53100':
      return new HttpProblem(507, 'Not saved', {
        detail: 'The disk of the database is full; nothing was stored',
      });
    default:
      return awayFrom(error) ? new HttpProblem(503, 'The database is not there right now') : null;
  }
}

/** Codes of a server that stops, starts or takes no more; the driver has words instead for a connection that broke off. */
const AWAY = new Set([
  '57P01',
  '57P02',
  '57P03',
  '53300',
  'ECONNREFUSED',
  'ECONNRESET',
  'EPIPE',
  'ENOTFOUND',
  'ETIMEDOUT',
]);
const BROKEN =
  /Connection terminated|not queryable|connection manager was closed|timeout exceeded when trying to connect/i;

function awayFrom(error: unknown): boolean {
  const { name, message, code, parent } = error as {
    name?: string;
    message?: string;
    code?: string;
    parent?: { code?: string; message?: string };
  };
  return (
    (name ?? '').startsWith('SequelizeConnection') ||
    AWAY.has(parent?.code ?? code ?? '') ||
    BROKEN.test(`${message ?? ''} ${parent?.message ?? ''}`)
  );
}

/** Type of the error of a body that nests too deep; the body parser passes it on. */
export const TOO_DEEP = 'entity.too.deep';

function fromParser(error: unknown): HttpProblem | null {
  const { type, status } = error as { type?: string; status?: number };
  if (type === 'entity.too.large') return new HttpProblem(413, 'Body too large');
  if (type === TOO_DEEP)
    return new HttpProblem(400, 'Request not understood', {
      detail: `The body nests deeper than ${DEEPEST_JSON} levels`,
    });
  if (type === 'entity.parse.failed')
    return new HttpProblem(400, 'Body is not JSON', { detail: (error as Error).message });
  return status && status >= 400 && status < 500
    ? new HttpProblem(status, (error as Error).message)
    : null;
}

/** Problem document of an error; null when the client cannot act on it. */
export function knownProblem(error: unknown): HttpProblem | null {
  return error instanceof HttpProblem ? error : fromDatabase(error);
}

/** The last handler: every error leaves as problem details, with the request's id. */
export const sendProblem: ErrorRequestHandler = (error: unknown, req, res, next) => {
  if (res.headersSent) {
    next(error);
    return;
  }
  const known = knownProblem(error) ?? fromParser(error);
  if (!known) req.log?.error({ err: error }, 'unexpected');
  const { retryAfterS, code, detail, errors, current } = known?.more ?? {};
  if (retryAfterS !== undefined) res.setHeader('Retry-After', String(retryAfterS));
  const status = known?.status ?? 500;
  const problem: Problem = {
    type: problemType(code ?? problemCode(status)),
    title: known?.title ?? 'Something went wrong here',
    status,
    ...(detail !== undefined && { detail }),
    ...(errors && { errors }),
    ...(current !== undefined && { current }),
    instance: req.originalUrl,
    requestId: String(req.id ?? ''),
  };
  res.status(status).type('application/problem+json').send(JSON.stringify(problem));
};
