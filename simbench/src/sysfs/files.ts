import { dirname } from 'node:path';
import { Volume } from 'memfs';
import type { Entry } from './entry';

/** A tree as files in memory, for whatever reads files: nothing of it is written to a disk. */
export function treeFiles(entries: readonly Entry[]): Volume {
  const volume = new Volume();
  for (const e of entries) {
    const at = `/${e.path}`;
    volume.mkdirSync(dirname(at), { recursive: true });
    if (e.kind === 'file') volume.writeFileSync(at, e.data);
    else volume.symlinkSync(e.target, at);
  }
  return volume;
}
