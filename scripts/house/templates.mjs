import ts from 'typescript';
import { filesBelow, SOURCES, syntaxOf, textOf, visit } from './files.mjs';

/** Inline templates of a component file. */
function inlineTemplates(file) {
  const found = [];
  visit(file, (node) => {
    if (
      ts.isPropertyAssignment(node) &&
      node.name.getText(syntaxOf(file)) === 'template' &&
      ts.isStringLiteralLike(node.initializer)
    )
      found.push(node.initializer.text);
  });
  return found;
}

/** Every template of the pages, with the file it stands in. */
export function templates() {
  const files = filesBelow('web/src/app').filter((f) => f.endsWith('.html'));
  return [
    ...files.map((file) => ({ file, text: textOf(file) })),
    ...SOURCES.web.flatMap((file) => inlineTemplates(file).map((text) => ({ file, text }))),
  ];
}

/** Words that the interface replaced by those of the trade; `scripts/house/labels.txt` has one a line. */
export function oldLabels() {
  const labels = textOf('scripts/house/labels.txt')
    .split('\n')
    .filter((line) => line !== '' && !line.startsWith('#'));
  return templates().flatMap(({ file, text }) => {
    const shown = text.replace(/<[^>]*>|\{\{[^}]*\}\}/g, ' ').replace(/\s+/g, ' ');
    return labels
      .filter((label) => new RegExp(`(^|[^\\w])${label}($|[^\\w])`).test(shown))
      .map((label) => `${file}: ${label}`);
  });
}
