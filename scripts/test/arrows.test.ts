import { join } from 'node:path';
import { ESLint } from 'eslint';
import { describe, expect, it } from 'vitest';
import { SUBJECTS, laterThan } from '../house/subjects.mjs';
import { ROOT } from '../lib/paths.mjs';

/** The files linted here do not exist, so rules that need types are off. */
const eslint = new ESLint({
  cwd: ROOT,
  overrideConfig: {
    files: ['server/src/**/*.ts'],
    languageOptions: { parserOptions: { projectService: false } },
    rules: { '@typescript-eslint/no-floating-promises': 'off' },
  },
});

async function refused(file: string, code: string): Promise<string[]> {
  const [result] = await eslint.lintText(code, { filePath: join(ROOT, file) });
  return (result?.messages ?? []).map((m) => m.ruleId ?? m.message);
}

const importing = (from: string) => `import * as x from '${from}';\nexport const y = x;\n`;

describe('the one-way rule holds: a forbidden import is an error', () => {
  it.each([
    ['core/src/chain/link/hops.ts', 'node:fs'],
    ['core/src/chain/link/hops.ts', '@angular/core'],
    ['core/src/plan/evaluate.ts', '../chain/link/hops'],
    ['core/src/plan/checks/bottleneck.ts', '../../chain/link/hops'],
    ['core/src/plan/evaluate.ts', '../../../server/src/app'],
    ['core/src/plan/evaluate.ts', './text/finding'],
    ['simbench/src/simulate.ts', '../../server/src/app'],
    ['simbench/src/simulate.ts', '../../core/src/chain/link/hops'],
    ['core/src/plan/evaluate.ts', '@ruddy/simbench'],
    ['web/src/app/app.ts', '@ruddy/simbench'],
    ['web/src/app/app.ts', '../../../probe/probe.mjs'],
    ['server/src/app.ts', '../../web/src/app/app'],
    ['server/src/app.ts', '../../core/src/chain/link/hops'],
    ['server/src/app.ts', '@ruddy/core/chain/link'],
    ['web/src/app/app.ts', '@ruddy/server/app'],
    ['web/src/app/app.ts', 'node:fs'],
    ...SUBJECTS.slice(0, -1).map((subject) => [
      `core/src/${subject}/x.ts`,
      `../${laterThan(subject).split('|')[0]}`,
    ]),
    ...SUBJECTS.slice(1, -1).map((subject) => [
      `server/src/${subject}/x.ts`,
      `../${laterThan(subject).split('|')[0]}/y`,
    ]),
    ...SUBJECTS.slice(1, -1).map((subject) => [
      `web/src/app/${subject}/x.ts`,
      `../${laterThan(subject).split('|')[0]}/y`,
    ]),
    ['server/src/platform/http/x.ts', '../../parts/parts'],
    ['web/src/app/platform/api/x.ts', '../../parts/parts'],
  ])('%s may not import %s', async (file, from) => {
    expect(await refused(file, importing(from))).toContain('no-restricted-imports');
  });

  it.each([
    ['core/src/plan/evaluate.ts', '../chain'],
    ['core/src/plan/checks/bottleneck.ts', '../../chain'],
    ['core/src/plan/text/finding.ts', '../../chain/text'],
    ['core/src/chain/link/hops.ts', './shapes'],
    ['server/src/app.ts', '@ruddy/core/plan'],
    ['server/src/app.ts', '@ruddy/core/plan/contract'],
    ['web/src/app/app.ts', '@ruddy/core/plan'],
    ['web/src/app/app.ts', '@ruddy/core/plan/text'],
    ['web/src/app/plan/plan-page.ts', '../buy/scout'],
    ['server/src/plan/evaluate-handlers.ts', '../buy/prices'],
  ])('%s may import %s', async (file, from) => {
    expect(await refused(file, importing(from))).not.toContain('no-restricted-imports');
  });

  it('only platform/db opens a transaction', async () => {
    const code = 'declare const db: { transaction(): void };\nexport const x = db.transaction();\n';
    expect(await refused('server/src/parts/x.ts', code)).toContain('no-restricted-syntax');
    expect(await refused('server/src/platform/db/x.ts', code)).not.toContain(
      'no-restricted-syntax',
    );
  });

  it.each([
    "declare function select(sql: string): void;\nexport const x = select('SELECT 1');\n",
    "declare function execute(sql: string): void;\nexport const x = execute('DELETE FROM a');\n",
    "declare const db: { query(sql: string): void };\nexport const x = db.query('SELECT 1');\n",
  ])('only queries/ and platform/db hold statements: %j', async (code) => {
    expect(await refused('server/src/parts/x.ts', code)).toContain('no-restricted-syntax');
    for (const place of ['server/src/parts/queries/x.ts', 'server/src/platform/db/x.ts'])
      expect(await refused(place, code)).not.toContain('no-restricted-syntax');
  });

  it('text never goes into a page as markup', async () => {
    expect(
      await refused(
        'web/src/app/app.ts',
        'declare const e: { innerHTML: string };\nexport const x = e.innerHTML;\n',
      ),
    ).toContain('no-restricted-properties');
  });
});
