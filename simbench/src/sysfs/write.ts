import { mkdirSync, symlinkSync, writeFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import type { Entry } from './entry';

/** Write a tree below a folder, links as links. */
export function writeTree(root: string, entries: readonly Entry[]): void {
  for (const e of entries) {
    const at = join(root, e.path);
    mkdirSync(dirname(at), { recursive: true });
    if (e.kind === 'file') writeFileSync(at, e.data);
    else symlinkSync(e.target, at);
  }
}
