/* global crypto, document, window */
import { mkdirSync } from 'node:fs';
import { join } from 'node:path';
import puppeteer from 'puppeteer-core';
import { chromium, CHROMIUM_FLAGS } from '../lib/chromium.mjs';
import { openCluster } from '../lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, ROOT, TEST_DATA_DIR, WEB_DIR } from '../lib/paths.mjs';
import { build, dependencies } from '../lib/prepare.mjs';
import { testPrograms } from '../lib/programs.mjs';
import { say } from '../lib/say.mjs';
import { startServer, stopServer } from '../lib/server.mjs';

/** A file of cables with two rows to fix and one to look at. */
const CABLES = join(ROOT, 'demo/cables-to-mend.csv');

/** The thorough answer of the frame model is there. */
const THOROUGH = 'rb-limits-panel .verdict[aria-busy="false"]';

/** One picture of each main view, made from the demo data on its day. `:name` is the id of a setup. */
const VIEWS = [
  { file: 'setups', path: '/setups' },
  { file: 'plan', path: '/setups/:Dome desk/plan' },
  { file: 'plan-dark', path: '/setups/:Classifier box/plan', dark: true },
  { file: 'plan-small', path: '/setups/:Dome desk/plan', width: 320, height: 640 },
  { file: 'compare', path: '/compare/plans?of=:Dome desk,:Sky survey rig' },
  { file: 'bring-up', path: '/setups/:Dome desk/bring-up' },
  { file: 'link-check', path: '/setups/:Sky survey rig/bring-up?view=link' },
  { file: 'record', path: '/setups/:Meridian bench/record' },
  {
    file: 'compatibility',
    path: '/compatibility/table?host=Harnsey%20L-13%202025&dock=Quillmere%20D-4&near=true',
  },
  { file: 'grid', path: '/compatibility/grid' },
  {
    file: 'scout',
    path: '/scout',
    open: 'Survey laptop: everything new',
    until: 'First: Quillmere',
  },
  { file: 'parts', path: '/parts/host', open: 'Harnsey L-13 2025' },
  {
    file: 'runs',
    path: '/setups/:Dome desk/runs?show=:outside',
    wait: THOROUGH,
  },
  {
    file: 'overhead',
    path: '/setups/:Dome desk/runs?show=:outside',
    wait: THOROUGH,
    unfold: 'rb-forecast-section, rb-overhead-section',
    scroll: 'rb-forecast-section',
  },
  { file: 'compare-runs', path: '/compare/runs?of=:runs&rows=title&columns=card' },
  { file: 'troubleshoot', path: '/setups/:Dome desk/troubleshoot' },
  { file: 'bench', path: '/bench/:bench', live: true },
  { file: 'practice', path: '/bench/practice/:practice' },
  { file: 'loans', path: '/workshop/loans' },
];

