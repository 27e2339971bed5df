import { checked, parseJson } from '../../base';
import { reportSchema } from '../schema/report';
import { readLspci, refuse } from './lspci';
import type { ReadResult } from './types';

/**
 * Parses the JSON report of a probe. Fields outside its schema, such as serial numbers and unique ids, are dropped.
 * Never throws.
 *
 * @param text JSON text
 * @returns the report, or the problem with its place
 */
export function readJsonReport(text: string): ReadResult {
  let value: unknown;
  try {
    value = parseJson(text);
  } catch (e) {
    return {
      ok: false,
      problem: { code: 'bad-json', why: e instanceof Error ? e.message.slice(0, 120) : 'not JSON' },
    };
  }
  const parsed = checked(reportSchema, value);
  if (parsed.success) return { ok: true, report: parsed.data };
  const issue = parsed.error.issues[0];
  return {
    ok: false,
    problem: {
      code: 'bad-report',
      path: issue?.path.join('/') ?? '',
      why: issue?.message ?? 'not a report',
    },
  };
}

/**
 * Parses pasted or dropped text: JSON when it begins like JSON, otherwise the output of `lspci`. Never throws.
 *
 * @param text the whole text
 * @returns the report, or the problem with its place
 */
export function readReport(text: string): ReadResult {
  const refused = refuse(text);
  if (refused) return { ok: false, problem: refused };
  return /^\s*\{/.test(text) ? readJsonReport(text) : readLspci(text);
}
