/** What the probe asks of a file system, as Node's own answers it. */
export interface ProbeFiles {
  openSync(path: string, flags: string): number;
  readSync(
    handle: number,
    buffer: Buffer,
    offset: number,
    length: number,
    position: number,
  ): number;
  closeSync(handle: number): void;
  readFileSync(path: string, encoding: 'utf8'): unknown;
  readdirSync(path: string): unknown;
  readlinkSync(path: string): unknown;
  realpathSync(path: string): unknown;
}

/** Read the machine whose `sys` and `proc` lie below `root`: a report by the open schema, before anybody has checked it. */
export function probe(root?: string, files?: ProbeFiles): unknown;
