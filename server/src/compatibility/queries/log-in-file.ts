import type { Chain } from '@ruddy/core/chain';
import type { OutcomeInFile } from '@ruddy/core/workshop/contract';
import { select } from '../../platform/db/database';

export type LogInFile = Omit<OutcomeInFile, 'chain' | 'recordedAt'> & {
  chain: Chain;
  recordedAt: Date;
};

/** Entries of the log as a file holds them, each with its chain: all, or those of these ids with what they correct. */
export function logInFile(ids: readonly string[] | null = null): Promise<LogInFile[]> {
  return select<LogInFile>(
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
