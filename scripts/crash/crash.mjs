import { readFileSync, writeFileSync } from 'node:fs';
import { join } from 'node:path';
import { DATA_DIR, ROOT } from '../lib/paths.mjs';
import { build, dependencies } from '../lib/prepare.mjs';
import { say, stop } from '../lib/say.mjs';

/**
 * What a bad day does: `npm run faults -- --kills 1000 --cases 1000000 --seed 1`. Also `--only kills,away,disk,slow,races,roles,files,growth,stores,fuzz`, and
 * `--seeded`, which puts a defect into each of races, roles, files and growth to show that it is found. With
 * `--write` the figures go into docs/benchmarks.md.
 */
function argument(name, otherwise) {
  const at = process.argv.indexOf(`--${name}`);
  return at < 0 ? otherwise : (process.argv[at + 1] ?? stop(`--${name} needs a value`));
}
const number = (name, otherwise) => {
  const n = Number(argument(name, otherwise));
  return Number.isInteger(n) && n >= 0 ? n : stop(`--${name}: a whole number`);
};
const kinds = [
  'kills',
  'away',
  'disk',
  'slow',
  'races',
  'roles',
  'files',
  'growth',
  'stores',
  'fuzz',
];
const only = argument('only', kinds.join()).split(',');
const cuts = number('kills', 20);
const cases = number('cases', 20_000);
const seed = number('seed', 1);
const rounds = number('races', 10);
const seeded = process.argv.includes('--seeded');
/** One case in twenty-five is sent to a server and stored or refused there; the others are read. */
const stored = Math.ceil(cases / 25);

await dependencies();
await build();
const { kills } = await import('./kills.mjs');
const { diskFull } = await import('./disk.mjs');
const { databaseAway, slowClients } = await import('./slow.mjs');
const { stores } = await import('./stores.mjs');
const { fuzz } = await import('./fuzz.mjs');
const { races } = await import('./races.mjs');
const { roles } = await import('./roles.mjs');
const { files } = await import('./files.mjs');
const { growth } = await import('./growth.mjs');
/** What others wait at most while a file is read, ms, and the memory it may take, MB. */
const LIMITS = { waitMs: 250, addedMb: 400 };
const dataDir = `${DATA_DIR}-faults`;
const lines = [];
let bad = 0;
const line = (name, words, faults) => {
  lines.push(`| ${name} | ${words} | ${faults === 0 ? 'ok' : `${faults} faults`} |`);
  bad += faults;
  say(`${name}: ${words} ${faults === 0 ? 'ok' : `${faults} FAULTS`}`);
};
const show = (list) =>
  list.slice(0, 20).forEach((x) => say(`  ${typeof x === 'string' ? x : JSON.stringify(x)}`));

