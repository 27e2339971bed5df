import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { dirname, join } from 'node:path';
import type { ElementHandle } from 'puppeteer-core';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { world } from './harness';
import { keptFiles } from './kept-files';

const w = world();
let kept: (n: number) => Promise<string>;
const dir = mkdtempSync(join(tmpdir(), 'session-'));
afterAll(() => rmSync(dir, { recursive: true }));

const TITLES = { 'Marsh Lanterns': 9, 'Peat Rally': 7.5, 'Tidegate Keeper': 12, 'Otter Lake': 10 };
const SIZES = { '1920x1080': 1, '2560x1440': 1.5, '3840x2160': 2.8 };
/** Folders with the names of setups, and how much slower the first is. */
const LINKS = { 'Solar trial': 1.18, 'Stacking PC': 1 };

interface Written {
  readonly title: string;
  readonly size: string;
  readonly link: string;
  readonly ms: readonly number[];
}
const written: Written[] = [];

/** Frame times with a scatter of their own in each file, by a plain generator. */
function timesOf(mean: number, seed: number): number[] {
  let a = seed * 2654435761;
  return Array.from({ length: 300 }, () => {
    a = (Math.imul(a, 1664525) + 1013904223) >>> 0;
    return Number((mean * (1 + (a / 2 ** 32 - 0.5) / 5)).toFixed(3));
  });
}

beforeAll(() => {
  for (const [title, ms] of Object.entries(TITLES))
    for (const [size, k] of Object.entries(SIZES))
      for (const [link, slower] of Object.entries(LINKS))
        for (const repeat of [1, 2, 3]) {
          const times = timesOf(ms * k * slower * (1 + repeat / 500), written.length + 1);
          written.push({ title, size, link, ms: times });
          const name = title.toLowerCase().replace(' ', '_');
          const path = join(dir, link, `${name}_${size}_high_${repeat}.csv`);
          mkdirSync(dirname(path), { recursive: true });
          const rows = times.map((t, i) => `${t};${(70 + (i % 9)).toFixed(1)}`);
          writeFileSync(path, `Frame time (ms);GPU load %\n${rows.join('\n')}\n`);
        }
});

const mean = (list: readonly number[]) => list.reduce((a, b) => a + b, 0) / list.length;
/** Mean of the logarithms of the rates of the files of a cell, by plain arithmetic. */
const logRate = (title: string, size: string, link: string) =>
  mean(
    written
      .filter((f) => f.title === title && f.size === size && f.link === link)
      .map((f) => Math.log(1000 / mean(f.ms.map(Math.fround)))),
  );

describe('RU-01, RU-07 a session as it is brought', () => {
  it('a folder of 72 captures becomes a published table', async () => {
    const all = await w.api<{ items: { id: string; name: string }[] }>('/setups?limit=100');
    const setup = all.items.find((s) => s.name === 'Solar trial')?.id ?? '';
    await w.open(`/setups/${setup}/runs?add=files`);
    let clicks = 0;
    const click = async (name: string | RegExp, role?: string) => {
      clicks++;
      await w.click(name, role);
    };
    const box = (await w.page.waitForSelector(
      'input[aria-label="Files of captures, a folder"]',
    )) as ElementHandle<HTMLInputElement> | null;
    await box?.uploadFile(dir);
    await w.sees('Session: 72 files');
    await click('The columns are right: read it');
    await w.page.waitForFunction(() => document.body.innerText.includes('Save 72 runs'), {
      polling: 100,
      timeout: 60_000,
    });
    // Rows further down are drawn when they come into view.
    await w.sees(/otter lake\s+1920x1080\s+High\s+Solar trial/);
    // The only title that is not known here is written as it should be, for all its files at once.
    await click(/^Select all with Title otter lake/);
    await w.fill('Title', 'Otter Lake');
    await click('Save 72 runs');
    await w.page.waitForFunction(() => document.body.innerText.includes('72 runs saved.'), {
      polling: 100,
      timeout: 60_000,
    });
    await click('Compare them', 'link');
    await w.sees(/average by title × resolution × /);
    kept = await keptFiles(w);
    await click('CSV');
    expect(clicks).toBeLessThanOrEqual(30);
    const lines = (await kept(0)).trim().split('\r\n');
    const [head = '', ...rows] = lines;
    const percent = head.split(',').indexOf('% against the base');
    let checked = 0;
    for (const [title, size] of Object.keys(TITLES).flatMap((t) =>
      Object.keys(SIZES).map((s) => [t, s] as const),
    )) {
      const cells = rows.map((r) => r.split(',')).filter((r) => r[0] === title && r[1] === size);
      const told = cells.map((r) => r[percent]).filter((v) => v !== '');
      expect(told).toHaveLength(1);
      const base = cells.find((r) => r[percent] === '')?.[2] ?? '';
      const slowIsBase = base.includes('C-50');
      const ratio = Math.exp(
        logRate(title, size, 'Stacking PC') - logRate(title, size, 'Solar trial'),
      );
      const of = slowIsBase ? ratio : 1 / ratio;
      // Within 0.1 % of the ratio that plain arithmetic gives.
      expect(Math.abs(1 + Number(told[0]) / 100 - of) / of).toBeLessThan(0.001);
      checked++;
    }
    expect(checked).toBe(12);
    const runs = (await w.api<{ items: RunEntry[] }>('/runs?limit=500')).items;
    const mine = runs.filter((r) => r.source?.name.includes('_high_'));
    expect(mine).toHaveLength(72);
    expect(new Set(mine.map((r) => r.setupName)).size).toBe(2);
  });

  it('leaves as Markdown, a page without script, and a drawing', async () => {
    for (const name of ['Markdown', 'Web page', 'SVG']) await w.click(name);
    const markdown = await kept(1);
    const page = await kept(2);
    const svg = await kept(3);
    expect(markdown).toMatch(/^# Runs against [\s\S]*\| Otter Lake +\| 3840x2160 +\|/);
    expect(markdown).toContain('Over titles');
    expect(page).toMatch(/^<!doctype html>/);
    expect(page).not.toMatch(/<script/);
    expect(page).toContain('<svg');
    expect(page).toContain('Otter Lake');
    expect(svg).toMatch(/^<svg/);
    // A palette of the page means nothing in a file.
    expect(svg).not.toContain('var(');
  });

  it('a PNG is drawn in the page', async () => {
    await w.click('PNG');
    expect((await kept(4)).slice(1, 4)).toBe('PNG');
  });

  it('a half-done session is there after the page was closed', async () => {
    const all = await w.api<{ items: { id: string; name: string }[] }>('/setups?limit=100');
    const setup = all.items.find((s) => s.name === 'Dome desk')?.id ?? '';
    await w.open(`/setups/${setup}/runs?add=files`);
    const box = (await w.page.waitForSelector(
      'input[aria-label="Files of captures"]',
    )) as ElementHandle<HTMLInputElement> | null;
    await box?.uploadFile(join(dir, 'Stacking PC', 'otter_lake_1920x1080_high_1.csv'));
    await w.sees('1 run to save');
    await w.fill('Preset', 'Ultra');
    await w.page.keyboard.press('Tab');
    // What is kept is kept half a second after the last change.
    await new Promise((done) => setTimeout(done, 1500));
    await w.open(`/setups/${setup}/runs?add=files`);
    await w.sees('1 file of a session from');
    await w.click('Go on with them');
    await w.sees('1 run to save');
    await w.sees(/Otter Lake\s+1920x1080\s+Ultra/);
    await w.click('Actions for otter_lake_1920x1080_high_1.csv');
    await w.click('Leave out', 'menuitem');
  });
});
