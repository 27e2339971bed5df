import { createHash, randomUUID } from 'node:crypto';
import { join } from 'node:path';
import { pathToFileURL } from 'node:url';
import { gzipSync } from 'node:zlib';
import { openCluster } from '../lib/cluster.mjs';
import { ROOT } from '../lib/paths.mjs';
import { patient } from '../lib/patience.mjs';
import { bundled } from './bundle.mjs';
import { broken } from './held.mjs';
import { mutate } from './mutate.mjs';
import { chance } from './random.mjs';
import { begin } from './writes.mjs';

const J = JSON.stringify;
const ID = '0190f7a0-0000-7000-8000-00000000f00d';

/** What is sent and stored: where to, as what, and the good samples it is made from. The id in a sample becomes a fresh one each time. */
function targets(samples, w) {
  const [setup] = w.setups;
  const text = { 'content-type': 'text/csv' };
  const json = (name, path, values, method = 'POST', headers = {}) => ({
    name,
    how: 'json',
    path,
    method,
    headers,
    samples: values.map(J),
  });
  const packed = gzipSync(Buffer.from(Float32Array.from([16.7, 16.6, 33.4]).buffer));
  const sha = createHash('sha256')
    .update(Buffer.from(Float32Array.from([16.7, 16.6, 33.4]).buffer))
    .digest('hex');
  return [
    { ...json('bundle', '/bundle', []), samples: samples.bundles },
    {
      name: 'parts, CSV',
      how: 'text',
      path: '/imports?kind=cable&mode=store',
      method: 'POST',
      headers: text,
      samples: samples.partCsv,
    },
    { ...json('parts, JSON', '/imports?mode=store', []), samples: samples.partBundles },
    { ...json('log', '/log/imports?mode=store', []), samples: samples.logs },
    {
      name: 'capture',
      how: 'bytes',
      path: `/captures/${sha}?n=3`,
      method: 'PUT',
      headers: { 'content-type': 'application/octet-stream', 'if-match': '"0"' },
      samples: [packed.toString('latin1')],
    },
    json('run', `/setups/${setup}/runs`, [
      { id: ID, titleId: w.title, kind: 'time', result: { value: 12, unit: 's' } },
      {
        id: ID,
        titleId: w.title,
        kind: 'frames',
        channels: [{ channel: 'frames', n: 3, sha256: sha }],
      },
    ]),
    { ...json('part', '/parts', []), samples: samples.named },
    json('setup', '/setups', [{ id: ID, name: 'Fuzzed', slots: w.slots }]),
    json(
      'setup, changed',
      `/setups/${w.setups[1]}`,
      [{ name: 'B', state: 'building', slots: { card: null }, loads: [], notes: 'x' }],
      'PATCH',
      { 'if-match': '"1"' },
    ),
    json('outcome', `/setups/${setup}/outcomes`, [
      {
        id: ID,
        outcome: 'works',
        happenedOn: '2026-01-01',
        symptoms: ['none'],
        versions: { driver: '1' },
        note: 'x',
      },
    ]),
    json('note', `/setups/${setup}/notes`, [{ id: ID, text: 'x', happenedOn: '2026-01-01' }]),
    json('reading', `/setups/${setup}/readings`, [
      {
        id: ID,
        reading: {
          copy: { value: 12, unit: 'Gb/s', direction: 'down', memory: 'pinned' },
          load: 'load',
        },
      },
    ]),
    json('attempt', `/setups/${w.setups[2]}/attempts`, [
      { id: ID, purpose: 'undock', order: 'all-off', driver: 'after' },
    ]),
    json('piece', '/items', [
      { id: ID, partId: w.parts.cable, label: 'K', condition: 'used', serial: 'x' },
    ]),
    json('member', '/members', [{ id: ID, name: 'Fuzzed', role: 'reader', password: null }]),
    json('loan', '/loans', [
      { id: ID, itemId: w.item, memberId: w.member, out: { fromOn: '2026-01-01', along: ['bag'] } },
    ]),
    json('price', '/prices', [
      {
        id: ID,
        partId: w.parts.cable,
        kind: 'offer',
        minor: 4900,
        currency: 'EUR',
        onDate: '2026-01-01',
        source: 'shop',
      },
    ]),
    json('search', '/searches', [
      {
        id: ID,
        name: 'x',
        ask: { hostId: w.parts.host, titleId: w.title, limits: { budgetMinor: 90000 } },
      },
    ]),
  ];
}

