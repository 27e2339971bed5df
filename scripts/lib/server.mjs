import { fork } from 'node:child_process';
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

/** End a server and wait for it. */
export function stopServer(child) {
  return new Promise((resolve) => {
    if (child.exitCode !== null || child.signalCode !== null) return resolve();
    child.once('exit', () => resolve());
    child.kill('SIGTERM');
  });
}
