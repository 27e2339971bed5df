import { select } from '../../db/database';

/** Writes down that jobs of this process are alive; returns those that were asked to stop. */
export async function beatJobs(ids: readonly string[]): Promise<string[]> {
  const rows = await select<{ id: string; stop: boolean }>(
    `UPDATE jobs SET heartbeat_at = now() WHERE id = ANY($1::uuid[]) AND state = 'running'
     RETURNING id, cancel_requested AS stop`,
    [ids],
  );
  return rows.filter((r) => r.stop).map((r) => r.id);
}
