import { vi } from 'vitest';
import { patience } from './patience.mjs';

/** The longest a single test or hook takes on the idle reference machine, with room: longer is hanging. */
const HANGS_MS = 300_000;
/** The longest a polled condition takes to come true there. */
const POLL_MS = 20_000;

const factor = patience();
// Servers under test, in this process or begun by it, wait as patiently for a connection to their database.
process.env['RUDDY_DB_WAIT_MS'] = String(Math.round(10_000 * factor));
vi.setConfig({
  testTimeout: HANGS_MS * factor,
  hookTimeout: HANGS_MS * factor,
  expect: { poll: { timeout: POLL_MS * factor } },
});
