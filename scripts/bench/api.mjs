import { createServer } from 'node:http';
import { readFileSync } from 'node:fs';
import { openCluster } from '../lib/cluster.mjs';
import { DEMO_FILE, DEMO_NOW, TEST_DATA_DIR } from '../lib/paths.mjs';
import { alternately } from './import.mjs';
import { serverModules } from './log.mjs';

/** A server on a port of its own for as long as `use` runs. */
async function listening(app, use) {
  const server = createServer(app);
  await new Promise((resolve) => server.listen(0, '127.0.0.1', resolve));
  try {
    return await use(`http://127.0.0.1:${server.address().port}`);
  } finally {
    server.close();
    server.closeAllConnections();
  }
}

async function text(url, init) {
  const r = await fetch(url, init);
  const body = await r.text();
  if (!r.ok) throw new Error(body);
  return body;
}

/** Posts the same body so many times to both, alternately: `evaluate` with whole parts, and bare Express that parses and checks it. */
async function evaluating(m, at, rounds) {
  const demo = JSON.parse(readFileSync(DEMO_FILE, 'utf8'));
  const spec = (id) => demo.parts.find((p) => p.id === id).spec;
  const { host, socket, path, dock, card } = demo.setups.find((s) => s.name === 'Dome desk').slots;
  const chain = {
    host: spec(host),
    socket,
    path: path.map(spec),
    dock: spec(dock),
    card: spec(card),
  };
  const init = {
    method: 'POST',
    headers: { 'content-type': 'application/json' },
    body: JSON.stringify({ chain }),
  };
  const echo = m.express();
  echo.use(m.express.json({ limit: '1mb' }));
  echo.post('/', (req, res) => res.json(m.evaluateBody.parse(req.body)));
  return listening(echo, (bare) =>
    warm(
      () => text(`${at}/api/evaluate`, init),
      () => text(bare, init),
      rounds,
    ),
  );
}

/** The list of setups, and the statements it runs, through pg behind bare Express with their rows as JSON. */
async function listing(m, at, client, db, rounds) {
  const statements = [];
  db.options.logging = (line, options) =>
    statements.push({ text: line.replace(/^Executing \([^)]*\): /, ''), values: options?.bind });
  db.options.logQueryParameters = false;
  await text(`${at}/api/setups`);
  db.options.logging = false;
  const bare = m.express();
  bare.get('/', async (_req, res) => {
    const answers = [];
    for (const s of statements) answers.push((await client.query(s.text, s.values)).rows);
    res.json(answers);
  });
  return listening(bare, async (reference) => ({
    statements: statements.length,
    ...(await warm(
      () => text(`${at}/api/setups`),
      () => text(reference),
      rounds,
    )),
  }));
}

/** As `alternately`, after both have run often enough to be compiled, as a server that has been up for a minute is. */
async function warm(ours, reference, rounds) {
  for (let i = 0; i < 150; i++) {
    await ours();
    await reference();
  }
  return alternately(ours, reference, rounds);
}

/** What a script waits for: one chain judged, and the list of setups, each beside the least that could answer it. */
export async function apiSpeed(rounds = 101) {
  const m = await serverModules();
  const cluster = await openCluster(TEST_DATA_DIR, { fsync: false });
  const name = `bench_api_${process.pid}`;
  cluster.createDatabase(name);
  const db = m.connect(cluster.url(name));
  m.defineModels(db);
  const services = { db, now: () => new Date(DEMO_NOW) };
  const client = new m.pg.Client(cluster.url(name));
  try {
    await m.migrate(db);
    await m.firstStart(services, DEMO_FILE);
    await db.query('ANALYZE');
    await client.connect();
    const app = m.createApp(services, { webDir: null, logger: m.pino({ level: 'silent' }) });
    return await listening(app, async (at) => ({
      evaluate: await evaluating(m, at, rounds),
      list: await listing(m, at, client, db, rounds),
    }));
  } finally {
    await client.end();
    await db.close();
    cluster.psql('postgres', `DROP DATABASE IF EXISTS ${name} WITH (FORCE)`);
    cluster.close();
  }
}
