import { markdownTable } from 'markdown-table';
import type { PublishedTable } from '@ruddy/core/runs/text';

/** A result on its way out: its heading, the setups it was measured on, and its table. */
export interface Publication {
  readonly heading: string;
  readonly captions: readonly string[];
  readonly table: PublishedTable;
}

/** A result as Markdown. */
export function resultMarkdown({ heading, captions, table }: Publication): string {
  const list = (lines: readonly string[]) => lines.map((l) => `- ${l}`).join('\n');
  const body = markdownTable([[...table.head], ...table.rows.map((r) => [...r])]);
  return `# ${heading}\n\n${list(captions)}\n\n${body}\n\n${list(table.notes)}\n`;
}

/** What the page of a result looks like; it has no script and asks for nothing from elsewhere. */
const STYLE = `body{font:15px/1.5 sans-serif;color:#1d2330;background:#fdfcf9;max-width:1100px;margin:24px auto;padding:0 16px}
h1{font-size:20px}table{border-collapse:collapse;margin:16px 0}th,td{border-bottom:1px solid #c9c6bd;padding:4px 10px;text-align:left;vertical-align:top}
svg{max-width:100%;height:auto}li{margin:2px 0}.notes{font-size:13px}`;
const POLICY = "default-src 'none'; style-src 'unsafe-inline'";

/** A result as one page: texts are put in as texts, so that no name of a title can be more than a name. */
export function resultPage({ heading, captions, table }: Publication, chart: string): string {
  const doc = document.implementation.createHTMLDocument(heading);
  const add = (parent: Element, tag: string, text = '') => {
    const el = doc.createElement(tag);
    el.textContent = text;
    parent.append(el);
    return el;
  };
  doc.documentElement.lang = 'en';
  const charset = add(doc.head, 'meta');
  charset.setAttribute('charset', 'utf-8');
  const policy = add(doc.head, 'meta');
  policy.setAttribute('http-equiv', 'Content-Security-Policy');
  policy.setAttribute('content', POLICY);
  add(doc.head, 'style', STYLE);
  add(doc.body, 'h1', heading);
  const drawing = new DOMParser().parseFromString(chart, 'image/svg+xml').documentElement;
  drawing.setAttribute('role', 'img');
  drawing.setAttribute('aria-label', `${heading}, as a chart; the table below has its figures`);
  doc.body.append(doc.importNode(drawing, true));
  const setups = add(doc.body, 'ul');
  for (const c of captions) add(setups, 'li', c);
  const rows = add(doc.body, 'table');
  const head = add(add(rows, 'thead'), 'tr');
  for (const h of table.head) add(head, 'th', h).setAttribute('scope', 'col');
  const body = add(rows, 'tbody');
  for (const r of table.rows) {
    const line = add(body, 'tr');
    for (const [i, c] of r.entries()) add(line, i === 0 ? 'th' : 'td', c);
  }
  const notes = add(doc.body, 'ul');
  notes.className = 'notes';
  for (const n of table.notes) add(notes, 'li', n);
  return `<!doctype html>\n${new XMLSerializer().serializeToString(doc.documentElement)}\n`;
}
