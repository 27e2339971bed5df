import { checked } from '../../base';
import { reportSchema } from '../schema/report';
import { readLspci, refuse } from './lspci';
import type { ReadResult } from './types';

/** The JSON report of a probe. What its schema does not name, such as serial numbers and unique ids, is dropped. */
export function readJsonReport(text: string): ReadResult {
  let value: unknown;
  try {
    value = JSON.parse(text);
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

/** Read a pasted or dropped text: a JSON report when it begins like one, otherwise what `lspci` prints. Never throws. */
export function readReport(text: string): ReadResult {
  const refused = refuse(text);
  if (refused) return { ok: false, problem: refused };
  return /^\s*\{/.test(text) ? readJsonReport(text) : readLspci(text);
}
