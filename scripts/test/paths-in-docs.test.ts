import { existsSync, readdirSync, readFileSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from '../lib/paths.mjs';

const below = (folder: string) =>
  readdirSync(join(ROOT, folder), { recursive: true, encoding: 'utf8' })
    .filter((f) => f.endsWith('.md'))
    .map((f) => join(folder, f));
const DOCUMENTS = ['README.md', 'CONTRIBUTING.md', ...below('docs')];
/** A path of the source in backquotes; names with a star or a placeholder are patterns. */
const PATH = /`((?:core|server|web|simbench|e2e|scripts|probe|demo)\/[A-Za-z0-9_./-]+)`/g;

describe('documents', () => {
  it.each(DOCUMENTS)('%s names files and folders that exist', (file) => {
    const text = readFileSync(join(ROOT, file), 'utf8');
    const named = [...text.matchAll(PATH)].map((m) => m[1] ?? '');
    expect(named.filter((path) => !existsSync(join(ROOT, path)))).toEqual([]);
  });

  it.each(DOCUMENTS)('%s links to files that exist', (file) => {
    const text = readFileSync(join(ROOT, file), 'utf8');
    const links = [...text.matchAll(/\]\(([^)#:]+)(?:#[^)]*)?\)/g)].map((m) => m[1] ?? '');
    expect(links.filter((link) => !existsSync(join(ROOT, dirname(file), link)))).toEqual([]);
  });
});
