import type * as z from 'zod';
import type { AuditKind } from './audit';

export type Method = 'GET' | 'POST' | 'PUT' | 'PATCH' | 'DELETE';
/** Method and path of an endpoint: `GET /api/setups/:id`. */
export type EndpointKey = `${Method} /api/${string}`;
/**
 * Role that an endpoint requires. `anyone` includes callers without a session; such an endpoint reveals and changes
 * nothing of the workshop.
 */
export type Caller = 'anyone' | 'reader' | 'member' | 'keeper';

/** One endpoint of the API: what it takes and what it answers. */
export interface Contract {
  readonly summary: string;
  readonly role: Caller;
  readonly params?: z.ZodObject;
  readonly query?: z.ZodObject;
  readonly body?: z.ZodType;
  readonly response: z.ZodType;
  /** The change names the revision it was made on (If-Match); an older one is refused with 412. */
  readonly revision?: 'required' | 'optional';
  /** Largest body, like "64mb"; 256kb where left out. */
  readonly bodyLimit?: string;
  /** Types of text the body is sent as; JSON where left out. */
  readonly text?: readonly string[];
  /** The body is bytes, handed over as they came. */
  readonly bytes?: true;
  /** The body is a file: it goes to disk as it comes and is read from there, never whole. `body` describes what is in it. */
  readonly file?: true;
  /** Who did it, from where and how it ended is written into the audit trail, under this kind. */
  readonly audit?: AuditKind;
  /** Asks for the password again where it was last given more than five minutes ago. */
  readonly confirm?: true;
  /** The answer stays open and is written as it comes: server-sent events, or the bytes of a file. */
  readonly sends?: 'events' | 'bytes';
}

/** The names in a path: `id` and `kind` of `/api/parts/:id/:kind`. */
type NamesIn<Path extends string> = Path extends `${string}:${infer Name}/${infer Rest}`
  ? Name | NamesIn<Rest>
  : Path extends `${string}:${infer Name}`
    ? Name
    : never;
type NamesOf<C> = C extends { readonly params: z.ZodObject<infer Shape> } ? keyof Shape : never;
type Same<A, B> = [A] extends [B] ? ([B] extends [A] ? true : false) : false;

/** Contracts whose paths name exactly their params; any other is `never` and does not compile. */
type Fitting<T> = {
  [K in keyof T]: K extends EndpointKey
    ? Same<NamesIn<K>, NamesOf<T[K]>> extends true
      ? T[K]
      : never
    : never;
};

/**
 * Declares endpoints once: the server implements them, the API description is made from them and
 * the pages call them by their key.
 * @param all contracts by method and path; the `:names` of a path are exactly the keys of `params`
 * @returns the same object, each contract with its own types
 * @example
 * contracts({ 'GET /api/setups/:id': { summary: 'One setup', role: 'reader', params: byId, response: setupSchema } })
 */
export function contracts<const T extends Readonly<Record<EndpointKey, Contract>>>(
  all: T & Fitting<T>,
): T {
  return all;
}

/** A value as a caller may hand it over: nothing in it is changed, so readonly lists and objects will do. */
type Sent<T> = unknown extends T
  ? T
  : T extends string | number | boolean | null | undefined | Uint8Array
    ? T
    : T extends readonly (infer Item)[]
      ? readonly Sent<Item>[]
      : { readonly [K in keyof T]: Sent<T[K]> };
/** A part of a request; it may be left out where nothing in it is required. */
type Part<Name extends string, T> = object extends T
  ? Readonly<Partial<Record<Name, T>>>
  : Readonly<Record<Name, T>>;
/** Values in a query: typed as the schema takes or gives them; null, undefined and '' are left out of the address. */
type QueryInput<S extends z.ZodType> = {
  readonly [K in keyof z.input<S>]: z.input<S>[K] | z.output<S>[K & keyof z.output<S>] | null | '';
};
type ParamsPart<C> = C extends { readonly params: infer S extends z.ZodType }
  ? Part<'params', z.input<S>>
  : unknown;
type QueryPart<C> = C extends { readonly query: infer S extends z.ZodType }
  ? Part<'query', QueryInput<S>>
  : unknown;
type BodyPart<C> = C extends { readonly body: infer S extends z.ZodType }
  ? Part<'body', Sent<z.input<S>>>
  : unknown;
type RevisionPart<C> = C extends { readonly revision: infer R }
  ? R extends 'required'
    ? { readonly revision: number }
    : { readonly revision?: number }
  : unknown;

/** What a caller sends to an endpoint. */
export type RequestOf<C> = ParamsPart<C> & QueryPart<C> & BodyPart<C> & RevisionPart<C>;
/** What an endpoint answers. */
export type ResponseOf<C> = C extends { readonly response: infer S extends z.ZodType }
  ? z.output<S>
  : never;

type Parsed<C, K extends 'params' | 'query' | 'body', Without> =
  C extends Readonly<Record<K, infer S extends z.ZodType>> ? z.output<S> : Without;

/** A file that was sent, on the disk of the server. */
export interface SentFile {
  readonly path: string;
  readonly bytes: number;
  /** Keeps it after the answer; whoever keeps it removes it. */
  keep(): void;
}

/** What the server hands to the implementation of an endpoint, checked by its schemas. */
export interface CallOf<C> {
  readonly params: Parsed<C, 'params', Record<never, never>>;
  readonly query: Parsed<C, 'query', Record<never, never>>;
  readonly body: C extends { readonly file: true } ? SentFile : Parsed<C, 'body', undefined>;
  /** The revision the change was made on; null only where it is optional and was left out. */
  readonly revision: C extends { readonly revision: infer R }
    ? R extends 'required'
      ? number
      : number | null
    : null;
}
