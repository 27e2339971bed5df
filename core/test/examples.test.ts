import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import vm from 'node:vm';
import { describe, expect, it } from 'vitest';

const ROOT = new URL('../src/', import.meta.url).pathname;

interface Example {
  readonly call: string;
  readonly value: string;
}

/** Docstrings of the form `@example call // => value`, by file. */
function examplesIn(file: string): Example[] {
  const text = readFileSync(join(ROOT, file), 'utf8');
  return [...text.matchAll(/^ \* @example (.+?) \/\/ => (.+)$/gm)].map(([, call, value]) => ({
    call: call ?? '',
    value: value ?? '',
  }));
}

const files = readdirSync(ROOT, { recursive: true })
  .map(String)
  .filter((f) => f.endsWith('.ts') && examplesIn(f).length > 0)
  .sort();

/** Numbers of an example are printed to some digits: they agree within a thousandth, or the last digit printed. */
function agrees(found: unknown, said: unknown): boolean {
  if (typeof found === 'number' && typeof said === 'number')
    return Object.is(found, said) || Math.abs(found - said) <= 1e-3 * Math.max(0.1, Math.abs(said));
  if (typeof found !== 'object' || typeof said !== 'object' || found === null || said === null)
    return found === said;
  const keys = Object.keys(said);
  return (
    keys.length === Object.keys(found).length &&
    keys.every((k) =>
      agrees((found as Record<string, unknown>)[k], (said as Record<string, unknown>)[k]),
    )
  );
}

describe('examples of docstrings', () => {
  it.each(files)('%s holds what it says', async (file) => {
    const module = (await import(join(ROOT, file))) as Record<string, unknown>;
    const context = vm.createContext({ ...module });
    for (const { call, value } of examplesIn(file)) {
      const found: unknown = vm.runInContext(call, context);
      const said: unknown = vm.runInContext(`(${value})`, context);
      expect(agrees(found, said), `${call} is ${JSON.stringify(found)}, not ${value}`).toBe(true);
    }
  });

  it('a wrong value is told', () => {
    expect(agrees({ lo: 1, hi: 2 }, { lo: 1, hi: 2.1 })).toBe(false);
    expect(agrees([1, 2], [1])).toBe(false);
    expect(agrees('a', 'b')).toBe(false);
  });
});
