import { HttpClient, HttpErrorResponse, HttpHeaders } from '@angular/common/http';
import { inject, Injectable } from '@angular/core';
import { catchError, Subject, throwError, type Observable } from 'rxjs';
import type { Problem } from '@ruddy/core/base/contract';

/** A refusal of the server as a value: what, where, what was stored. `status` 0 means it was not reached. */
export class ApiProblem extends Error {
  constructor(readonly problem: Problem) {
    super(problem.detail ?? problem.title);
  }

  /** The message for one field, or null. Paths are JSON paths like `spec/sockets/0/key`. */
  at(path: string): string | null {
    return this.problem.errors?.find((e) => e.path === path)?.message ?? null;
  }
}

function toProblem(error: unknown): ApiProblem {
  if (error instanceof HttpErrorResponse) {
    const body: unknown = typeof error.error === 'string' ? safeJson(error.error) : error.error;
    if (body && typeof body === 'object' && 'title' in body) return new ApiProblem(body as Problem);
    const title =
      error.status === 0
        ? 'The server was not reached; nothing was stored'
        : `The server answered ${error.status}`;
    return new ApiProblem({ type: 'about:blank', title, status: error.status });
  }
  return new ApiProblem({ type: 'about:blank', title: String(error), status: -1 });
}

function safeJson(text: string): unknown {
  try {
    return JSON.parse(text);
  } catch {
    return null;
  }
}

export type Query = Record<string, string | number | boolean | undefined | null>;

/** The one way to the server. Every error that leaves here is an `ApiProblem`. */
@Injectable({ providedIn: 'root' })
export class Api {
  readonly #http = inject(HttpClient);
  readonly #signedOut = new Subject<void>();
  /** The server asks for a sign-in: the session ended, or there was none. */
  readonly signedOut = this.#signedOut.asObservable();

  get<T>(path: string, query: Query = {}): Observable<T> {
    const params = Object.fromEntries(
      Object.entries(query).filter(([, v]) => v !== undefined && v !== null && v !== ''),
    ) as Record<string, string | number | boolean>;
    return this.guard(this.#http.get<T>(`/api${path}`, { params }));
  }

  /** `rev` only where the route changes something that has a revision. */
  post<T>(path: string, body: unknown, rev?: number): Observable<T> {
    const headers =
      rev === undefined ? {} : { headers: new HttpHeaders({ 'If-Match': `"${rev}"` }) };
    return this.guard(this.#http.post<T>(`/api${path}`, body, headers));
  }

  /** An edit names the revision it was made on. */
  patch<T>(path: string, body: unknown, rev: number): Observable<T> {
    return this.guard(
      this.#http.patch<T>(`/api${path}`, body, {
        headers: new HttpHeaders({ 'If-Match': `"${rev}"` }),
      }),
    );
  }

  put<T>(path: string, body: unknown, rev: number): Observable<T> {
    return this.guard(
      this.#http.put<T>(`/api${path}`, body, {
        headers: new HttpHeaders({ 'If-Match': `"${rev}"` }),
      }),
    );
  }

  delete<T>(path: string): Observable<T> {
    return this.guard(this.#http.delete<T>(`/api${path}`));
  }

  /** Turn whatever goes wrong into an `ApiProblem`. */
  guard<T>(source: Observable<T>): Observable<T> {
    return source.pipe(
      catchError((error: unknown) => {
        const problem = toProblem(error);
        if (problem.problem.status === 401) this.#signedOut.next();
        return throwError(() => problem);
      }),
    );
  }
}
