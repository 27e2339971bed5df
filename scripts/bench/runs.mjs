/* global document, requestAnimationFrame, WheelEvent */
import { createHash, randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { gzipSync } from 'node:zlib';
import { build as bundle } from 'esbuild';
import { ROOT } from '../lib/paths.mjs';
import { alternately } from './import.mjs';
import { openPage } from './page.mjs';

const FRAMES = 1_000_000;
const median = (xs) => xs.sort((x, y) => x - y)[xs.length >> 1];
/** Frame times of a million frames, made by arithmetic: around 12 ms, with a spike now and then. */
const frameMs = (i) => (i % 4999 === 0 ? 70 : 10 + ((i * 7919) % 4001) / 1000);

/** Reading a capture of a million frames and computing all its figures, beside the CSV library alone with the same options. */
export async function captureSpeed(rounds = 9) {
  const { outputFiles } = await bundle({
    stdin: {
      contents: `export * from '${ROOT}/core/src/runs'; export { default as Papa } from 'papaparse';`,
      resolveDir: join(ROOT, 'core'),
    },
    bundle: true,
    platform: 'node',
    format: 'esm',
    write: false,
  });
  const dir = mkdtempSync(join(tmpdir(), 'bench-'));
  const file = join(dir, 'captures.mjs');
  writeFileSync(file, outputFiles[0].text);
  const { findLayout, proposeMapping, readCaptureText, csvOptions, frameStats, Papa } =
    await import(file);
  rmSync(dir, { recursive: true });
  // Made piece by piece: a million strings kept alive would slow the collector of both.
  let text = 'application,number,frame ms\n';
  for (let i = 0; i < FRAMES; i++) text += `dome,${i},${frameMs(i).toFixed(3)}\n`;
  const parts = Array.from({ length: Math.ceil(text.length / 65_536) }, (_, i) =>
    text.slice(i * 65_536, (i + 1) * 65_536),
  );
  const layout = findLayout(text.slice(0, 65_536)).value;
  const mapping = proposeMapping(layout);
  const values = new Float64Array(FRAMES);
  const ours = async () => {
    const read = await readCaptureText(parts, mapping, layout);
    const stats = frameStats(read.value.streams[0].frames);
    if (stats.frames !== FRAMES) throw new Error('frames were lost');
  };
  const reference = () => {
    let n = 0;
    let rest = '';
    for (const part of parts) {
      const all = rest + part;
      const cut = all.lastIndexOf('\n') + 1;
      rest = all.slice(cut);
      const { data } = Papa.parse(all.slice(0, cut - 1), csvOptions(mapping));
      for (const cells of data) values[n++] = Number(cells[2]);
    }
    if (n !== FRAMES + 1) throw new Error('rows were lost');
  };
  return alternately(ours, reference, rounds);
}

/** Main-thread time of one redraw of a trace of a million frames, in ms: the median over zooms in and out. */
export async function redrawMs(redraws = 40) {
  const { page, url, close } = await openPage();
  try {
    const bytes = Buffer.alloc(FRAMES * 4);
    for (let i = 0; i < FRAMES; i++) bytes.writeFloatLE(frameMs(i), i * 4);
    const sha256 = createHash('sha256').update(bytes).digest('hex');
    const send = async (method, path, body) => {
      const json = !Buffer.isBuffer(body);
      const headers = { 'content-type': json ? 'application/json' : 'application/octet-stream' };
      const r = await fetch(`${url}/api${path}`, {
        method,
        headers,
        body: json ? JSON.stringify(body) : body,
      });
      if (!r.ok) throw new Error(await r.text());
      return r.json();
    };
    await send('PUT', `/captures/${sha256}?n=${FRAMES}`, gzipSync(bytes));
    const title = await send('POST', '/profiles', {
      id: randomUUID(),
      name: 'Million',
      kind: 'title',
    });
    const setup = await send('POST', '/setups', { id: randomUUID(), name: 'Bench of runs' });
    const channels = [{ channel: 'frames', n: FRAMES, sha256 }];
    await send('POST', `/setups/${setup.id}/runs`, {
      id: randomUUID(),
      titleId: title.id,
      kind: 'frames',
      channels,
    });
    await page.goto(`${url}/setups/${setup.id}/runs`, { waitUntil: 'load' });
    await page.waitForFunction(
      () => document.querySelector('rb-trace-view')?.textContent?.includes('all 1'),
      {
        timeout: 60_000,
      },
    );
    const spent = [];
    for (let i = 0; i < redraws; i++) {
      const before = (await page.metrics()).TaskDuration;
      await page.evaluate(
        async (deltaY) => {
          const canvas = document.querySelector('rb-trace-view canvas');
          const { left, top } = canvas.getBoundingClientRect();
          canvas.dispatchEvent(
            new WheelEvent('wheel', {
              deltaY,
              clientX: left + 300,
              clientY: top + 50,
              cancelable: true,
              ctrlKey: true,
            }),
          );
          await new Promise((resolve) =>
            requestAnimationFrame(() => requestAnimationFrame(resolve)),
          );
        },
        i % 10 < 5 ? -100 : 100,
      );
      spent.push(((await page.metrics()).TaskDuration - before) * 1000);
    }
    return median(spent);
  } finally {
    await close();
  }
}
