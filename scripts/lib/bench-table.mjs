import { readFileSync, writeFileSync } from 'node:fs';
import { availableParallelism, release, totalmem } from 'node:os';
import { execFileSync } from 'node:child_process';
import { join } from 'node:path';
import { ROOT } from './paths.mjs';
import { say } from './say.mjs';

const rows = [];
const texts = [];
const sections = new Map();
let over = 0;

/** One figure beside its reference: `name | ours | reference | ratio | limit | ok or over`. */
export function line(name, ours, reference, unit, limit) {
  const ratio = ours / reference;
  const good = ratio <= limit;
  if (!good) over += 1;
  const figure = (x) => `${x.toFixed(1)} ${unit}`.trim();
  rows.push([
    name,
    figure(ours),
    figure(reference),
    ratio.toFixed(2),
    String(limit),
    good ? 'ok' : 'over',
  ]);
  say(rows.at(-1).join(' | '));
}

/** A figure that must be at least so much: a score, a share. */
export function atLeast(name, ours, least) {
  const good = ours >= least;
  if (!good) over += 1;
  rows.push([name, String(ours), `at least ${least}`, '', '', good ? 'ok' : 'over']);
  say(rows.at(-1).join(' | '));
}

/** A figure without a reference, for whoever wonders. */
export function plain(name, ours, reference = '') {
  rows.push([name, ours, reference, '', '', '']);
  say(rows.at(-1).join(' | '));
}

/** A line that is no ratio: how often something is right. */
export function told(text) {
  texts.push(text);
  say(text);
}

/** Tables of a part, for a place of their own in docs/benchmarks.md. */
export function section(name, text) {
  sections.set(name, text);
  say(text);
}

const version = (program, ...args) => {
  try {
    return (
      execFileSync(program, args, { encoding: 'utf8' }).match(/\d+(\.\d+)*/)?.[0] ?? 'not known'
    );
  } catch {
    return 'not known';
  }
};

/** What the figures were taken on, without names that belong to somebody. */
function machine() {
  const gib = Math.round(totalmem() / 2 ** 30);
  return `${availableParallelism()} processor threads, ${gib} GiB of memory, ${process.platform} ${release().split('.').slice(0, 2).join('.')}, Node ${process.versions.node}, PostgreSQL ${version('psql', '--version')}, Chromium ${version('chromium', '--version').split('.')[0]}`;
}

const cell = (x) => x.replace(/\|/g, ',');

/** A name without the figures in it: the same line of another run. */
const same = (name) => name.replace(/\(.*?\)|[\d.,]+/g, '');

/** Lines of the table that this run did not measure again. */
function kept(old) {
  const mine = new Set(rows.map(([name]) => same(cell(name))));
  return old
    .split('\n')
    .filter((l) => l.startsWith('| ') && !/^\| (name|---)/.test(l))
    .map((l) =>
      l
        .slice(2, -2)
        .split(' | ')
        .map((c) => c.trim()),
    )
    .filter(([name]) => !mine.has(same(name)));
}

/** Puts the figures of this run into docs/benchmarks.md between its marks; after a run of some parts the other lines stay. */
export function write(seconds, whole) {
  const file = join(ROOT, 'docs/benchmarks.md');
  const old = readFileSync(file, 'utf8');
  const from = '<!-- bench -->';
  const to = '<!-- /bench -->';
  const i = old.indexOf(from);
  const j = old.indexOf(to);
  if (i < 0 || j < 0) throw new Error('docs/benchmarks.md has no place for these figures');
  const inside = old.slice(i + from.length, j);
  const day = new Date().toISOString().slice(0, 10);
  const head = ['name', 'ours', 'reference', 'ratio', 'limit', 'ok or over'];
  const all = [...(whole ? [] : kept(inside)), ...rows];
  const table = [head, head.map(() => '---'), ...all]
    .map((r) => `| ${r.map(cell).join(' | ')} |`)
    .join('\n');
  const list =
    texts.length > 0
      ? texts.map((t) => `- ${t.split(' | ').join('; ')}`).join('\n')
      : (inside.match(/^- .*$/gm) ?? []).join('\n');
  const how = whole
    ? `One run of ${Math.round(seconds)} s`
    : 'Runs of its parts one after another, the last';
  const body = `${how} on ${day}: ${machine()}.\n\n${table}\n\n${list}`;
  let text = `${old.slice(0, i + from.length)}\n\n${body}\n\n${old.slice(j)}`;
  for (const [name, own] of sections) text = withSection(text, name, `Taken on ${day}.\n\n${own}`);
  writeFileSync(file, text);
}

function withSection(text, name, own) {
  const from = `<!-- ${name} -->`;
  const at = text.indexOf(from);
  const to = text.indexOf(`<!-- /${name} -->`);
  if (at < 0 || to < 0) throw new Error(`docs/benchmarks.md has no place for ${name}`);
  return `${text.slice(0, at + from.length)}\n\n${own}\n\n${text.slice(to)}`;
}

export const countOver = () => over;
