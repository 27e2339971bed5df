import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { describe, expect, it } from 'vitest';
import { ROOT } from '../lib/paths.mjs';

/** Characters the shipped face does not draw; words, an icon or an SVG stand for them. */
const NOT_DRAWN = /[→←≥≤≈µκΔ✓✗]/;

function sources(dir: string): string[] {
  return readdirSync(join(ROOT, dir), { withFileTypes: true, recursive: true })
    .filter((e) => e.isFile() && /\.(ts|html)$/.test(e.name))
    .map((e) => join(e.parentPath, e.name));
}

describe('what the face can draw', () => {
  it('no text of pages or core uses other characters', () => {
    const files = [...sources('web/src'), ...sources('core/src')];
    expect(files.length).toBeGreaterThan(60);
    const bad = files.flatMap((f) => {
      const lines = readFileSync(f, 'utf8').split('\n');
      return lines.flatMap((l, i) => (NOT_DRAWN.test(l) ? [`${f}:${i + 1}`] : []));
    });
    expect(bad).toEqual([]);
  });
});
