import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll } from 'vitest';
import type { World } from './harness';

/** A way to hand a text to a file box of the page as a file; the files go when the tests of the file end. */
export function giver(w: World): (box: string, name: string, text: string) => Promise<void> {
  const dir = mkdtempSync(join(tmpdir(), 'files-'));
  afterAll(() => rmSync(dir, { recursive: true }));
  return async (box, name, text) => {
    const path = join(dir, name);
    writeFileSync(path, text);
    const input = (await w.page.waitForSelector(box)) as ElementHandle<HTMLInputElement> | null;
    await input?.uploadFile(path);
  };
}
