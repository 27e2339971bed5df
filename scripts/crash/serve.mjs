import { startServer } from '../lib/server.mjs';

/** The settings of whoever runs this do not count here. */
const PLAIN = {
  HOST: '',
  RUDDY_PUBLIC_URL: '',
  RUDDY_NOW: '',
  RUDDY_EMPTY: '1',
  RUDDY_BACKUP_DIR: '',
  RUDDY_LOG: 'silent',
  PORT: '0',
};

/** A quiet, empty server on a database, at a port of its own. */
export function serveOn(databaseUrl) {
  return startServer(
    { ...PLAIN, DATABASE_URL: databaseUrl },
    { stdio: ['ignore', 'ignore', 'ignore', 'ipc'] },
  );
}
