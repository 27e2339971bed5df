import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { HELD_MS, watchLoop } from '../src/platform/health/loop-watch';
import { Meter } from '../src/platform/health/meter';
import { addPart, start, type Harness } from './harness';

const COUNTS = { jobs: () => 0, threads: () => 0 };
const TOKEN = 'a token that is long enough';
let h: Harness;
beforeAll(async () => {
  h = await start({ meter: new Meter(COUNTS), metricsToken: TOKEN });
});
afterAll(() => h.close());

describe('is it there', () => {
  it('the process answers, and work can be sent to it', async () => {
    expect((await h.api.get('/api/live').expect(200)).body).toEqual({ status: 'ok' });
    const ready = await h.api.get('/api/ready').expect(200);
    expect(ready.body).toEqual({ status: 'ok', database: 'ok', schema: 'ok', threads: 'ok' });
  });

  it('not while the schema is another one', async () => {
    await h.db.query("INSERT INTO schema_migrations (name) VALUES ('9999-later')");
    const r = await h.api.get('/api/ready').expect(503);
    expect([r.body.schema, r.body.database]).toEqual(['down', 'ok']);
    await h.db.query("DELETE FROM schema_migrations WHERE name = '9999-later'");
    await h.api.get('/api/ready').expect(200);
  });

  it('not without the programs of its threads', async () => {
    const lame = await start({ threads: 'file:///nowhere/' });
    try {
      expect((await lame.api.get('/api/ready').expect(503)).body.threads).toBe('down');
    } finally {
      await lame.close();
    }
  });
});

describe('numbers for collectors', () => {
  it('count answers by the pattern of their route', async () => {
    const part = await addPart(h, 'cable', { model: 'Counted' });
    await h.api.get(`/api/parts/${part.id}`).expect(200);
    const { text, headers } = await h.api.get('/api/metrics').expect(200);
    expect(headers['content-type']).toContain('text/plain');
    expect(text).toMatch(
      /ruddy_request_seconds_count\{method="GET",route="\/api\/parts\/:id",status="200"\} 1/,
    );
    for (const name of ['nodejs_eventloop_lag_seconds', 'ruddy_jobs_running', 'ruddy_connections'])
      expect(text).toContain(`\n${name} `);
    expect(text).not.toContain(part.id);
  });

  it('are for keepers, or for who has the token', async () => {
    const open = await start({
      meter: new Meter(COUNTS),
      metricsToken: TOKEN,
      access: { secure: false },
    });
    try {
      await open.api.get('/api/metrics').expect(401);
      const ask = (token: string) =>
        open.api.get('/api/metrics').set('authorization', `Bearer ${token}`);
      await ask(`${TOKEN}x`).expect(401);
      await ask(TOKEN).expect(200);
    } finally {
      await open.close();
    }
  });
});

describe('the watch on events', () => {
  it('tells a standstill with its length, and nothing else', async () => {
    const held: number[] = [];
    const end = watchLoop((ms) => held.push(ms));
    await setTimeout(120);
    const until = performance.now() + 2 * HELD_MS;
    while (performance.now() < until);
    await setTimeout(120);
    end();
    expect(Math.max(...held)).toBeGreaterThan(HELD_MS);
  });
});
