import type pg from 'pg';
import { execute } from './database';

/** The channel on which processes tell each other which topic has news. */
export const STREAM_CHANNEL = 'ruddy_stream';

/** Tells every process, once the current transaction is committed, that a topic has news. */
export function notify(topic: string): Promise<void> {
  return execute('SELECT pg_notify($1, $2)', [STREAM_CHANNEL, topic]);
}

/**
 * Subscribes a dedicated connection to the channel of `notify`; a pooled connection would lose the subscription when
 * released.
 */
export async function listen(client: pg.Client): Promise<void> {
  await client.query(`LISTEN ${STREAM_CHANNEL}`);
}
