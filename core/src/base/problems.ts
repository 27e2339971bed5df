/** What can go wrong with a request, by its code, with the HTTP status it is sent with (RFC 9110, RFC 6585). */
export const PROBLEMS = {
  'bad-request': 400,
  'not-signed-in': 401,
  /** Name and password are right, and a one-time code is asked for beside them. */
  'code-needed': 401,
  'not-allowed': 403,
  /** The password is asked for again before the act. */
  'confirm-first': 403,
  'not-found': 404,
  conflict: 409,
  'stale-revision': 412,
  'too-large': 413,
  'unsupported-type': 415,
  invalid: 422,
  'revision-missing': 428,
  'rate-limited': 429,
  unexpected: 500,
  unavailable: 503,
  'storage-full': 507,
} as const;
export type ProblemCode = keyof typeof PROBLEMS;

const URN = 'urn:ruddy:problem:';
const CODES = Object.entries(PROBLEMS) as [ProblemCode, number][];

/**
 * The problem of an HTTP status.
 * @param status HTTP status, 400 to 599
 * @returns its code; of one without a code of its own, that of its class
 * @example problemCode(412) // => 'stale-revision'
 */
export function problemCode(status: number): ProblemCode {
  const known = CODES.find(([, s]) => s === status);
  return known?.[0] ?? (status < 500 ? 'bad-request' : 'unexpected');
}

/**
 * The `type` of a problem document (RFC 9457) by its code.
 * @param code the problem
 * @returns a URN
 * @example problemType('invalid') // => 'urn:ruddy:problem:invalid'
 */
export function problemType(code: ProblemCode): string {
  return `${URN}${code}`;
}

/**
 * The code of a problem document: by its `type` where that is one of these, otherwise by its status.
 * @param problem type and HTTP status of the document
 * @returns its code
 * @example codeOf({ type: 'urn:ruddy:problem:confirm-first', status: 403 }) // => 'confirm-first'
 */
export function codeOf(problem: { readonly type?: string; readonly status: number }): ProblemCode {
  // A document without a type is one of "about:blank" (RFC 9457, section 4.2.1): its status says all.
  const type = problem.type ?? '';
  const named = type.slice(URN.length);
  return type.startsWith(URN) && named in PROBLEMS
    ? (named as ProblemCode)
    : problemCode(problem.status);
}
