import { isIP } from 'node:net';
import type { RequestHandler } from 'express';
import { HttpProblem } from './problem';

const LOOPBACK = ['127.0.0.1', 'localhost', '[::1]', '::1'];

/** What this server is called from outside. */
export interface Names {
  /** It listens beyond this machine. */
  beyond: boolean;
  /** The address people type when something stands in front of it. */
  publicUrl: URL | null;
}
export const LOCAL_ONLY: Names = { beyond: false, publicUrl: null };

function hostname(value: string): string | null {
  try {
    return new URL(value.includes('://') ? value : `http://${value}`).hostname;
  } catch {
    return null;
  }
}

/** The one origin whose pages may ask under a host: the public address where it is that one's, encrypted if it is. */
function originOf(host: string, publicUrl: URL | null): string {
  return publicUrl && hostname(host) === publicUrl.hostname ? publicUrl.origin : `http://${host}`;
}

/**
 * Refuse requests that did not mean this server: a Host header with another name (rebinding), and any call by a page of another origin.
 * An address of numbers cannot be rebound, so beyond this machine any is answered; a name only when it was given.
 */
export function guard(names: Names): RequestHandler {
  const known = new Set([...LOOPBACK, ...(names.publicUrl ? [names.publicUrl.hostname] : [])]);
  const answers = (name: string | null) =>
    name !== null &&
    (known.has(name) || (names.beyond && isIP(name.replace(/^\[|\]$/g, '')) !== 0));
  return (req, _res, next) => {
    const host = req.header('host') ?? '';
    if (!answers(hostname(host)))
      throw new HttpProblem(421, 'This server answers to its own name only');
    const origin = req.header('origin');
    if (origin !== undefined && origin !== originOf(host, names.publicUrl))
      throw new HttpProblem(403, 'Asked for by another site');
    // Browsers say so also where they send no origin: a picture, a form, a script of another site. A link to a page may come from anywhere.
    const site = req.header('sec-fetch-site');
    if (site === 'cross-site' || site === 'same-site') {
      const link = req.method === 'GET' && req.header('sec-fetch-mode') === 'navigate';
      if (!link && (req.method !== 'GET' || req.path.startsWith('/api/')))
        throw new HttpProblem(403, 'Asked for by another site');
    }
    next();
  };
}
