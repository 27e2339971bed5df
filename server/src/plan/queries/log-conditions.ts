import type { LogFilter } from '@ruddy/core/compatibility/contract';
import { likePattern } from '../../platform/db/paging';

/** Conditions over entries `e`, with their bound values. */
export interface Conditions {
  readonly sql: string;
  readonly bind: unknown[];
}

/**
 * Matches a part by name: exactly where the log has that name, otherwise every part whose name contains the words.
 */
function named(column: 'host' | 'dock' | 'card', exact: string, pattern: string): string {
  return `(e.${column} = ${exact} OR (e.${column} LIKE ${pattern} AND NOT EXISTS (SELECT 1 FROM log_units k WHERE k.${column} = ${exact})))`;
}

const plain = (s: string) => s.replace(/\s+/g, ' ').trim().toLowerCase();
const like = (s: string) => likePattern(plain(s));
const COLUMNS = {
  controller: 'controllers',
  system: 'system_name',
  symptom: 'symptom_words',
  fix: 'fix_words',
} as const;

/** The conditions a filter asks for; parameters are numbered from `first`. Text is matched in small letters, wherever it stands. */
export function logConditions(f: LogFilter, first: number, parts = true): Conditions {
  const bind: unknown[] = [];
  const list: string[] = [];
  const put = (value: unknown, type: string) => `$${first - 1 + bind.push(value)}::${type}`;
  if (f.q) {
    const words = put(like(f.q), 'text');
    list.push(
      `(e.words LIKE ${words} OR e.setup_id IN (SELECT id FROM setups WHERE lower(name) LIKE ${words}))`,
    );
  }
  if (parts) {
    for (const k of ['host', 'dock', 'card'] as const) {
      const asked = f[k];
      if (asked) list.push(named(k, put(plain(asked), 'text'), put(like(asked), 'text')));
    }
    if (f.standard) list.push(`e.link LIKE '% ' || ${put(f.standard, 'text')}`);
  }
  for (const [k, column] of Object.entries(COLUMNS) as [keyof typeof COLUMNS, string][]) {
    const asked = f[k];
    if (asked) list.push(`e.${column} LIKE ${put(like(asked), 'text')}`);
  }
  if (f.since) list.push(`e.happened_on >= ${put(f.since, 'date')}`);
  if (f.until) list.push(`e.happened_on <= ${put(f.until, 'date')}`);
  if (f.known === 'file') list.push(`e.setup_id IS NULL`);
  else if (f.known) list.push(`e.provenance = ${put(f.known, 'text')}`);
  return { sql: list.length === 0 ? 'true' : list.join(' AND '), bind };
}

/** Matches entries without a correction. */
export const NOT_RETRACTED = 'NOT EXISTS (SELECT 1 FROM log_entries x WHERE x.supersedes = e.id)';
