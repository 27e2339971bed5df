import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT, WEB_DIR } from '../lib/paths.mjs';

const read = (file: string) => readFileSync(join(WEB_DIR, file), 'utf8');
const scripts = readdirSync(WEB_DIR).filter((f) => f.endsWith('.js'));
const packedKb = (files: Iterable<string>) =>
  [...files].reduce((sum, f) => sum + readFileSync(join(WEB_DIR, `${f}.br`)).length, 0) / 1000;

/** A script with everything it loads at once. */
function closure(...roots: string[]): Set<string> {
  const seen = new Set<string>();
  const open = [...roots];
  for (let f = open.pop(); f !== undefined; f = open.pop()) {
    if (seen.has(f)) continue;
    seen.add(f);
    for (const m of read(f).matchAll(/(?:from|import)\s*["']\.\/([\w.-]+\.js)["']/g))
      open.push(m[1]!);
  }
  return seen;
}
const named = (name: string) =>
  scripts.find((f) => new RegExp(`^${name}-[\\w-]{8}\\.js$`).test(f))!;

describe('what a page carries', () => {
  /** Limits of `docs/decisions/31-what-a-page-carries.md`, kB of packed script and requests. */
  it.each([
    ['setups', 400],
    ['plan', 650],
    ['runs', 700],
    ['scout', 700],
    ['compatibility', 700],
  ])('a first visit of %s at most %d kB of script', (page, limit) => {
    const files = closure(named('main'), named(`${page}-page`), named('search-box'));
    expect(files.size).toBeGreaterThan(3);
    expect(files.size).toBeLessThan(130);
    expect(packedKb(files)).toBeGreaterThan(50);
    expect(packedKb(files)).toBeLessThan(limit);
  });

  it('every page in its own file, none in the first', () => {
    const first = [...closure(named('main'))].map(read).join('\n');
    const pages = ['plan', 'bring-up', 'troubleshoot', 'record', 'scout', 'parts', 'loans'].map(
      (p) => named(`${p}-page`),
    );
    for (const page of pages) {
      expect(read(page).length).toBeGreaterThan(5000);
      expect(closure(named('main'))).not.toContain(page);
    }
    // The template of the kit's skip link, which the frame of every page has; by its words, so that a failure does not print the script.
    expect(first.includes('Skip to ')).toBe(true);
    expect(first.includes('ZodObject')).toBe(false);
  });

  it('and no schema library in a worker', () => {
    const workers = scripts.filter((f) => f.startsWith('worker-'));
    expect(workers).toHaveLength(3);
    // The mark every schema of the library has; the pages that check forms do have it.
    expect(workers.filter((f) => read(f).includes('_zod'))).toEqual([]);
    expect([...closure(named('record-page'))].some((f) => read(f).includes('_zod'))).toBe(true);
  });

  it('since the doors of the core only pass on whole files', () => {
    const core = join(ROOT, 'core/src');
    const doors = readdirSync(core, { recursive: true, encoding: 'utf8' }).filter((f) =>
      /^[^/]+\/((text|contract)\/)?index\.ts$/.test(f),
    );
    expect(doors.length).toBeGreaterThan(30);
    for (const door of doors) {
      const lines = readFileSync(join(core, door), 'utf8');
      expect([door, lines.match(/^export (?!\*|type )/gm)]).toEqual([door, null]);
    }
  });
});
