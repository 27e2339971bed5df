import type { RequestHandler } from 'express';
import { HttpProblem } from './problem';

const NAMES = new Set(['127.0.0.1', 'localhost', '[::1]', '::1']);

function hostname(value: string): string | null {
  try {
    return new URL(value.includes('://') ? value : `http://${value}`).hostname;
  } catch {
    return null;
  }
}

/**
 * Refuse requests that did not mean this machine: a Host header with another name (rebinding),
 * and any change asked for by a page of another origin.
 */
export const guard: RequestHandler = (req, _res, next) => {
  const host = req.header('host') ?? '';
  if (!NAMES.has(hostname(host) ?? '')) throw new HttpProblem(421, 'This server answers to its own name only');
  const origin = req.header('origin');
  if (origin !== undefined && origin !== `http://${host}`) throw new HttpProblem(403, 'Asked for by another site');
  next();
};
