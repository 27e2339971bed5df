/* global document, window, PerformanceObserver, requestAnimationFrame, URLSearchParams */
import { rmSync } from 'node:fs';
import { createServer } from 'node:http';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { build as bundle } from 'esbuild';
import { openCluster } from '../lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, ROOT, TEST_DATA_DIR } from '../lib/paths.mjs';
import { alternately } from './import.mjs';
import { openPage } from './page.mjs';

const ENTRIES = 100_000;
const PARTS = 200;
/** What a person looks for: a host, a symptom, not older than two years. */
const FILTER = { host: 'L-13', symptom: 'drops', since: '2024-11-20', limit: 50 };

/** The server's own modules in this process, its packages left outside. */
export async function serverModules() {
  const file = join(ROOT, 'server', `bench-${process.pid}.mjs`);
  const from = (path) => `'${ROOT}/server/src/${path}'`;
  await bundle({
    stdin: {
      contents: [
        `export { createApp } from ${from('app')};`,
        `export { connect } from ${from('platform/db/connect')};`,
        `export { migrate } from ${from('platform/db/migrate')};`,
        `export { defineModels } from ${from('models')};`,
        `export { firstStart } from ${from('workshop/demo')};`,
        `export { outcomesStatement } from ${from('plan/queries/log-entries')};`,
        `export { evaluateBody } from '@ruddy/core/plan/contract';`,
        `export { default as pg } from 'pg'; export { pino } from 'pino'; export { default as express } from 'express';`,
      ].join('\n'),
      resolveDir: join(ROOT, 'server'),
    },
    outfile: file,
    bundle: true,
    platform: 'node',
    format: 'esm',
    plugins: [
      {
        name: 'packages-outside',
        setup(b) {
          b.onResolve({ filter: /^[^./]/ }, (a) =>
            a.path.startsWith('@ruddy/') ? null : { path: a.path, external: true },
          );
        },
      },
    ],
  });
  try {
    return await import(pathToFileURL(file).href);
  } finally {
    rmSync(file);
  }
}

/** Entries made of those of the demo: other setups, versions, days and outcomes, each chain as it was. */
const FILL = `INSERT INTO log_entries (id, origin, created_at, created_by, unit, seq, came_from, chain_key, chain, versions, outcome, symptoms,
    fixes, provenance, confidence, happened_on, recorded_at, content_hash)
  SELECT gen_random_uuid(), 'imported', now(), d.created_by, md5((i / 3)::text)::uuid, i, 'bench', d.chain_key, d.chain,
    jsonb_build_object('driver', (i % 9)::text, 'system', (i % 5)::text),
    (ARRAY['works', 'care', 'unreliable', 'fails'])[1 + i % 4], CASE WHEN i % 6 = 0 THEN ARRAY['drops under load'] ELSE ARRAY['none'] END,
    ARRAY[]::text[], 'own', 1, date '2026-11-20' - (i % 1500), now(), 'bench ' || i
  FROM generate_series(1, ${ENTRIES}) i
  JOIN (SELECT row_number() OVER (ORDER BY id) AS k, count(*) OVER () AS n, * FROM log_entries WHERE chain_key IS NOT NULL) d ON d.k = 1 + i % d.n`;

/**
 * A filtered page of a log of 100,000 entries through the API, beside the same statement through pg in the same process with its rows
 * serialised; and what the pages that read the same log take: the table of chains and the evidence of one chain.
 */
