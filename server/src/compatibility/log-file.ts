import { select } from '../platform/db/database';
import type { Chain } from '@ruddy/core/chain';
import type { Bundle, OutcomeInFile } from '@ruddy/core/workshop/contract';
import { contentHash } from '../platform/db/ids';

type Whole = Omit<OutcomeInFile, 'chain' | 'recordedAt'> & { chain: Chain; recordedAt: Date };

/** Entries of the log as a file holds them, each with its chain: all, or those of these ids with what they correct. */
export function logInFile(ids: readonly string[] | null = null): Promise<Whole[]> {
  return select<Whole>(
    `WITH RECURSIVE picked AS (
       SELECT id, supersedes FROM log_entries WHERE $1::uuid[] IS NULL OR id = ANY ($1::uuid[])
       UNION SELECT e.id, e.supersedes FROM log_entries e JOIN picked p ON p.supersedes = e.id
     )
     SELECT id, setup_id AS "setupId", unit, came_from AS "cameFrom", outcome, happened_on::text AS "happenedOn", versions, symptoms, fixes,
       provenance, round(confidence::numeric, 3)::float AS confidence, coalesce(private ->> 'note', '') AS note, supersedes AS corrects,
       order_used AS "order", chain, recorded_at AS "recordedAt", seq
     FROM log_entries WHERE id IN (SELECT id FROM picked) ORDER BY unit, seq, id`,
    [ids],
  );
}

/**
 * Entries with their chains kept once each. For a full export they belong to their setups; for a share file every entry stands alone,
 * and what is private stays: notes, the names of setups, and the names of files entries came in with.
 */
export function packEntries(
  entries: readonly Whole[],
  full: boolean,
): Pick<Bundle, 'chains' | 'outcomes'> {
  const places = new Map<string, number>();
  const chains: Chain[] = [];
  const outcomes = entries.map(
    ({ chain, setupId, unit, note, recordedAt, ...e }): OutcomeInFile => {
      const hash = contentHash(chain);
      const place = places.get(hash) ?? chains.push(chain) - 1;
      places.set(hash, place);
      const own = full
        ? { setupId, note, ...(setupId === null && { unit }) }
        : { setupId: null, unit, note: '', cameFrom: '' };
      return { ...e, ...own, chain: place, recordedAt: recordedAt.toISOString() };
    },
  );
  return { chains, outcomes };
}
