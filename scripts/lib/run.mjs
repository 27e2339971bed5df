import { spawn, spawnSync } from 'node:child_process';

/** Run a program and wait; its output goes to this terminal. Resolves with the exit code. */
export function run(command, args, options = {}) {
  return new Promise((resolve) => {
    const child = spawn(command, args, { stdio: 'inherit', ...options });
    child.on('error', () => resolve(127));
    child.on('close', (code) => resolve(code ?? 1));
  });
}

/** Run a program quietly; gives `{code, out}` with both streams in `out`. */
export function quiet(command, args, options = {}) {
  const r = spawnSync(command, args, {
    encoding: 'utf8',
    stdio: ['ignore', 'pipe', 'pipe'],
    ...options,
  });
  return { code: r.status ?? 127, out: `${r.stdout ?? ''}${r.stderr ?? ''}` };
}

/** Where a program stands on PATH, or null. */
export function which(program) {
  const r = quiet('sh', ['-c', `command -v ${program}`]);
  return r.code === 0 ? r.out.trim() : null;
}
