import { notSaved } from '../http/problem';
import { jsonValues, type JsonValue } from './json';
import type { TextFile } from './text-file';

/** A file in the bundle's format that holds entries of one subject. */
export interface SubjectFile {
  /** As a refusal names it. */
  readonly name: string;
  /** Lists whose entries are given. */
  readonly lists: readonly string[];
  /** Lists it must not hold, and their words: such a file is loaded whole or not at all. */
  readonly not: readonly string[];
  readonly notWords: string;
}

/**
 * The entries of a file in the bundle's format that holds one subject, as they are read.
 * @param file to read
 * @param of which lists
 * @throws HttpProblem 422 where it is no such file
 */
export async function* bundleValues(file: TextFile, of: SubjectFile): AsyncGenerator<JsonValue> {
  const odd = notSaved(`Not a ${of.name}: "format" must be "ruddy-bridge/bundle" and "version" 1`);
  const wanted: Readonly<Record<string, unknown>> = { format: 'ruddy-bridge/bundle', version: 1 };
  const seen = new Set<string>();
  const paths = ['$.*', ...[...of.lists, ...of.not].map((l) => `$.${l}.*`)];
  for await (const v of jsonValues(file, paths)) {
    const [top = '', ...rest] = v.path;
    if (typeof top === 'number') throw odd;
    if (rest.length === 0 && Object.hasOwn(wanted, top)) {
      if (v.value !== wanted[top]) throw odd;
      seen.add(top);
    }
    // A list that is none, such as an object under its name, gives nothing.
    if (typeof rest[0] !== 'number') continue;
    if (of.not.includes(top))
      throw notSaved(`The file holds ${of.notWords} too. Load it whole under Workshop, Data`);
    yield v;
  }
  if (seen.size < 2) throw odd;
}
