import type { AddressInfo } from 'node:net';
import { pino } from 'pino';
import { createApp } from '../../src/app';
import { connect } from '../../src/platform/db/connect';
import { migrate } from '../../src/platform/db/migrate';
import { defineModels } from '../../src/models';
import * as samples from './samples';

export { samples };

/** The whole application over a fresh database, listening; `unexpected` hears of what no request could be answered with. */
export async function openApp(
  databaseUrl: string,
  unexpected: (error: unknown) => void,
  threads: string,
) {
  const db = connect(databaseUrl);
  defineModels(db);
  await migrate(db);
  const app = createApp(
    { now: () => new Date('2026-11-20T18:00:00Z'), unexpected, databaseUrl, threads },
    { webDir: null, logger: pino({ level: 'silent' }) },
  );
  const server = app.listen(0, '127.0.0.1');
  await new Promise((resolve) => server.once('listening', resolve));
  return {
    url: `http://127.0.0.1:${(server.address() as AddressInfo).port}`,
    /** Rows of every table that a person would miss. */
    async held(): Promise<string> {
      const [rows] = await db.query(HELD);
      return JSON.stringify(rows[0]);
    },
    query: async (sql: string) => ({ rows: (await db.query(sql))[0] as { id: string }[] }),
    async close(): Promise<void> {
      server.closeAllConnections();
      await new Promise((resolve) => server.close(resolve));
      await db.close();
    },
  };
}

const TABLES = [
  ...[
    'parts',
    'part_revisions',
    'sockets',
    'items',
    'item_facts',
    'prices',
    'exchange_rates',
    'setups',
    'setup_slots',
    'events',
  ],
  ...[
    'log_entries',
    'runs',
    'run_channels',
    'run_figures',
    'captures',
    'profiles',
    'members',
    'loans',
    'settings',
    'searches',
    'feeds',
    'claims',
  ],
];
const HELD = `SELECT ${TABLES.map((t) => `(SELECT count(*)::int FROM ${t}) AS ${t}`).join(', ')}`;