export async function logSpeed(rounds = 31) {
  const m = await serverModules();
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  const name = `bench_log_${process.pid}`;
  cluster.createDatabase(name);
  const db = m.connect(cluster.url(name));
  m.defineModels(db);
  const services = { db, now: () => new Date(DEMO_NOW) };
  const client = new m.pg.Client(cluster.url(name));
  let server;
  try {
    await m.migrate(db);
    await m.firstStart(services, DEMO_FILE);
    const began = performance.now();
    await db.query(FILL);
    await db.query('ANALYZE');
    const fillS = (performance.now() - began) / 1000;
    server = createServer(
      m.createApp(services, { webDir: null, logger: m.pino({ level: 'silent' }) }),
    );
    await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
    const url = `http://127.0.0.1:${server.address().port}/api`;
    await client.connect();
    const { sql, bind } = m.outcomesStatement(FILTER);
    const get = async (path) => {
      const r = await fetch(`${url}${path}`);
      const text = await r.text();
      if (!r.ok) throw new Error(text);
      return text;
    };
    const query = new URLSearchParams(FILTER).toString();
    if (JSON.parse(await get(`/outcomes?${query}`)).items.length !== FILTER.limit)
      throw new Error('the page is not full');
    const page = await alternately(
      () => get(`/outcomes?${query}`),
      async () => JSON.stringify((await client.query(sql, bind)).rows),
      rounds,
    );
    const setup = JSON.parse(await get('/setups?q=Dome&limit=1')).items[0];
    const body = JSON.stringify({ setupId: setup.id, evidence: 'log' });
    const judge = async (evidence) => {
      const headers = { 'content-type': 'application/json' };
      const r = await fetch(`${url}/evaluate`, {
        method: 'POST',
        headers,
        body: evidence ? body : body.replace('"log"', '"none"'),
      });
      if (!r.ok) throw new Error(await r.text());
    };
    const evidence = await alternately(
      () => judge(true),
      () => judge(false),
      15,
    );
    const chains = await alternately(
      () => get('/compatibility?limit=50'),
      async () => {},
      7,
    );
    return { fillS, page, evidence, chainsMs: chains.oursMs };
  } finally {
    await client.end();
    server?.close();
    server?.closeAllConnections();
    await db.close();
    cluster.psql('postgres', `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    cluster.close();
  }
}

/** The longest task of the page's main thread, ms, and the most cells in the document while a grid of 200 by 200 is scrolled end to end. */
export async function gridScroll(demo) {
  const { page, url, close } = await openPage();
  try {
    const many = (kind, name) => {
      const like = demo.parts.find((p) => p.kind === kind);
      return Array.from({ length: PARTS }, (_, i) => ({
        id: `many.${kind}.${i}`,
        kind,
        sources: {},
        spec: { ...like.spec, model: `${name}-${i}`, variant: '' },
      }));
    };
    const bundle = {
      format: 'ruddy-bridge/bundle',
      version: 1,
      parts: [...many('host', 'Z'), ...many('dock', 'Y')],
    };
    const headers = { 'content-type': 'application/json' };
    const r = await fetch(`${url}/api/bundle`, {
      method: 'POST',
      headers,
      body: JSON.stringify(bundle),
    });
    if (!r.ok) throw new Error(await r.text());
    await page.goto(`${url}/compatibility/grid?scope=all`, { waitUntil: 'load' });
    // What is in view at first is predicted before anything is scrolled.
    await page.waitForFunction(
      () =>
        document.querySelectorAll('[role=gridcell]').length > 50 &&
        !document.querySelector('[role=gridcell].wait'),
      { timeout: 60_000, polling: 100 },
    );
    return await page.evaluate(async () => {
      let longest = 0;
      let cells = 0;
      new PerformanceObserver((list) => {
        for (const e of list.getEntries()) longest = Math.max(longest, e.duration);
      }).observe({ entryTypes: ['longtask'] });
      const box = document.querySelector('[role=grid]');
      const frame = () =>
        new Promise((resolve) => requestAnimationFrame(() => requestAnimationFrame(resolve)));
      const wide = box.scrollWidth - box.clientWidth;
      const high = box.scrollHeight - box.clientHeight;
      const steps = 120;
      for (let i = 0; i <= steps; i++) {
        box.scrollTop = (high * i) / steps;
        box.scrollLeft = (wide * i) / steps;
        await frame();
        cells = Math.max(cells, document.querySelectorAll('[role=gridcell]').length);
      }
      await new Promise((resolve) => window.setTimeout(resolve, 500));
      return { longest, cells };
    });
  } finally {
    await close();
  }
}
