import { select } from '../../db/database';
import { STREAM_CHANNEL } from '../../db/notify';

/** Writes the progress of a job, notifies watchers, and returns whether it was cancelled or deleted. */
export async function noteProgress(
  id: string,
  done: number,
  total: number,
  message: string,
): Promise<boolean> {
  const [row] = await select<{ cancel_requested: boolean }>(
    `WITH told AS (SELECT pg_notify('${STREAM_CHANNEL}', 'job/' || $1))
     UPDATE jobs SET done = $2, total = $3, message = $4, heartbeat_at = now(), seq = seq + 1
     FROM told WHERE id = $1::uuid RETURNING cancel_requested`,
    [id, done, total, message],
  );
  return row?.cancel_requested ?? true;
}
