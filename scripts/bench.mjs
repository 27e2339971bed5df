import { readFileSync } from 'node:fs';
import { build as bundle } from 'esbuild';
import { DEMO_FILE, ROOT } from './lib/paths.mjs';
import { dependencies } from './lib/prepare.mjs';
import { atLeast, countOver, line, plain, told, write } from './lib/bench-table.mjs';
import { say } from './lib/say.mjs';
import { apiSpeed } from './bench-api.mjs';
import { importPage, importSpeed } from './bench-import.mjs';
import { pageScores } from './bench-lighthouse.mjs';
import { gridScroll, logSpeed } from './bench-log.mjs';
import { captureSpeed, redrawMs } from './bench-runs.mjs';
import { limiterLines, simulateSpeed } from './bench-toll.mjs';
import { scoutSpeed } from './bench-scout.mjs';
import { nextTestSpeed, troubleLines } from './bench-trouble.mjs';

/** Speed as ratios of two things measured side by side in one run: `name | ours | reference | ratio | limit | ok or over`. */
await dependencies();
const began = performance.now();
const entry = `export { evaluate } from '${ROOT}/core/src/plan'; export { chainSchema } from '${ROOT}/core/src/schema'; export { readReport, measure } from '${ROOT}/core/src/reading'; export { NO_EVIDENCE } from '${ROOT}/core/src/log';`;
const { outputFiles } = await bundle({
  stdin: { contents: entry, resolveDir: ROOT },
  bundle: true,
  platform: 'node',
  format: 'esm',
  write: false,
});
const { evaluate, chainSchema, readReport, measure, NO_EVIDENCE } = await import(
  `data:text/javascript;base64,${Buffer.from(outputFiles[0].text).toString('base64')}`
);

/** Median microseconds of one call, over rounds that alternate between ours and the reference. */
function sideBySide(ours, reference, rounds = 41, calls = 200) {
  const time = (f) => {
    const began = performance.now();
    for (let i = 0; i < calls; i++) f();
    return ((performance.now() - began) * 1000) / calls;
  };
  const a = [];
  const b = [];
  for (let i = 0; i < 5; i++) {
    time(ours);
    time(reference);
  }
  for (let i = 0; i < rounds; i++) {
    a.push(time(ours));
    b.push(time(reference));
  }
  const median = (xs) => xs.sort((x, y) => x - y)[xs.length >> 1];
  return [median(a), median(b)];
}

const demo = JSON.parse(readFileSync(DEMO_FILE, 'utf8'));
const part = (id) => demo.parts.find((p) => p.id === id)?.spec ?? null;
const setup = demo.setups.find((s) => s.name === 'Dome desk');
const { host, socket, path, dock, card } = setup.slots;
const chain = chainSchema.parse({
  host: part(host),
  socket,
  path: path.map((id, i) => ({ key: 'abcdef'[i], spec: part(id) })),
  dock: part(dock),
  card: part(card),
});
const exact = { n: 3, works: 0, care: 3, unreliable: 0, fails: 0, newest: '2026-11-03' };
const evidence = { ...NO_EVIDENCE, exact, weighted: { worked: 3, failed: 0 }, near: { n: 9, weight: 3.1, worked: 2.2 } };
const input = { chain, context: { asOf: '2026-11-20', house: {}, evidence } };
const output = evaluate(input);
const size = JSON.stringify(input).length + JSON.stringify(output).length;
say('name | ours | reference | ratio | limit | ok or over');
const [ours, reference] = sideBySide(
  () => evaluate(input),
  () => {
    JSON.parse(JSON.stringify(input));
    JSON.parse(JSON.stringify(output));
  },
);
line(`evaluate one chain, against a JSON round trip of its input and output (${size} bytes)`, ours, reference, 'µs', 6);

/** A listing as a desktop prints it: bridges and functions with their capabilities and dumped bytes. */
function listing(devices) {
  const bytes = Array.from({ length: 16 }, (_, i) => `${(i * 16).toString(16).padStart(2, '0')}:${' 00'.repeat(16)}`).join('\n');
  const one = (bus) =>
    [
      `${bus.toString(16).padStart(2, '0')}:00.0 PCI bridge [0604]: Made bridge [e003:0001] (rev 01)`,
      `\tBus: primary=00, secondary=${(bus + 1).toString(16).padStart(2, '0')}, subordinate=ff, sec-latency=0`,
      '\tCapabilities: [40] Express (v2) Downstream Port (Slot+), MSI 00',
      ...Array(40).fill('\t\tDevCap: MaxPayload 256 bytes, PhantFunc 0, ExtTag+ RBE+ SlotPowerLimit 75.000W'),
      '\t\tLnkCap: Port #1, Speed 8GT/s, Width x4, ASPM L1',
      '\t\tLnkSta: Speed 8GT/s, Width x4',
      bytes,
    ].join('\n');
  return Array.from({ length: devices }, (_, i) => one(i)).join('\n\n');
}
const text = listing(60);
const [read, split] = sideBySide(
  () => measure(readReport(text).report, { kind: 'tunnel' }),
  () => text.split('\n').map((l) => l.trim().split(/\s+/)),
  15,
  10,
);
line(`read a listing of 60 devices (${text.length} characters), against cutting it into words`, read, split, 'µs', 10);

const speed = await importSpeed();
line(
  `read and judge a file of ${speed.rows} parts (${Math.round(speed.rows / (speed.oursMs / 1000))} rows a second), against csv-parse alone`,
  speed.oursMs,
  speed.referenceMs,
  'ms',
  3,
);
// A page is responsive when no task takes longer than 50 ms: the limit is the reference. Chromium does not report shorter ones.
line('longest task of the page while 20,000 parts are looked at and stored, against 50 ms', await importPage(), 50, 'ms', 1);

const capture = await captureSpeed();
line(
  'read a capture of 1,000,000 frames and compute its figures, against the CSV library alone',
  capture.oursMs,
  capture.referenceMs,
  'ms',
  1.5,
);
line('redraw a trace of 1,000,000 frames (median), against 16 ms', await redrawMs(), 16, 'ms', 1);

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
const grid = await gridScroll(demo);
line('longest task while a grid of 200 by 200 is scrolled end to end, against 50 ms', grid.longest, 50, 'ms', 1);
line('most cells of it in the document, against 2,000', grid.cells, 2000, 'cells', 1);

line('draw 100,000 frames by chance | their random numbers alone', ...(await simulateSpeed()), 'ms', 3);
const next = await nextTestSpeed();
line(
  `the next best of ${next.tests} tests over ${next.causes} causes, against one update of all causes by one answer`,
  next.oursMs * 1000,
  next.referenceMs * 1000,
  'µs',
  80,
);
line('the same by itself (median), against 20 ms', next.oursMs, 20, 'ms', 1);
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
for (const p of await pageScores()) {
  for (const [category, score] of Object.entries(p.scores))
    atLeast(`${p.name}, ${category} (lighthouse, desktop, median of 3)`, score, 95);
  if (p.name === 'Setups') line('script of a first visit over the wire, against 250 kB', p.first / 1000, 250, 'kB', 1);
  else plain(`script of a first visit that begins on ${p.name}`, `${(p.first / 1000).toFixed(0)} kB`);
  line(`script of a second visit to ${p.name}, against a thousand bytes`, p.second / 1000, 1, 'kB', 0);
}
for (const text of await limiterLines()) told(text);
for (const text of await troubleLines()) told(text);
if (process.argv.includes('--write')) write((performance.now() - began) / 1000);
say(countOver() === 0 ? 'all within their limits' : `${countOver()} over their limit`);
process.exit(0);
