import { randomUUID } from 'node:crypto';
import { ensureDatabase, openCluster } from '../lib/cluster.mjs';
import { ROOT } from '../lib/paths.mjs';
import { quiet } from '../lib/run.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

export const KEEPER = 'Keeper K';
export const password = (n) => `the heron waits, ${n} times`;

/** A caller with a session of its own. */
export function caller(url, cookie = '') {
  return async (method, path, body, headers = {}) => {
    const r = await fetch(url + path, {
      method,
      headers: {
        ...(body !== undefined && { 'content-type': 'application/json' }),
        ...(cookie && { cookie }),
        ...headers,
      },
      ...(body !== undefined && { body: JSON.stringify(body) }),
    });
    const set = r.headers.getSetCookie()[0]?.split(';')[0];
    return { status: r.status, body: await r.json().catch(() => null), cookie: set };
  };
}

/** The same for one whose acts ask for the password again in a long run: it is given, and the act done. */
function confirming(call, n) {
  return async (...request) => {
    const r = await call(...request);
    if (r.body?.type !== 'urn:ruddy:problem:confirm-first') return r;
    await call('POST', '/api/me/confirm', { password: password(n) });
    return call(...request);
  };
}

export const signIn = (url, name, n) =>
  caller(url)('POST', '/api/sign-in', { name, password: password(n) });

/** A server at which people sign in, over an empty database, with one keeper. */
export async function withMembers({ dataDir }, work) {
  const cluster = await openCluster(dataDir);
  const database = `members_${randomUUID().replaceAll('-', '')}`;
  ensureDatabase(cluster, database);
  const env = {
    DATABASE_URL: cluster.url(database),
    PORT: '0',
    HOST: '0.0.0.0',
    RUDDY_EMPTY: '1',
    RUDDY_LOG: 'silent',
  };
  const made = quiet('node', [`${ROOT}/server/dist/commands.mjs`, 'keeper', KEEPER], {
    env: { ...process.env, ...env },
    input: `${password(0)}\n`,
    stdio: ['pipe', 'pipe', 'pipe'],
  });
  if (made.code !== 0) throw new Error(`no keeper: ${made.out}`);
  const server = await startServer(env, { stdio: ['ignore', 'ignore', 'inherit', 'ipc'] });
  const url = `http://127.0.0.1:${server.port}`;
  try {
    const keeper = confirming(caller(url, (await signIn(url, KEEPER, 0)).cookie), 0);
    const forgetTries = () => cluster.psql(database, 'DELETE FROM sign_in_tries');
    return await work({ url, keeper, forgetTries });
  } finally {
    await stopServer(server.child);
    cluster.close();
  }
}
