/** One thing in the tree, its path from the root without a slash before it. */
export type Entry =
  | { readonly path: string; readonly kind: 'file'; readonly data: string | Uint8Array }
  /** Target as it is written into the link: relative to the folder the link lies in. */
  | { readonly path: string; readonly kind: 'link'; readonly target: string };

export function file(path: string, data: string | Uint8Array): Entry {
  return { path, kind: 'file', data };
}

/** A file of one value, as the kernel writes it: with a line end. */
export function value(path: string, data: string | number): Entry {
  return file(path, `${data}\n`);
}

/** A link from one place in the tree to another, both from its root. */
export function link(path: string, to: string): Entry {
  const from = path.split('/').slice(0, -1);
  const goal = to.split('/');
  let same = 0;
  while (same < from.length && from[same] === goal[same]) same++;
  return {
    path,
    kind: 'link',
    target: [...from.slice(same).map(() => '..'), ...goal.slice(same)].join('/'),
  };
}