async function put(url, t, input, id) {
  const body = t.how === 'bytes' ? Buffer.from(input, 'latin1') : input.replaceAll(ID, id);
  const headers = { 'content-type': 'application/json', ...t.headers };
  const r = await fetch(`${url}/api${t.path}`, {
    method: t.method,
    headers,
    body,
    signal: AbortSignal.timeout(patient(10_000)),
  });
  let answer = await r.json();
  let { status } = r;
  // Long work: its end is what counts.
  while (status === 202 && answer.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 2));
    answer = await (await fetch(`${url}/api/jobs/${answer.id}`)).json();
  }
  if (status === 202 && answer.state !== 'done') status = 422;
  return { status, answer };
}

/** What is changed names the revision it was changed on. */
function turned(t, answer) {
  if (t.method === 'PATCH' && answer?.rev) t.headers['if-match'] = `"${answer.rev}"`;
}

/**
 * Broken bodies to everything that stores: each is taken whole, or refused and nothing is stored. An answer of 500, a row more after a
 * refusal, or a rule of the whole database broken at the end counts.
 */
export async function stores({ cases, seed, dataDir, log = () => undefined }) {
  const module = await bundled('server/test/fuzz/app.ts', 'stores');
  const cluster = await openCluster(dataDir, { fsync: false });
  const database = `stores_${randomUUID().replaceAll('-', '')}`;
  cluster.createDatabase(database);
  const { openApp, samples } = await import(module.url);
  const unexpected = [];
  const app = await openApp(
    cluster.url(database),
    (e) => unexpected.push(String(e?.stack ?? e).slice(0, 800)),
    pathToFileURL(join(ROOT, 'server/dist/')).href,
  );
  const random = chance(seed);
  const began = Date.now();
  const total = { cases: 0, stored: 0, refused: 0, crashes: [], half: [], targets: {} };
  try {
    const world = await begin(app.url, random);
    world.item = random.id();
    await fetch(`${app.url}/api/items`, {
      method: 'POST',
      headers: { 'content-type': 'application/json' },
      body: J({ id: world.item, partId: world.parts.cable, label: 'K' }),
    });
    const all = targets(samples, world);
    // The samples themselves are good: otherwise nothing would be learnt from breaking them.
    for (const t of all)
      for (const sample of t.samples) {
        const r = await put(app.url, t, sample, random.id());
        if (r.status >= 400)
          throw new Error(`the sample of ${t.name} is refused: ${J(r.answer).slice(0, 500)}`);
        turned(t, r.answer);
      }
    let before = await app.held();
    for (let i = 0; i < cases; i++) {
      const t = all[i % all.length];
      const own = chance(seed + i * 7919, `${seed}/case ${i}`);
      const input = mutate(t.how, t.samples, own);
      const r = await put(app.url, t, input, own.id()).catch((e) => ({
        status: 599,
        answer: String(e),
      }));
      turned(t, r.answer);
      const after = await app.held();
      const c = (total.targets[t.name] ??= { cases: 0, stored: 0, refused: 0 });
      c.cases++;
      total.cases++;
      const kind = r.status < 400 ? 'stored' : 'refused';
      c[kind]++;
      total[kind]++;
      const told = {
        i,
        name: t.name,
        status: r.status,
        answer: J(r.answer).slice(0, 400),
        input: input.slice(0, 600),
      };
      if (r.status >= 500) {
        total.crashes.push(told);
        log(`case ${i}: ${told.name} ${told.status} ${told.answer}`);
      }
      if (r.status >= 400 && after !== before) total.half.push({ ...told, before, after });
      if (unexpected.length > 0) {
        total.crashes.push({ ...told, unexpected: unexpected.splice(0) });
        log(`case ${i}: ${told.name}: ${total.crashes.at(-1).unexpected[0]}\n  ${told.input}`);
      }
      before = after;
      if ((i + 1) % 5000 === 0)
        log(
          `${i + 1} stores, ${total.stored} stored, ${total.crashes.length} crashes, ${total.half.length} half`,
        );
    }
    total.rules = await broken({ query: app.query });
  } finally {
    await app.close();
    cluster.psql('postgres', `DROP DATABASE ${database} WITH (FORCE)`);
    cluster.close();
    module.remove();
  }
  return { ...total, seconds: Math.round((Date.now() - began) / 1000) };
}
