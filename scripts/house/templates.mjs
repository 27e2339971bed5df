import ts from 'typescript';
import { filesBelow, SOURCES, syntaxOf, textOf, visit } from './files.mjs';

/** Drawings and printed pages that Material has nothing for, and the kit, which wraps the controls. */
const EXEMPT =
  /platform\/kit\/|chain\/strip\/|plan\/fit-picture|compatibility\/grid-view|app\/sheet\//;

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

/** Opening tags with their attributes; a `>` inside quotes does not end one. */
const TAG = /<([a-z][\w-]*)((?:\s+[^\s"'>/=]+(?:="[^"]*")?|\s*\/?)*)\s*>/g;
const RAW = {
  input: (attrs) =>
    !/\b(matInput|matSliderThumb|hidden)\b|\[mat(Autocomplete|ChipInputFor)\]/.test(attrs),
  textarea: (attrs) => !/\bmatInput\b/.test(attrs),
  table: (attrs) => !/\bmat-table\b/.test(attrs),
  button: (attrs) => !/(^|\s)\[?(mat|cdk)/.test(attrs),
  select: () => true,
  dialog: () => true,
  details: () => true,
  progress: () => true,
  datalist: () => true,
  fieldset: () => true,
  meter: () => true,
};

/** Controls that stand in a template without Material: `file: element`. */
export function rawControls() {
  return templates()
    .filter(({ file }) => !EXEMPT.test(file))
    .flatMap(({ file, text }) =>
      [...text.matchAll(TAG)]
        .filter(([, name, attrs]) => RAW[name]?.(attrs) === true)
        .map(([, name]) => `${file}: ${name}`),
    );
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
