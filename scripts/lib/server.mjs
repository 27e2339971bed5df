import { fork } from 'node:child_process';
import { clearTimeout, setTimeout } from 'node:timers';
import { SERVER_FILE } from './paths.mjs';

/** Start the built server and wait until it listens. Resolves with `{port, child}` or `{code}` when it gave up. */
export function startServer(env, options = {}) {
  return new Promise((resolve) => {
    const child = fork(SERVER_FILE, [], {
      env: { ...process.env, ...env },
      stdio: ['ignore', 'inherit', 'inherit', 'ipc'],
      ...options,
    });
    child.once('message', (m) => resolve({ child, port: m.port }));
    child.once('exit', (code) => resolve({ child, code: code ?? 1 }));
  });
}

/** A server ends by itself within half of this; one that cannot, because its thread of events is held, is killed. */
const GRACE_MS = 9000;

/** End a server and wait for it. Resolves with whether it had to be killed. */
export function stopServer(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve(false);
    let killed = false;
    const grace = setTimeout(() => (killed = child.kill('SIGKILL')), GRACE_MS);
    child.once('exit', () => {
      clearTimeout(grace);
      resolve(killed);
    });
    child.kill('SIGTERM');
  });
}