if (only.includes('kills')) {
  const r = await kills({ n: cuts, seed, dataDir, log: say });
  show([...r.problems, ...r.rules]);
  const words = `seed ${seed}: ${r.kills} kills (server ${r.server}, database ${r.database}, both ${r.both}) in ${r.seconds} s; ${r.confirmed} writes confirmed, ${r.unconfirmed} not, ${r.again} of those sent again; ${r.lost} lost, ${r.half} half-stored, ${r.doubled} doubled, ${r.died} times the server went with its database`;
  line('kill -9', words, r.lost + r.half + r.doubled + r.died + r.rules.length);
}
if (only.includes('away')) {
  const r = await databaseAway({ dataDir });
  line(
    'database away',
    `${r.rounds} times 3 s; ${r.told} of ${r.asked} requests told so in words; back after at most ${Math.max(...r.backMs.map((ms) => ms ?? Infinity))} ms`,
    r.wordless,
  );
}
if (only.includes('disk')) {
  const r = await diskFull({ seed, dataDir: `${dataDir}-disk` });
  if (r.skipped) say(`disk full: not run, ${r.skipped}`);
  else {
    show(r.rules);
    const words = `seed ${seed}: ${r.writes} writes, ${r.confirmed} confirmed, ${r.full} refused for want of room, ${r.after} stored once there was room; ${r.lost} lost, ${r.half} half-stored`;
    line(
      'disk full',
      words,
      r.lost + r.half + r.doubled + r.rules.length + (r.after > 0 && r.full > 0 ? 0 : 1),
    );
  }
}
if (only.includes('slow')) {
  const r = await slowClients({ dataDir });
  const words = `${r.heads} clients drip their head, ${r.bodies} their body; ${r.answered} others answered meanwhile, median ${r.besideMs.toFixed(1)} ms (alone ${r.aloneMs.toFixed(1)} ms); ${r.letGo} heads let go after at most ${r.letGoAfterS} s`;
  line('slow clients', words, r.refused + (r.letGo === r.heads ? 0 : 1));
}
if (only.includes('races')) {
  const r = await races({ dataDir, rounds, seeded });
  show(Object.entries(r.results).flatMap(([name, { lost }]) => (lost ? [`${name}: ${lost}`] : [])));
  line(
    'races',
    `${r.tried} interleavings of ${Object.keys(r.results).length} kinds, ${r.lost} lost`,
    r.lost,
  );
}
if (only.includes('roles')) {
  const r = await roles({ dataDir, open: seeded });
  show(r.letIn);
  line(
    'roles',
    `${r.calls} calls below the role of their route, ${r.letIn.length} let in`,
    r.letIn.length,
  );
}
if (only.includes('files')) {
  const r = await files({ dataDir, held: seeded });
  const over = r.results.filter(
    (x) => x.worstMs > LIMITS.waitMs || x.addedMb > LIMITS.addedMb || !x.answered,
  );
  show(
    r.results.map(
      (x) =>
        `${x.name}: health at most ${x.worstMs.toFixed(0)} ms, ${x.addedMb.toFixed(0)} MB more; ${x.said.slice(0, 100)}`,
    ),
  );
  const words = `${r.results.length} files; health answered within ${r.slowest.worstMs.toFixed(0)} ms (${r.slowest.name}); memory ${r.beforeMb.toFixed(0)} MB before, at most ${r.largest.addedMb.toFixed(0)} MB more while one was read (${r.largest.name}); limits ${LIMITS.waitMs} ms, ${LIMITS.addedMb} MB`;
  line('large files', words, over.length);
}
if (only.includes('growth')) {
  const r = await growth({ defect: seeded, ...(seeded && { only: ['commas', 'entities'] }) });
  show(r.over);
  const worst = r.worst ? `${r.worst.value.toFixed(2)} (${r.worst.name})` : 'none long enough';
  line(
    'growth',
    `${r.tried} readings of hostile shapes at three sizes, ${r.measured} long enough to tell; worst exponent ${worst}; limit 1.2`,
    r.over.length,
  );
}
if (only.includes('stores')) {
  const r = await stores({ cases: stored, seed, dataDir, log: say });
  show([...r.crashes, ...r.half, ...r.rules]);
  const words = `seed ${seed}: ${r.cases} broken bodies to ${Object.keys(r.targets).length} ways of storing in ${r.seconds} s; ${r.stored} stored whole, ${r.refused} refused; ${r.crashes.length} crashes, ${r.half.length} partial stores`;
  line('broken bodies', words, r.crashes.length + r.half.length + r.rules.length);
}
if (only.includes('fuzz')) {
  const r = await fuzz({ cases: cases - stored, seed, log: say });
  show(r.crashes);
  const words = `seed ${seed}: ${r.cases} broken files for ${Object.keys(r.targets).length} readers in ${r.seconds} s; ${r.read} read, ${r.refused} refused; ${r.crashes.length} crashes, ${r.hangs.length} hangs; slowest ${r.slowest.ms.toFixed(0)} ms (${r.slowest.name})`;
  line('broken files', words, r.crashes.length + r.hangs.length);
}

if (process.argv.includes('--write')) {
  const file = join(ROOT, 'docs/benchmarks.md');
  const text = readFileSync(file, 'utf8');
  const from = '<!-- faults -->';
  const to = '<!-- /faults -->';
  const i = text.indexOf(from);
  const j = text.indexOf(to);
  if (i < 0 || j < 0) stop('docs/benchmarks.md has no place for these figures');
  const kept = text
    .slice(i + from.length, j)
    .split('\n')
    .filter(
      (l) =>
        l.startsWith('| ') &&
        !lines.some((n) => n.split('|')[1].trim() === l.split('|')[1]?.trim()) &&
        !/^\| (fault|---)/.test(l),
    );
  const table = [
    '| fault | what happened | verdict |',
    '| --- | --- | --- |',
    ...kept,
    ...lines,
  ].join('\n');
  writeFileSync(file, `${text.slice(0, i + from.length)}\n\n${table}\n\n${text.slice(j)}`);
}
say(bad === 0 ? 'no faults found' : `${bad} faults found`);
process.exit(bad === 0 ? 0 : 1);
