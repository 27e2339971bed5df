import { dirname, join, normalize } from 'node:path';
import ts from 'typescript';
import { SOURCES, syntaxOf } from './files.mjs';

/** The subjects, in order: each may import those before it. */
export const SUBJECTS = [
  'base',
  'parts',
  'chain',
  'setups',
  'runs',
  'plan',
  'bring-up',
  'troubleshoot',
  'bench',
  'compatibility',
  'buy',
  'workshop',
];

/** HTTP handlers and pages join subjects, so they are free of the order. */
const JOINS = /-handlers\.ts$|\/handlers\.ts$|-page\.ts$/;
const ROOTS = ['core/src/', 'server/src/', 'web/src/app/'];

function subjectOf(path) {
  const root = ROOTS.find((r) => path.startsWith(r));
  return root ? path.slice(root.length).split('/')[0] : null;
}

function specifiers(file) {
  return syntaxOf(file).statements.flatMap((s) =>
    (ts.isImportDeclaration(s) || ts.isExportDeclaration(s)) && s.moduleSpecifier ? [s.moduleSpecifier.text] : [],
  );
}

/** Where an import leads inside the project's own sources; null for packages. */
function target(file, specifier) {
  if (specifier.startsWith('.')) return normalize(join(dirname(file), specifier));
  const core = /^@ruddy\/core\/(.+)$/.exec(specifier);
  return core ? `core/src/${core[1]}` : null;
}

/** Imports that lead from a subject to one after it, as "file imports specifier". */
export function importsAgainstOrder() {
  const found = [];
  for (const file of [...SOURCES.core, ...SOURCES.server, ...SOURCES.web]) {
    const from = SUBJECTS.indexOf(subjectOf(file) ?? '');
    if (from < 0 || JOINS.test(file)) continue;
    for (const specifier of specifiers(file)) {
      const to = SUBJECTS.indexOf(subjectOf(target(file, specifier) ?? '') ?? '');
      if (to > from) found.push(`${file} imports ${specifier}`);
    }
  }
  return found;
}
