import { randomUUID } from 'node:crypto';
import pg from 'pg';
import { openCluster } from '../lib/cluster.mjs';
import { stopServer } from '../lib/server.mjs';
import { broken, standing } from './held.mjs';
import { chance } from './random.mjs';
import { serveOn } from './serve.mjs';
import { begin, Refused, WRITES } from './writes.mjs';

const WRITERS = 6;
const WHAT = ['server', 'database', 'both'];
const KINDS = Object.keys(WRITES);

/** A client of the database that outlives nothing: made anew after each kill. */
async function client(cluster, database) {
  const c = new pg.Client(cluster.url(database));
  c.on('error', () => undefined);
  await c.connect();
  return c;
}

/** Several people write at once until somebody pulls the plug. Gives what each sent and whether it was confirmed. */
async function writeUntil(url, world, random, name, cut) {
  const sent = [];
  let over = false;
  const writer = async (own) => {
    while (!over) {
      const kind = own.of(KINDS);
      const write = { kind, ...WRITES[kind](own, world), confirmed: false };
      sent.push(write);
      try {
        await write.send(url);
        write.confirmed = true;
      } catch (error) {
        if (error instanceof Refused) throw error;
        if (!over) await new Promise((resolve) => setTimeout(resolve, 5));
      }
    }
  };
  const writers = Array.from({ length: WRITERS }, (_, i) =>
    writer(chance(random.int(1, 0x7ffffffe), `${name}/${i}`)),
  );
  await new Promise((resolve) => setTimeout(resolve, random.int(20, 500)));
  over = true;
  await cut();
  await Promise.all(writers);
  return sent;
}

/**
 * Kill the server, the database or both, `n` times at moments the seed chooses, while six people write, and look each time at what is
 * there: every confirmed write whole, every other whole or absent, none twice. Every second unconfirmed one is sent again.
 */
export async function kills({ n, seed, dataDir, log = () => undefined }) {
  const random = chance(seed);
  const cluster = await openCluster(dataDir);
  const database = `kills_${randomUUID().replaceAll('-', '')}`;
  cluster.createDatabase(database);
  const serve = () => serveOn(cluster.url(database));
  let server = await serve();
  const at = () => `http://127.0.0.1:${server.port}`;
  const world = await begin(at(), random);
  const total = {
    kills: 0,
    server: 0,
    database: 0,
    both: 0,
    confirmed: 0,
    unconfirmed: 0,
    again: 0,
    lost: 0,
    half: 0,
    doubled: 0,
    died: 0,
  };
  const all = [];
  const problems = [];
  const judge = (writes, found) => {
    for (const w of writes) {
      const s = found.get(w.id);
      if (s === 'half' || s === 'doubled') total[s]++;
      if (w.confirmed && s === 'absent') total.lost++;
      if (s === 'half' || s === 'doubled' || (w.confirmed && s === 'absent'))
        problems.push(`kill ${total.kills}: ${w.kind} ${w.id} is ${s}`);
    }
  };
  const began = Date.now();
  for (let i = 0; i < n; i++) {
    // In turn: what is killed must not hang on how many writes were drawn for before.
    const what = WHAT[i % WHAT.length];
    const ended = new Promise((resolve) => server.child.once('exit', resolve));
    const sent = await writeUntil(at(), world, random, `${seed}/${i}`, async () => {
      if (what !== 'server') cluster.kill();
      if (what !== 'database') {
        server.child.kill('SIGKILL');
        await ended;
      }
    });
    if (what !== 'server') {
      const started = await cluster.again();
      if (started.code !== 0) throw new Error(`the database did not come back: ${started.out}`);
    }
    if (what !== 'database') server = await serve();
    else if (!(await healthy(at()))) {
      // A database that goes away must not take the server with it, nor keep it from coming back by itself.
      total.died++;
      problems.push(`kill ${total.kills + 1}: the server did not outlive its database`);
      server.child.kill('SIGKILL');
      server = await serve();
    }
    if (server.port === undefined) throw new Error('the server did not come back');
    total.kills++;
    total[what]++;
    const look = await client(cluster, database);
    judge(sent, await standing(look, sent));
    // Whoever got no answer sends it again, as a page does with what it kept: it must not be there twice.
    const again = sent.filter((w) => !w.confirmed && !w.once && random.next() < 0.5);
    for (const w of again) {
      await retry(() => w.send(at()));
      w.confirmed = true;
    }
    judge(again, await standing(look, again));
    await look.end();
    total.again += again.length;
    total.confirmed += sent.filter((w) => w.confirmed).length;
    total.unconfirmed += sent.filter((w) => !w.confirmed).length;
    all.push(
      ...sent.filter((w) => w.confirmed).map(({ kind, id }) => ({ kind, id, confirmed: true })),
    );
    if ((i + 1) % 50 === 0)
      log(
        `${i + 1} kills, ${total.confirmed} confirmed, ${total.lost} lost, ${total.half} half, ${total.doubled} doubled`,
      );
  }
  const look = await client(cluster, database);
  const before = problems.length;
  judge(all, await standing(look, all));
  const late = problems.length - before;
  const rules = await broken(look);
  await look.end();
  await stopServer(server.child);
  cluster.psql('postgres', `DROP DATABASE ${database} WITH (FORCE)`);
  cluster.close();
  return { ...total, late, problems, rules, seconds: Math.round((Date.now() - began) / 1000) };
}

/** Does the server answer with its database again, within ten seconds? */
async function healthy(url) {
  for (let i = 0; i < 100; i++) {
    const ok = await fetch(`${url}/api/health`).then(
      (r) => r.ok,
      () => false,
    );
    if (ok) return true;
    await new Promise((resolve) => setTimeout(resolve, 100));
  }
  return false;
}

/** The server takes a moment to see that its database is back. */
async function retry(work) {
  for (let i = 0; ; i++) {
    try {
      return await work();
    } catch (error) {
      if (i >= 40 || error instanceof Refused) throw error;
      await new Promise((resolve) => setTimeout(resolve, 100));
    }
  }
}
