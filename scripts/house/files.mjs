import { readdirSync, readFileSync } from 'node:fs';
import { join, relative } from 'node:path';
import ts from 'typescript';
import { ROOT } from '../lib/paths.mjs';

const SKIP = new Set(['node_modules', 'dist', '.angular']);

/** All files below a folder of the project, as paths from its root. */
export function filesBelow(folder) {
  const walk = (at) =>
    readdirSync(at, { withFileTypes: true })
      .filter((e) => !SKIP.has(e.name))
      .flatMap((e) => (e.isDirectory() ? walk(join(at, e.name)) : [join(at, e.name)]));
  return walk(join(ROOT, folder)).map((f) => relative(ROOT, f));
}

const texts = new Map();

export function textOf(file) {
  if (!texts.has(file)) texts.set(file, readFileSync(join(ROOT, file), 'utf8'));
  return texts.get(file);
}

const trees = new Map();

/** The syntax tree of a TypeScript file; no types are resolved. */
export function syntaxOf(file) {
  if (!trees.has(file))
    trees.set(file, ts.createSourceFile(file, textOf(file), ts.ScriptTarget.ES2022, true));
  return trees.get(file);
}

const isTest = (f) => /\.(spec|test|e2e)\.ts$/.test(f);
const typeScript = (folder) =>
  filesBelow(folder).filter((f) => f.endsWith('.ts') && !f.endsWith('.d.ts'));

export const SOURCES = {
  core: typeScript('core/src').filter((f) => !isTest(f)),
  server: typeScript('server/src').filter((f) => !isTest(f)),
  simbench: typeScript('simbench/src').filter((f) => !isTest(f)),
  web: typeScript('web/src').filter((f) => !isTest(f)),
};
export const ALL_SOURCES = Object.values(SOURCES).flat();
export const TESTS = ['core', 'server', 'simbench', 'web/src', 'e2e', 'scripts']
  .flatMap(typeScript)
  .filter(isTest);

/** How often an expression occurs in files, over their whole text. */
export function occurrences(files, expression) {
  return files.reduce((n, f) => n + (textOf(f).match(expression)?.length ?? 0), 0);
}

/** Visit every node of a file. */
export function visit(file, each) {
  const source = syntaxOf(file);
  const walk = (node) => {
    each(node, source);
    ts.forEachChild(node, walk);
  };
  walk(source);
}
