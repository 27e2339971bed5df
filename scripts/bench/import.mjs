/* global document, window, PerformanceObserver */
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { build as bundle } from 'esbuild';
import { ROOT } from '../lib/paths.mjs';
import { openPage } from './page.mjs';

const ROWS = 20_000;
const head = 'maker,model,variant,connector,construction,lengthMm,markedGbps,markedW';
const text = [
  head,
  ...Array.from(
    { length: ROWS },
    (_, i) => `Longmead,N-${i},,usb-c,passive,${300 + (i % 900)},40,100`,
  ),
].join('\n');

/** Median ms of two things that take long, over rounds that alternate between them. */
export async function alternately(ours, reference, rounds) {
  const time = async (f) => {
    const began = performance.now();
    await f();
    return performance.now() - began;
  };
  const a = [];
  const b = [];
  await time(ours);
  await time(reference);
  for (let i = 0; i < rounds; i++) {
    a.push(await time(ours));
    b.push(await time(reference));
  }
  const median = (xs) => xs.sort((x, y) => x - y)[xs.length >> 1];
  return { oursMs: median(a), referenceMs: median(b) };
}

/** Rows a second of reading and judging a file of parts, beside csv-parse alone with the same options. */
export async function importSpeed(rounds = 7) {
  const from = (name) => `'${ROOT}/server/src/parts/${name}'`;
  const { outputFiles } = await bundle({
    stdin: {
      contents: `export { readCsv } from ${from('import-read')}; export { csvOptions } from '${ROOT}/server/src/platform/files/csv'; export { judge } from ${from('import-judge')}; export { parse } from 'csv-parse';`,
      resolveDir: join(ROOT, 'server'),
    },
    bundle: true,
    platform: 'node',
    format: 'esm',
    banner: {
      js: "import { createRequire } from 'node:module'; const require = createRequire(process.cwd() + '/');",
    },
    write: false,
  });
  const dir = mkdtempSync(join(tmpdir(), 'bench-'));
  const file = join(dir, 'import.mjs');
  writeFileSync(file, outputFiles[0].text);
  const { readCsv, csvOptions, judge, parse } = await import(file);
  rmSync(dir, { recursive: true });
  const ours = async () => {
    const { entries } = await readCsv(
      () => [text],
      'cable',
      async () => {},
    );
    for (const e of entries)
      if (judge(e, null).fate.fate !== 'new') throw new Error('a good row was not new');
  };
  const reference = async () => {
    let n = 0;
    for await (const record of parse(text, { ...csvOptions(head), info: true }))
      n += record ? 1 : 0;
    if (n !== ROWS + 1) throw new Error('rows were lost');
  };
  return { rows: ROWS, ...(await alternately(ours, reference, rounds)) };
}

/** The longest task of the page's main thread, in ms, while a file of 20,000 parts is looked at and stored. */
export async function importPage() {
  const { page, url, close } = await openPage();
  const dir = mkdtempSync(join(tmpdir(), 'bench-'));
  try {
    await page.goto(`${url}/parts/import?kind=cable`, { waitUntil: 'networkidle0' });
    const file = join(dir, 'cables.csv');
    writeFileSync(file, text);
    await page.evaluate(() => {
      window.longest = 0;
      new PerformanceObserver((list) => {
        for (const e of list.getEntries()) window.longest = Math.max(window.longest, e.duration);
      }).observe({ entryTypes: ['longtask'] });
    });
    const says = (words) =>
      page.waitForFunction(
        (w) => document.querySelector('h1')?.textContent?.includes(w),
        { timeout: 120_000, polling: 200 },
        words,
      );
    const box = await page.$('input[aria-label="File of parts"]');
    await box.uploadFile(file);
    await says('rows are good');
    await page.evaluate(() =>
      [...document.querySelectorAll('button')]
        .find((b) => b.textContent.includes('Store all'))
        ?.click(),
    );
    await says('Stored from');
    return await page.evaluate(() => window.longest);
  } finally {
    rmSync(dir, { recursive: true });
    await close();
  }
}
