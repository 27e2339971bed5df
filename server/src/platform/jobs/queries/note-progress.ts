import { select } from '../../db/database';
import { STREAM_CHANNEL } from '../../db/notify';

/** Writes how far a job is, tells who watches it, and answers whether it was asked to stop, or is gone. */
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
