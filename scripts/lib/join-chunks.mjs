import { readdirSync, readFileSync, rmSync, writeFileSync } from 'node:fs';
import { basename, join } from 'node:path';
import { brotliCompressSync, constants, gzipSync } from 'node:zlib';
import { rollup } from 'rollup';

/** A part used by so many pages goes to the one file all of them load. */
const SHARED_BY = 3;
/** What a first visit loads, the page and then the search in the bar: what they need stays apart from what the others share. */
const FIRST = { start: 'setups-page', search: 'search-box' };
const PACKED = /\.(js|css|svg|html)$/;

/** Every file that `roots` load at once, themselves included. */
function closure(roots, info) {
  const seen = new Set();
  const open = [...roots];
  while (open.length > 0) {
    const id = open.pop();
    if (seen.has(id)) continue;
    seen.add(id);
    open.push(...info(id).importedIds);
  }
  return seen;
}

/**
 * Which file each part goes to: `start` and `search` for a first visit, `shared` for what at least three pages use. The
 * build splits to the last byte, and a page then waits for a hundred requests; a few kilobytes more in four files come sooner.
 */
function grouping(info, main) {
  const first = closure([main], info);
  const pages = new Set();
  for (const id of closure([main], info))
    for (const page of info(id).dynamicallyImportedIds) pages.add(page);
  for (const page of pages)
    for (const id of closure([page], info))
      for (const more of info(id).dynamicallyImportedIds) pages.add(more);
  const users = new Map();
  for (const page of pages)
    for (const id of closure([page], info)) users.set(id, (users.get(id) ?? 0) + 1);
  const apart = new Map();
  for (const [name, file] of Object.entries(FIRST)) {
    const begin = [...pages].find((p) => basename(p).startsWith(`${file}-`));
    if (!begin) throw new Error(`no file of the build is called ${file}`);
    for (const id of closure([begin], info)) if (!apart.has(id)) apart.set(id, name);
  }
  return (id) => {
    if (first.has(id) || pages.has(id)) return undefined;
    return apart.get(id) ?? (users.get(id) >= SHARED_BY ? 'shared' : undefined);
  };
}

/** Joins the many small files of the built pages in `dir` into few, and packs each for the wire. */
export async function joinChunks(dir) {
  const old = readdirSync(dir).filter((f) => f.endsWith('.js') && !f.startsWith('worker-'));
  const main = old.find((f) => f.startsWith('main-'));
  const bundle = await rollup({ input: { main: join(dir, main) }, treeshake: false });
  let group;
  const { output } = await bundle.generate({
    format: 'es',
    compact: true,
    hashCharacters: 'base36',
    entryFileNames: '[name]-[hash].js',
    chunkFileNames: (c) => `${c.name.replace(/-[A-Z0-9]{8}$/, '')}-[hash].js`,
    onlyExplicitManualChunks: true,
    manualChunks: (id, { getModuleInfo }) =>
      (group ??= grouping(getModuleInfo, join(dir, main)))(id),
  });
  await bundle.close();
  for (const f of old) rmSync(join(dir, f));
  for (const chunk of output) writeFileSync(join(dir, chunk.fileName), chunk.code);
  const page = join(dir, 'index.html');
  const entry = output.find((c) => c.isEntry);
  const ahead = entry.imports.map((f) => `<link rel="modulepreload" href="${f}">`).join('');
  const html = readFileSync(page, 'utf8')
    .replace(/<link rel="modulepreload" href="[^"]+">/g, '')
    .replace('</head>', `${ahead}</head>`)
    .replace(`src="${main}"`, `src="${entry.fileName}"`);
  if (!html.includes(entry.fileName)) throw new Error(`${page} does not name ${main}`);
  writeFileSync(page, html);
  pack(dir);
}

/** Packed copies beside the files, made once here instead of at every request. */
function pack(dir) {
  for (const f of readdirSync(dir)) {
    if (!PACKED.test(f)) continue;
    const bytes = readFileSync(join(dir, f));
    writeFileSync(
      join(dir, `${f}.br`),
      brotliCompressSync(bytes, { params: { [constants.BROTLI_PARAM_SIZE_HINT]: bytes.length } }),
    );
    writeFileSync(join(dir, `${f}.gz`), gzipSync(bytes, { level: 9 }));
  }
}
