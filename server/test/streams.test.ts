import { randomUUID } from 'node:crypto';
import type { Server } from 'node:http';
import { pino } from 'pino';
import { afterAll, beforeAll, describe, expect, it, inject } from 'vitest';
import type { Act } from '@ruddy/core/bench';
import type { Bench } from '@ruddy/core/bench/contract';
import type { Job } from '@ruddy/core/parts/contract';
import { createApp } from '../src/app';
import { Streams } from '../src/platform/streams/streams';
import { addSetup, start, type Harness } from './harness';
import { listen, seqs, watch, type Client } from './sse';

let h: Harness;
let url: string;
let server: Server;
let setupId: string;
const open: Client[] = [];
beforeAll(async () => {
  h = await start();
  ({ url, server } = await listen(h.app));
  setupId = (await addSetup(h)).id;
});
afterAll(async () => {
  open.forEach((c) => c.close());
  server.closeAllConnections();
  server.close();
  await h.close();
});

async function lay(speed = 0): Promise<string> {
  const id = randomUUID();
  await h.api.post('/api/benches').send({ id, name: 'Table', seed: 4, speed, setupId });
  return id;
}
const act = (id: string, a: Act) =>
  h.api.post(`/api/benches/${id}/acts`).send({ id: randomUUID(), act: a });
async function see(...args: Parameters<typeof watch>): Promise<Client> {
  const c = await watch(...args);
  open.push(c);
  return c;
}
const whole = (n: number) => Array.from({ length: n }, (_, i) => i + 1);
const START: readonly Act[] = [
  { act: 'plug', socket: 'left' },
  { act: 'mains', on: true },
  { act: 'dock', on: true },
  { act: 'host', to: 'on' },
];

describe('BE-04 streams', () => {
  it('sends past, coming and spontaneous events without gaps', async () => {
    const id = await lay(100);
    await act(id, START[0]!);
    const c = await see(url, [`bench/${id}`]);
    for (const a of START.slice(1)) await act(id, a);
    // Nobody asks for the bench any more: the server that streams it moves it on.
    await c.until((e) =>
      e.some(
        (x) => x.kind === 'bench' && x.event.kind === 'line' && x.event.body.code === 'awaiting',
      ),
    );
    const got = seqs(c.events, id);
    expect(got).toEqual(whole(got.length));
  });

  it('resumes after the last id or the address', async () => {
    const id = await lay();
    for (const a of START) await act(id, a);
    const first = await see(url, [`bench/${id}`]);
    await first.until((e) => seqs(e, id).length >= 4);
    first.close();
    const seen = Number(first.lastId.split('=')[1]);
    await act(id, { act: 'host', to: 'off' });
    const by = [
      await see(url, [`bench/${id}`], '', first.lastId),
      await see(url, [`bench/${id}`], first.lastId),
    ];
    for (const c of by) {
      await c.until((e) =>
        e.some(
          (x) => x.kind === 'bench' && x.event.kind === 'line' && x.event.body.code === 'host-off',
        ),
      );
      expect(seqs(c.events, id)[0]).toBe(seen + 1);
    }
  });

  it('several topics keep own numbers; removed ones are said gone', async () => {
    const a = await lay();
    const b = await lay();
    const c = await see(url, [`bench/${a}`, `bench/${b}`]);
    await act(a, { act: 'mains', on: true });
    await act(b, { act: 'mains', on: true });
    await c.until((e) => seqs(e, a).length === 2 && seqs(e, b).length === 2);
    await h.api.delete(`/api/benches/${a}`);
    await c.until((e) => e.some((x) => x.kind === 'gone' && x.topic === `bench/${a}`));
    await act(b, { act: 'mains', on: false });
    await c.until((e) => seqs(e, b).length === 4);
  });

  it('returning to a cleared bench is told, the rest goes on', async () => {
    const a = await lay();
    const b = await lay();
    await h.api.delete(`/api/benches/${a}`);
    const c = await see(url, [`bench/${a}`, `bench/${b}`], `bench/${a}=1,bench/${b}=0`);
    await act(b, { act: 'mains', on: true });
    await c.until((e) => e.some((x) => x.kind === 'gone') && seqs(e, b).length === 2);
  });

  it('a job says how it goes, to its end', async () => {
    const rows = Array.from({ length: 3000 }, (_, i) => `Alder,K-${i},usb-c,passive,700`).join(
      '\n',
    );
    const csv = `maker,model,connector,construction,lengthMm\n${rows}\n`;
    const r = await h.api
      .post('/api/imports?kind=cable&mode=try')
      .set('content-type', 'text/csv')
      .send(csv);
    const { id } = r.body as Job;
    const c = await see(url, [`job/${id}`]);
    await c.until((e) => e.some((x) => x.kind === 'job' && x.job.state === 'done'));
    const numbers = c.events.flatMap((e) => (e.kind === 'job' ? [e.seq] : []));
    expect([...numbers].sort((x, y) => x - y)).toEqual(numbers);
  });

  it('an unknown or ill-formed topic is refused before anything is opened', async () => {
    await expect(watch(url, [`bench/${randomUUID()}`])).rejects.toThrow('404');
    await expect(watch(url, ['bench/nothing'])).rejects.toThrow('400');
  });

  it('without the wake-up of the database the poll finds everything', async () => {
    const deaf = new Streams({ now: () => h.clock.now }, null);
    const app = createApp(
      { now: () => h.clock.now, streams: deaf },
      { webDir: null, logger: pino({ level: 'silent' }) },
    );
    const other = await listen(app);
    const id = await lay();
    const c = await see(other.url, [`bench/${id}`]);
    await act(id, { act: 'mains', on: true });
    await c.until((e) => seqs(e, id).length === 2);
    await deaf.close();
    await expect.poll(() => c.ended).toBe(true);
    other.server.close();
  });

  it('a listening connection that is cut comes back', async () => {
    const id = await lay();
    const c = await see(url, [`bench/${id}`]);
    await act(id, { act: 'mains', on: true });
    await c.until((e) => seqs(e, id).length === 2);
    await h.db.query(
      `SELECT pg_terminate_backend(pid) FROM pg_stat_activity WHERE application_name = 'ruddy-bridge-streams' AND datname = current_database()`,
    );
    await act(id, { act: 'mains', on: false });
    await c.until((e) => seqs(e, id).length === 4);
  });
});