testPrograms();
await dependencies();
await build();
const wanted = process.argv.slice(2);
const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
cluster.psql('postgres', 'DROP DATABASE IF EXISTS shots WITH (FORCE)');
cluster.createDatabase('shots');
const env = {
  DATABASE_URL: cluster.url('shots'),
  PORT: '0',
  RUDDY_WEB_DIR: WEB_DIR,
  RUDDY_NOW: DEMO_NOW,
  RUDDY_DEMO_FILE: DEMO_FILE,
  RUDDY_LOG: 'error',
};
const { child, port } = await startServer(env);
const at = `http://127.0.0.1:${port}`;
const { items } = await (await fetch(`${at}/api/setups?retired=true`)).json();
/** A bench with a card up, so that its picture shows something. */
async function bench(setup) {
  const id = crypto.randomUUID();
  const post = async (path, body) => {
    const r = await fetch(`${at}/api/benches${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
    return r.json();
  };
  const act = (a) => post(`/${id}/acts`, { id: crypto.randomUUID(), act: a });
  const { chain } = await post('', {
    id,
    name: `${setup.name}, bench`,
    setupId: setup.id,
    seed: 4,
    speed: 0,
  });
  await act({ act: 'plug', socket: chain.socket });
  await act({ act: 'mains', on: true });
  await act({ act: 'dock', on: true });
  await act({ act: 'host', to: 'on' });
  await post(`/${id}/clock`, { stepMs: 30_000 });
  await act({ act: 'approve', how: 'always' });
  await post(`/${id}/clock`, { stepMs: 12_000 });
  await act({ act: 'load', on: true });
  return id;
}
const benchId = await bench(items.find((s) => s.name === 'Dome desk'));
/** A practice that is over: one step beside the way, one on it. */
async function practised(caseNo) {
  const id = crypto.randomUUID();
  const post = (path, body) =>
    fetch(`${at}/api/practices${path}`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: JSON.stringify(body),
    });
  await post('', { id, caseNo });
  for (const test of ['copy-rate', 'count-errors', 'other-card'])
    await post(`/${id}/tests`, { id: crypto.randomUUID(), test });
  await post(`/${id}/named`, { cause: 'card-defective' });
  return id;
}
const practice = await practised(10);
/** Runs of two titles on every card, to be compared. */
const { items: runs } = await (await fetch(`${at}/api/runs?limit=500`)).json();
const compared = runs.filter(
  (r) =>
    ['Marsh Lanterns', 'Peat Rally', 'Tidegate Keeper'].includes(r.title) &&
    r.facts.resolution === '2560x1440' &&
    r.facts.screenPath === 'Screen on the card' &&
    !r.context.norm,
);
/** The same title on both ways the picture can take. */
const pair = ['Screen on the card', "Host's own panel"].map((path) =>
  runs.find(
    (r) =>
      r.setupName === 'Dome desk' &&
      r.stats &&
      r.facts.resolution === '2560x1440' &&
      r.title === 'Marsh Lanterns' &&
      r.facts.screenPath === path,
  ),
);
const named = {
  practice,
  outside: pair[0].id,
  bench: benchId,
  runs: compared.map((r) => r.id).join(),
};
const out = join(ROOT, 'docs/screenshots');
mkdirSync(out, { recursive: true });
const browser = await puppeteer.launch({ executablePath: chromium(), args: CHROMIUM_FLAGS });
for (const v of VIEWS) {
  if (wanted.length > 0 && !wanted.includes(v.file)) continue;
  const page = await browser.newPage();
  await page.setViewport({ width: v.width ?? 1280, height: v.height ?? 800 });
  await page.emulateMediaFeatures([
    { name: 'prefers-color-scheme', value: v.dark ? 'dark' : 'light' },
    { name: 'prefers-reduced-motion', value: 'reduce' },
  ]);
  const path = v.path.replace(
    /:([^/,?&]+)/g,
    (_, name) => named[name] ?? items.find((s) => s.name === name).id,
  );
  // A live page never falls silent: it is there when its strip is.
  await page.goto(at + path, { waitUntil: v.live ? 'load' : 'networkidle0' });
  if (v.live) await page.waitForSelector('rb-bridge-strip .ribbon.core');
  if (v.open) {
    const link = await page.waitForSelector(`:is(a, button)::-p-text(${v.open})`);
    await link.click();
    await page.waitForNetworkIdle();
  }
  if (v.until) await page.waitForSelector(`h1::-p-text(${v.until})`);
  if (v.click) {
    const button = await page.waitForSelector(`button::-p-text(${v.click})`);
    await button.click();
    await page.waitForSelector('.bar h2');
    await page.waitForNetworkIdle();
  }
  if (v.file === 'import') {
    const box = await page.waitForSelector('input[aria-label="File of parts"]');
    await box.uploadFile(CABLES);
    await page.waitForFunction(() => document.querySelector('h1')?.textContent?.includes('to fix'));
    await page.waitForNetworkIdle();
  }
  if (v.wait) await page.waitForSelector(v.wait);
  // What stands below the first screen is made when the page is idle.
  if (v.scroll) await page.waitForSelector(v.scroll);
  if (v.unfold)
    await page.$$eval(v.unfold, (els) => {
      for (const el of els)
        for (const line of el.querySelectorAll('mat-expansion-panel-header[aria-expanded=false]'))
          line.click();
    });
  if (v.scroll) {
    await page.$eval(v.scroll, (el) => el.scrollIntoView());
    // The strip that follows must not cover what the picture is about.
    await page.evaluate(() => window.scrollBy(0, -80));
    await page.waitForNetworkIdle();
  } else await page.evaluate(() => window.scrollTo(0, 0));
  await page.screenshot({ path: join(out, `${v.file}.png`) });
  await page.close();
  say(`docs/screenshots/${v.file}.png`);
}
await browser.close();
await stopServer(child);
cluster.close();
