import { createHash, randomBytes } from 'node:crypto';

/** A token for a browser to keep: 256 random bits. */
export const newToken = (): string => randomBytes(32).toString('base64url');

/** Only the hash is stored, so that a copy of the database gives nothing away. */
export const tokenHash = (token: string): Buffer => createHash('sha256').update(token).digest();
