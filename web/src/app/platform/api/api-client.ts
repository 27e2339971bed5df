import { HttpClient, HttpErrorResponse } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { catchError, defer, Subject, switchMap, throwError, type Observable } from 'rxjs';
import { codeOf, problemCode, type ProblemCode, problemType } from '@ruddy/core/base';
import type { Problem } from '@ruddy/core/base/contract';
import type { AnswerOf, Endpoint, RequestTo } from './endpoints';

/** Why a call failed: a code of the server, or the server was not reached at all. */
export type ApiErrorCode = ProblemCode | 'unreachable';

/** A refusal of the server as a value: what, where, and what is stored now. */
export class ApiError extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail ?? problem.title);
  }

  get code(): ApiErrorCode {
    return this.problem.status <= 0 ? 'unreachable' : codeOf(this.problem);
  }

  /** The message for one field, or null. Paths are JSON paths like `spec/sockets/0/key`. */
  at(path: string): string | null {
    return this.problem.errors?.find((e) => e.path === path)?.message ?? null;
  }
}

function toProblem(error: unknown): ApiError {
  const status = error instanceof HttpErrorResponse ? error.status : -1;
  if (error instanceof HttpErrorResponse) {
    const body: unknown = typeof error.error === 'string' ? safeJson(error.error) : error.error;
    if (body && typeof body === 'object' && 'title' in body) return new ApiError(body as Problem);
  }
  return new ApiError({
    type: problemType(problemCode(status)),
    title: titleOf(error, status),
    status,
  });
}

/** The words for an answer that is no problem document. */
function titleOf(error: unknown, status: number): string {
  if (status < 0) return String(error);
  return status === 0
    ? 'The server was not reached; nothing was stored'
    : `The server answered ${status}`;
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

interface Parts {
  readonly params?: Readonly<Record<string, string | number>>;
  readonly query?: object;
  readonly body?: unknown;
  readonly revision?: number;
}
/** The request of an endpoint; it may be left out where nothing in it is required. */
type Requested<K extends Endpoint> =
  object extends RequestTo<K> ? [request?: RequestTo<K>] : [request: RequestTo<K>];

/** A path with its names filled in, each encoded. */
function filled(path: string, params: Parts['params'] = {}): string {
  return path.replaceAll(/:(\w+)/g, (_, name: string) => encodeURIComponent(params[name] ?? ''));
}

/** Query values that say nothing are left out. */
function queryValues(query: object = {}): Record<string, string | number | boolean> {
  return Object.fromEntries(
    Object.entries(query as Record<string, string | number | boolean | null | undefined>).filter(
      (entry): entry is [string, string | number | boolean] =>
        entry[1] !== undefined && entry[1] !== null && entry[1] !== '',
    ),
  );
}

/** What stands in the address of an endpoint: its names and its query. */
type Address<K extends Endpoint> = Omit<RequestTo<K>, 'body' | 'revision'>;

/**
 * The address of an endpoint, for a link, an upload or a stream.
 * @example apiUrl('GET /api/export/:kind', { params: { kind: 'card' } }) // => …/export/card
 */
export function apiUrl<K extends Endpoint>(key: K, request: Address<K>): string {
  const { params, query } = request as Parts;
  const path = filled(key.slice(key.indexOf(' ') + 1), params);
  const words = new URLSearchParams(
    Object.entries(queryValues(query)).map(([name, value]) => [name, String(value)]),
  ).toString();
  return words === '' ? path : `${path}?${words}`;
}

/** The one way to the server. Every error that leaves here is an `ApiError`. */
@Injectable({ providedIn: 'root' })
export class ApiClient {
  readonly #http = inject(HttpClient);
  readonly #signedOut = new Subject<void>();
  /** The server asks for a sign-in: the session ended, or there was none. */
  readonly signedOut = this.#signedOut.asObservable();
  /** Asks for the password before an act that needs it; true: it was given. The shell sets it. */
  confirmation: (() => Observable<boolean>) | null = null;

  /**
   * Calls an endpoint by its key; what it takes and answers is typed by its contract.
   * @example api.call('PATCH /api/setups/:id', { params: { id }, body: { name }, revision: 3 })
   */
  call<K extends Endpoint>(key: K, ...[request]: Requested<K>): Observable<AnswerOf<K>> {
    const { params, query, body, revision } = (request ?? {}) as Parts;
    const [method = '', path = ''] = key.split(' ');
    const headers: Record<string, string> =
      revision === undefined ? {} : { 'If-Match': `"${revision}"` };
    return this.guard(
      this.#http.request<AnswerOf<K>>(method, filled(path, params), {
        params: queryValues(query),
        body,
        headers,
      }),
    );
  }

  /** Sends a file as it lies on the disk: the browser streams it, the page does not read it. */
  upload<K extends Endpoint>(key: K, request: Address<K>, file: Blob): Observable<AnswerOf<K>> {
    const [method = ''] = key.split(' ');
    const headers = { 'Content-Type': file.type };
    return this.guard(
      this.#http.request<AnswerOf<K>>(method, apiUrl(key, request), { body: file, headers }),
    );
  }

  /** The bytes an endpoint answers with. */
  bytes<K extends Endpoint>(key: K, request: Address<K>): Observable<ArrayBuffer> {
    return this.guard(this.#http.get(apiUrl(key, request), { responseType: 'arraybuffer' }));
  }

  /** Sends what was kept in this browser while the server was away: its path and body were typed when it was kept. */
  resend(path: string, body: unknown): Observable<unknown> {
    return this.guard(this.#http.post<unknown>(`/api${path}`, body));
  }

  /** Turns whatever goes wrong into an `ApiError`. Where the password is asked for again, it is, and the call made once more. */
  guard<T>(source: Observable<T>): Observable<T> {
    return this.#known(source).pipe(
      catchError((error: ApiError) => {
        const ask = this.confirmation;
        if (error.code !== 'confirm-first' || !ask) return throwError(() => error);
        return defer(ask).pipe(
          switchMap((given) => (given ? this.#known(source) : throwError(() => error))),
        );
      }),
    );
  }

  #known<T>(source: Observable<T>): Observable<T> {
    return source.pipe(
      catchError((error: unknown) => {
        const problem = toProblem(error);
        if (problem.code === 'not-signed-in') this.#signedOut.next();
        return throwError(() => problem);
      }),
    );
  }
}
