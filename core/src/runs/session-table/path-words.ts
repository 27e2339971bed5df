/** A file as it was given: its path with folders, where it came with them, and the program it names. */
export interface NamedFile {
  readonly path: string;
  readonly program: string;
}

/** A word of a path, as written and squashed: small, letters and digits only. */
export interface PathWord {
  readonly text: string;
  readonly word: string;
  /** Stands in the name of the file itself, not in a folder. */
  readonly inName: boolean;
}

/**
 * Small letters and digits of a text.
 *
 * @param text a name
 * @returns what is compared
 * @example squash('Fen-Runner 2') // => 'fenrunner2'
 */
export function squash(text: string): string {
  return text.toLowerCase().replace(/[^\p{L}\p{N}]/gu, '');
}

/**
 * Words of a path: cut at slashes, blanks, marks and brackets; the ending of the file is none.
 *
 * @param path path of a file
 * @returns its words in order
 * @example pathWords('tb4/fen_run2.csv').map((w) => w.word) // => ['tb4', 'fen', 'run2']
 */
export function pathWords(path: string): PathWord[] {
  const parts = path.split(/[/\\]/).filter((p) => p !== '');
  return parts.flatMap((part, i) => {
    const inName = i === parts.length - 1;
    const stem = inName ? part.replace(/\.[A-Za-z]{2,5}$/, '') : part;
    return stem
      .split(/[\s_\-.,;+()[\]{}#]+/)
      .map((text) => ({ text, word: squash(text), inName }))
      .filter((w) => w.word !== '');
  });
}
