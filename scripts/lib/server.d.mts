import type { ChildProcess } from 'node:child_process';
export function startServer(
  env: Record<string, string>,
  options?: object,
): Promise<{ child: ChildProcess; port?: number; code?: number }>;
export function stopServer(child: ChildProcess): Promise<void>;
