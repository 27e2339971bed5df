import { dirname, join, normalize } from 'node:path';
import ts from 'typescript';
import { SOURCES, syntaxOf } from './files.mjs';
import { JOINS, SUBJECTS } from './subjects.mjs';

const ROOTS = ['core/src/', 'server/src/', 'web/src/app/'];

function subjectOf(path) {
  const root = ROOTS.find((r) => path.startsWith(r));
  return root ? path.slice(root.length).split('/')[0] : null;
}

function specifiers(file) {
  return syntaxOf(file).statements.flatMap((s) =>
    (ts.isImportDeclaration(s) || ts.isExportDeclaration(s)) && s.moduleSpecifier
      ? [s.moduleSpecifier.text]
      : [],
  );
}

/** Where an import leads inside the same package; null for others. Server and pages may use every subject of the core. */
function target(file, specifier) {
  return specifier.startsWith('.') ? normalize(join(dirname(file), specifier)) : null;
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
