import { readFileSync } from 'node:fs';
import { apiSpeed } from './api.mjs';
import { coreLines } from './core.mjs';
import { importPage, importSpeed } from './import.mjs';
import { pageScores } from './lighthouse.mjs';
import { modelStudy } from './model.mjs';
import { gridScroll, logSpeed } from './log.mjs';
import { captureSpeed, redrawMs } from './runs.mjs';
import { scoutSpeed } from './scout.mjs';
import { alarmLines, simulateSpeed } from './frames.mjs';
import { nextTestSpeed, troubleLines } from './trouble.mjs';
import { atLeast, countOver, line, plain, section, told, write } from '../lib/bench-table.mjs';
import { DEMO_FILE } from '../lib/paths.mjs';
import { dependencies } from '../lib/prepare.mjs';
import { say, stop } from '../lib/say.mjs';

/**
 * Speed as ratios of two things measured side by side in one run: `name | ours | reference | ratio | limit | ok or over`.
 * `--only=grid,pages` runs some parts; `--fit` fits the frame model's calibration anew before it is measured; `--write` puts the figures into docs/benchmarks.md, those of other parts stay.
 */
/** What was measured when the pages moved to Material, and a fifth to a third more: a control is never written by hand to save bytes. */
const PAGE_LIMITS = {
  Setups: { performance: 90, kB: 400 },
  Plan: { performance: 80, kB: 650 },
  Runs: { performance: 80, kB: 700 },
};

const PARTS = {
  core: coreLines,
  async import() {
    const speed = await importSpeed();
    line(
      `read and judge a file of ${speed.rows} parts (${Math.round(speed.rows / (speed.oursMs / 1000))} rows a second), against csv-parse alone`,
      speed.oursMs,
      speed.referenceMs,
      'ms',
      3,
    );
    // A page is responsive when no task takes longer than 50 ms: the limit is the reference. Chromium does not report shorter ones.
    line(
      'longest task of the page while 20,000 parts are looked at and stored, against 50 ms',
      await importPage(),
      50,
      'ms',
      1,
    );
  },
  async captures() {
    const capture = await captureSpeed();
    line(
      'read a capture of 1,000,000 frames and compute its figures, against the CSV library alone',
      capture.oursMs,
      capture.referenceMs,
      'ms',
      1.5,
    );
    line(
      'redraw a trace of 1,000,000 frames (median), against 16 ms',
      await redrawMs(),
      16,
      'ms',
      1,
    );
  },
  async log() {
    const log = await logSpeed();
    line(
      `a filtered page of a log of 100,000 entries (made in ${log.fillS.toFixed(0)} s), against the same statement through pg and its rows serialised`,
      log.page.oursMs,
      log.page.referenceMs,
      'ms',
      2,
    );
    plain(
      'judge one setup with the evidence of that log, against without it',
      `${log.evidence.oursMs.toFixed(1)} ms`,
      `${log.evidence.referenceMs.toFixed(1)} ms`,
    );
    plain('the first 50 chains of that log, each judged', `${log.chainsMs.toFixed(0)} ms`);
  },
  async grid() {
    const grid = await gridScroll(JSON.parse(readFileSync(DEMO_FILE, 'utf8')));
    line(
      'longest task while a grid of 200 by 200 is scrolled end to end, against 50 ms',
      grid.longest,
      50,
      'ms',
      1,
    );
    line('most cells of it in the document, against 2,000', grid.cells, 2000, 'cells', 1);
  },
  async chance() {
    line(
      'draw 100,000 frames by chance | their random numbers alone',
      ...(await simulateSpeed()),
      'ms',
      3,
    );
  },
  async next() {
    const next = await nextTestSpeed();
    line(
      `the next best of ${next.tests} tests over ${next.causes} causes, against one update of all causes by one answer`,
      next.oursMs * 1000,
      next.referenceMs * 1000,
      'µs',
      80,
    );
    line('the same by itself (median), against 20 ms', next.oursMs, 20, 'ms', 1);
  },
  async scout() {
    const scout = await scoutSpeed();
    line(
      `join ${scout.total} combinations of a catalogue of 300 docks, 400 cards, 20 cables, against five additions, four minima, a division, a mask and a compare each`,
      scout.joinMs,
      scout.referenceMs,
      'ms',
      5,
    );
    line(
      'the whole search with its partial judgements, against a million combinations a second',
      scout.wholeMs,
      scout.total / 1000,
      'ms',
      1,
    );
    line('its first results in a fresh process, against 200 ms', scout.firstMs, 200, 'ms', 1);
  },
  async api() {
    const api = await apiSpeed();
    line(
      'judge one chain given whole through the API, against bare Express that parses and checks the same body',
      api.evaluate.oursMs,
      api.evaluate.referenceMs,
      'ms',
      2,
    );
    line(
      `the list of setups through the API, against its ${api.list.statements} statements through pg behind bare Express`,
      api.list.oursMs,
      api.list.referenceMs,
      'ms',
      2,
    );
  },
  async pages() {
    for (const p of await pageScores()) {
      const least = PAGE_LIMITS[p.name];
      for (const [category, score] of Object.entries(p.scores))
        atLeast(
          `${p.name}, ${category} (lighthouse, desktop, median of 3)`,
          score,
          category === 'performance' ? least.performance : 100,
        );
      line(
        `script of a first visit that begins on ${p.name}, over the wire, against ${least.kB} kB`,
        p.first / 1000,
        least.kB,
        'kB',
        1,
      );
      line(`script of a second visit to ${p.name}, against 5 kB`, p.second / 1000, 5, 'kB', 1);
    }
  },
  async model() {
    const study = await modelStudy({ fit: process.argv.includes('--fit') });
    section('model', study.text);
    line(
      'frame model: mean error at sizes where a straight line exists, against the line',
      100 * study.ours,
      100 * study.line,
      '%',
      1,
    );
    atLeast(
      'frame model: limiters told with at least 95 % that are right, %',
      Math.round(100 * study.sure),
      95,
    );
    const { exp, pair, twelve, many, forecast } = study.speed;
    const against = 'against ten million exponentials';
    line(`frame model: posterior of a pair, ${against}`, pair, exp, 'ms', 0.35);
    line(`frame model: posterior of twelve cells, ${against}`, twelve, exp, 'ms', 0.5);
    line(`frame model: posterior of forty-eight cells, ${against}`, many, exp, 'ms', 1);
    line(`frame model: one forecast, ${against}`, forecast, exp, 'ms', 0.005);
  },
  async right() {
    for (const text of await alarmLines()) told(text);
    for (const text of await troubleLines()) told(text);
  },
};

await dependencies();
const began = performance.now();
const asked =
  process.argv
    .find((a) => a.startsWith('--only='))
    ?.slice(7)
    .split(',') ?? Object.keys(PARTS);
const unknown = asked.filter((name) => !(name in PARTS));
if (unknown.length > 0)
  stop(`no part is called ${unknown.join(', ')}; there are ${Object.keys(PARTS).join(', ')}`);
say('name | ours | reference | ratio | limit | ok or over');
for (const name of asked) await PARTS[name]();
if (process.argv.includes('--write'))
  write((performance.now() - began) / 1000, asked.length === Object.keys(PARTS).length);
say(countOver() === 0 ? 'all within their limits' : `${countOver()} over their limit`);
process.exit(0);
