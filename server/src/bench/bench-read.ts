import { pack } from 'tar-stream';
import type { BenchReading, TreeEntry } from '@ruddy/core/bench/contract';
import { type Report, reportSchema } from '@ruddy/core/bring-up';
import { benchTree, readCopy, treeFiles, type BenchRun, type Entry } from '@ruddy/simbench';
import { probe } from '../../../probe/probe.mjs';
import { HttpProblem } from '../platform/http/problem';
import { countReading } from './benches';

/** What the probe reports of the system that runs on a bench; null where none does. */
export function reportOf(run: BenchRun): Report | null {
  const tree = benchTree(run);
  return tree ? reportSchema.parse(probe('/', treeFiles(tree))) : null;
}

/** Read a bench as a person beside it would: run the probe on its files, and a copy program on its card. */
export async function readOff(id: string): Promise<BenchReading> {
  const { run, n } = await countReading(id);
  const down = readCopy(run, 'down', n);
  const up = readCopy(run, 'up', n);
  return {
    state: run.state,
    report: reportOf(run),
    copy: down && up ? { down, up } : null,
  };
}

async function treeOf(id: string): Promise<readonly Entry[]> {
  const { run } = await countReading(id);
  const tree = benchTree(run);
  if (!tree)
    throw new HttpProblem(409, 'No system runs there', {
      detail: 'Switch the host of the bench on and wait until it has started',
    });
  return tree;
}

/** Every file and link of the system that runs on a bench. */
export async function benchFiles(id: string): Promise<TreeEntry[]> {
  return (await treeOf(id)).map((e): TreeEntry => {
    if (e.kind === 'link') return { path: e.path, target: e.target };
    return typeof e.data === 'string'
      ? { path: e.path, text: e.data }
      : { path: e.path, hex: Buffer.from(e.data).toString('hex') };
  });
}

/** The same as a tape archive, to be unpacked and read with whatever reads such files. */
export async function benchArchive(id: string): Promise<Buffer> {
  const tape = pack();
  for (const e of await treeOf(id)) {
    if (e.kind === 'link') tape.entry({ name: e.path, type: 'symlink', linkname: e.target });
    else
      tape.entry(
        { name: e.path, mode: 0o444 },
        typeof e.data === 'string' ? e.data : Buffer.from(e.data),
      );
  }
  tape.finalize();
  const chunks: Uint8Array[] = [];
  for await (const chunk of tape) chunks.push(chunk as Uint8Array);
  return Buffer.concat(chunks);
}
