import { readFileSync } from 'node:fs';
import { join } from 'node:path';
import ts from 'typescript';
import { describe, expect, it } from 'vitest';
import { RULES } from '../src/base';
import * as displayRates from '../src/chain/display/rates';
import * as displayTiming from '../src/chain/display/timing';
import * as standards from '../src/chain/link/standards';
import * as efficiency from '../src/chain/power/efficiency';
import * as powerPeaks from '../src/chain/power/peaks';
import * as powerPlugs from '../src/chain/power/plugs';
import * as cell from '../src/runs/frame-model/cell';
import * as frameTime from '../src/runs/frame-model/frame-time';
import * as rig from '../src/runs/rig';

/** Files whose exported numbers are facts of standards or of the trade. */
const FILES: Readonly<Record<string, object>> = {
  'chain/display/rates': displayRates,
  'chain/display/timing': displayTiming,
  'chain/link/standards': standards,
  'chain/power/efficiency': efficiency,
  'chain/power/peaks': powerPeaks,
  'chain/power/plugs': powerPlugs,
  'runs/frame-model/cell': cell,
  'runs/frame-model/frame-time': frameTime,
  'runs/rig': rig,
};

/** Every number below a value, each as its path and itself. */
function numbersIn(value: unknown, path: string): [string, number][] {
  if (typeof value === 'number') return [[path, value]];
  if (value === null || typeof value !== 'object' || value instanceof Set) return [];
  return Object.entries(value).flatMap(([key, v]) => numbersIn(v, `${path}.${key}`));
}

/** The comment before an exported constant, and the one that opens its file's table. */
function commentOf(file: string, name: string): string {
  const path = join(import.meta.dirname, `../src/${file}.ts`);
  const source = ts.createSourceFile(
    path,
    readFileSync(path, 'utf8'),
    ts.ScriptTarget.ES2022,
    true,
  );
  let last = '';
  for (const statement of source.statements) {
    const ranges = ts.getLeadingCommentRanges(source.text, statement.getFullStart()) ?? [];
    // A constant without a comment of its own stands under the one before it.
    last = ranges.map((r) => source.text.slice(r.pos, r.end)).join('\n') || last;
    if (!ts.isVariableStatement(statement)) continue;
    if (statement.declarationList.declarations.some((d) => d.name.getText() === name)) return last;
  }
  return '';
}

const tables = Object.entries(FILES).flatMap(([file, exports]) =>
  Object.entries(exports)
    .map(([name, value]) => ({ file, name, numbers: numbersIn(value, name) }))
    .filter((t) => t.numbers.length > 0),
);

describe('constants', () => {
  // A changed number is a visible line of a review: `npx vitest run --project core constants -u` writes the file anew.
  it('are those of the file', async () => {
    const lines = [
      ...tables.flatMap((t) => t.numbers.map(([path, n]) => `${t.file} ${path} = ${n}`)),
      ...Object.entries(RULES).map(([id, r]) => `rule ${id} = ${r.default} ${r.unit}; ${r.source}`),
    ];
    expect(lines.length).toBeGreaterThan(150);
    await expect(`${lines.join('\n')}\n`).toMatchFileSnapshot('./constants.txt');
  });

  it.each(tables.map((t) => [t.file, t.name] as const))('%s: %s says its source', (file, name) => {
    expect(commentOf(file, name)).toMatch(
      /source|from memory|common practice|estimate|arithmetic|definition|by definition/i,
    );
  });

  it.each(Object.entries(RULES))('rule %s says its source', (_id, rule) => {
    expect(rule.source).toMatch(/from memory|practice|house|Specification|Standard/i);
  });
});
