import type { ChildProcess } from 'node:child_process';

export interface Begun {
  child: ChildProcess;
  port?: number;
  code?: number;
}
export function pauseAfter(deaths: number): number;
export function supervise(
  begin: () => Promise<Begun>,
  how: {
    stopChild: (child: ChildProcess) => Promise<unknown>;
    pause?: (deaths: number) => number;
    tell?: (line: string) => void;
  },
): Promise<{ first: Begun; stop: () => Promise<unknown> }>;