describe('BE-04 two servers on one database', () => {
  it('an act on one is seen on the other', async () => {
    const services = { now: () => h.clock.now };
    const b = new Streams(
      services,
      inject('ownerUrl').replace(/\/postgres$/, `/${h.db.config.database}`),
    );
    const second = await listen(
      createApp({ ...services, streams: b }, { webDir: null, logger: pino({ level: 'silent' }) }),
    );
    const id = await lay(100);
    const here = await see(url, [`bench/${id}`]);
    const there = await see(second.url, [`bench/${id}`]);
    for (const a of START) await act(id, a);
    for (const c of [here, there])
      await c.until((e) =>
        e.some(
          (x) => x.kind === 'bench' && x.event.kind === 'line' && x.event.body.code === 'awaiting',
        ),
      );
    expect(there.events).toEqual(here.events);
    await b.close();
    second.server.close();
  });

  it('many acts through both: none twice, none lost', async () => {
    const id = await lay();
    const c = await see(url, [`bench/${id}`]);
    await Promise.all(
      Array.from({ length: 40 }, (_, i) => act(id, { act: 'mains', on: i % 2 === 0 })),
    );
    const { seq } = (await h.api.get(`/api/benches/${id}`)).body as Bench;
    await c.until((e) => seqs(e, id).length >= seq);
    expect(seqs(c.events, id)).toEqual(whole(seq));
    expect(c.events.filter((e) => e.kind === 'bench' && e.event.kind === 'act')).toHaveLength(40);
  });
});

describe('BE-04 many benches to many clients', () => {
  it('50 benches stream to 50 clients, and nobody loses an event', async () => {
    const ids = await Promise.all(Array.from({ length: 50 }, () => lay(100)));
    const clients = await Promise.all(
      ids.map((id, i) => see(url, [`bench/${id}`, `bench/${ids[(i + 1) % 50] ?? id}`])),
    );
    for (const a of START) await Promise.all(ids.map((id) => act(id, a)));
    await Promise.all(ids.map((id) => act(id, { act: 'approve', how: 'always' })));
    const bound = (e: Client['events'], id: string) =>
      e.some(
        (x) =>
          x.topic === `bench/${id}` &&
          x.kind === 'bench' &&
          x.event.kind === 'line' &&
          x.event.body.code === 'bound',
      );
    await Promise.all(
      clients.map((c, i) =>
        c.until((e) => bound(e, ids[i] ?? '') && bound(e, ids[(i + 1) % 50] ?? '')),
      ),
    );
    for (const [i, c] of clients.entries())
      for (const id of [ids[i] ?? '', ids[(i + 1) % 50] ?? '']) {
        const got = seqs(c.events, id);
        expect(got).toEqual(whole(got.length));
        expect(got.length).toBeGreaterThan(15);
      }
  });
});
