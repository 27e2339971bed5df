import { createHash } from 'node:crypto';
import canonicalize from 'canonicalize';
import { v5, v7, validate } from 'uuid';

const NAMESPACE = '7b1f2c0e-5a0d-5f6e-9b7a-4d1c2e3f4a5b';

/** A new row id: time-ordered, RFC 9562 version 7. */
export function newId(): string {
  return v7();
}

/** The id a short name in a file stands for: the same every time, RFC 9562 version 5. UUIDs stay as they are. */
export function idFromFile(name: string): string {
  return validate(name) ? name.toLowerCase() : v5(name, NAMESPACE);
}

/** SHA-256 over canonical JSON (RFC 8785), in hex: two values with the same content have the same hash. */
export function contentHash(value: unknown): string {
  const text = (canonicalize as unknown as (v: unknown) => string | undefined)(value);
  if (text === undefined) throw new TypeError('only JSON values have a content hash');
  return createHash('sha256').update(text).digest('hex');
}
