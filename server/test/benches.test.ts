import { execFileSync } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { Act } from '@ruddy/core/bench';
import { type Bench, benchReading, benchSchema } from '@ruddy/core/bench/contract';
import { addSetup, start, SPECS, type Harness } from './harness';

let h: Harness;
let setupId: string;
beforeAll(async () => {
  h = await start();
  setupId = (await addSetup(h)).id;
});
afterAll(() => h.close());

async function lay(over: object = {}): Promise<Bench> {
  const r = await h.api
    .post('/api/benches')
    .send({ id: randomUUID(), name: 'Table', seed: 4, speed: 0, ...over });
  expect(r.status, JSON.stringify(r.body)).toBe(201);
  return benchSchema.parse(r.body);
}
const ofSetup = () => lay({ setupId });
async function act(id: string, a: Act, actId: string = randomUUID()): Promise<Bench> {
  const r = await h.api.post(`/api/benches/${id}/acts`).send({ id: actId, act: a });
  expect(r.status, JSON.stringify(r.body)).toBe(200);
  return r.body as Bench;
}
async function clock(id: string, body: object): Promise<Bench> {
  const r = await h.api.post(`/api/benches/${id}/clock`).send(body);
  expect(r.status, JSON.stringify(r.body)).toBe(200);
  return r.body as Bench;
}
async function bringUp(id: string): Promise<Bench> {
  for (const a of [
    { act: 'plug', socket: 'left' },
    { act: 'mains', on: true },
    { act: 'dock', on: true },
    { act: 'host', to: 'on' },
  ] as const)
    await act(id, a);
  await clock(id, { stepMs: 30_000 });
  await act(id, { act: 'approve', how: 'always' });
  await clock(id, { stepMs: 10_000 });
  return (await h.api.get(`/api/benches/${id}`)).body as Bench;
}

describe('BE-01 a bench through the API', () => {
  it('stands still at speed 0, its log numbered without gaps', async () => {
    const { id } = await ofSetup();
    const up = await bringUp(id);
    expect(up.state).toMatchObject({ stage: 'bound', host: 'on', ms: 40_000 });
    expect(up.log.map((e) => e.seq)).toEqual(up.log.map((_, i) => i + 1));
    expect(up.log.flatMap((e) => (e.kind === 'line' ? [e.body.code] : []))).toEqual(
      expect.arrayContaining([
        'host-on',
        'router-up',
        'awaiting',
        'approved',
        'tunnel-up',
        'trained',
        'bound',
      ]),
    );
    expect((await h.api.get(`/api/benches/${id}`)).body).toMatchObject({
      seq: up.seq,
      state: up.state,
    });
  });

  it('every line carries the state of its own moment', async () => {
    const { id } = await ofSetup();
    const up = await bringUp(id);
    const stage = (code: string) =>
      up.log.flatMap((e) =>
        e.kind === 'line' && e.body.code === code ? [e.body.state.stage] : [],
      )[0];
    expect([stage('attached'), stage('router-up'), stage('awaiting'), stage('bound')]).toEqual([
      'attached',
      'router',
      'awaiting',
      'bound',
    ]);
  });

  it('goes by itself at a speed, and on to what is next', async () => {
    const { id } = await ofSetup();
    await act(id, { act: 'host', to: 'on' });
    const next = await clock(id, { toNext: true });
    expect(next.state.host).toBe('on');
    expect(next.nextMs).toBeNull();
    await clock(id, { speed: 100 });
    const before = next.state.ms;
    await expect
      .poll(async () => ((await h.api.get(`/api/benches/${id}`)).body as Bench).state.ms)
      .toBeGreaterThan(before);
  });

  it('the same seed and acts give the same log', async () => {
    const logs = [];
    for (const seed of [9, 9, 10])
      logs.push((await bringUp((await lay({ seed, setupId })).id)).log);
    expect(logs[1]).toEqual(logs[0]);
    expect(logs[2]).not.toEqual(logs[0]);
  });

  it("a repeated act is done once, another bench's is refused", async () => {
    const { id } = await ofSetup();
    const actId = randomUUID();
    const first = await act(id, { act: 'mains', on: true }, actId);
    const again = await act(id, { act: 'mains', on: true }, actId);
    expect(again.seq).toBe(first.seq);
    const other = await ofSetup();
    const r = await h.api
      .post(`/api/benches/${other.id}/acts`)
      .send({ id: actId, act: { act: 'mains', on: true } });
    expect(r.status).toBe(409);
  });

  it('parts are put on it one by one', async () => {
    const { id } = await lay();
    const { host, dock, card, cable } = SPECS;
    const whole = { variant: '' };
    const r = await h.api
      .post('/api/parts')
      .send({ id: randomUUID(), kind: 'host', spec: { ...host, model: 'H-9' } });
    await act(id, { act: 'place-host', spec: r.body.spec });
    await act(id, { act: 'place-dock', spec: { ...dock, ...whole } as never });
    await act(id, { act: 'place-card', spec: { ...card, ...whole } as never });
    await act(id, { act: 'place-path', spec: [{ ...cable, ...whole } as never] });
    await act(id, { act: 'card', in: true });
    const up = await bringUp(id);
    expect(up).toMatchObject({
      host: 'Alder H-9',
      dock: 'Alder D-1',
      card: 'Alder C-1',
      state: { stage: 'bound' },
    });
  });

  it('what cannot be is refused with its place', async () => {
    const { id } = await ofSetup();
    const bad = await h.api
      .post(`/api/benches/${id}/acts`)
      .send({ id: randomUUID(), act: { act: 'fault', id: 'gremlins', strength: 1 } });
    expect(bad.status).toBe(422);
    expect(JSON.stringify(bad.body.errors)).toContain('act/id');
    expect((await h.api.post(`/api/benches/${id}/clock`).send({})).status).toBe(422);
    expect(
      (await h.api.post(`/api/benches/${id}/clock`).send({ speed: 1, stepMs: 5 })).status,
    ).toBe(422);
    expect((await h.api.get(`/api/benches/${randomUUID()}`)).status).toBe(404);
    expect((await h.api.post('/api/benches').send({ id: randomUUID(), name: ' ' })).status).toBe(
      422,
    );
    expect((await h.api.get(`/api/benches/${id}/tree`)).body).toMatchObject({
      title: 'No system runs there',
    });
  });
});

describe('BE-03 a bench is read off', () => {
  it('shows nothing without a system, no copy without a driver', async () => {
    const { id } = await ofSetup();
    const read = async () =>
      benchReading.parse((await h.api.post(`/api/benches/${id}/read`).send({})).body);
    expect(await read()).toMatchObject({ report: null, copy: null });
    await bringUp(id);
    const whole = await read();
    expect(whole.report?.routers.map((r) => r.route)).toEqual(['0-0', '0-1']);
    expect(whole.copy?.down).toMatchObject({ unit: 'Gb/s', direction: 'down', memory: 'pinned' });
    expect((await read()).copy?.down.value).not.toBe(whole.copy?.down.value);
    await act(id, { act: 'driver', in: false });
    expect(await read()).toMatchObject({ report: { source: 'probe' }, copy: null });
  });

  it("its tree unpacks from the archive and Debian's lspci reads it", async () => {
    const { id } = await ofSetup();
    await bringUp(id);
    const tar = await h.api
      .get(`/api/benches/${id}/tree.tar`)
      .buffer(true)
      .parse((res, done) => {
        const chunks: Buffer[] = [];
        res.on('data', (c: Buffer) => chunks.push(c));
        res.on('end', () => done(null, Buffer.concat(chunks)));
      });
    expect(tar.headers['content-disposition']).toContain('bench.tar');
    const dir = mkdtempSync(join(tmpdir(), 'tree-'));
    execFileSync('tar', ['-x', '-C', dir], { input: tar.body as Buffer });
    const at = ['-O', `sysfs.path=${join(dir, 'sys/bus/pci')}`, '-A', 'linux-sysfs', '-vvnn'];
    const text = execFileSync('lspci', at, {
      encoding: 'utf8',
      stdio: ['ignore', 'pipe', 'ignore'],
    });
    rmSync(dir, { recursive: true });
    expect(text).toMatch(/VGA compatible controller \[0300\].*\[e0a4:0020\]/);
    expect(text).toContain('Kernel driver in use: benchgfx');
    const files = (await h.api.get(`/api/benches/${id}/tree`)).body as {
      entries: { path: string }[];
    };
    expect(files.entries.map((e) => e.path)).toContain('sys/bus/thunderbolt/devices/0-1');
  });
});

describe('benches in a list', () => {
  it('lists benches of a setup; cleared away they are gone', async () => {
    const { id } = await ofSetup();
    const list = async () =>
      (await h.api.get(`/api/benches?setupId=${setupId}`)).body as { items: Bench[] };
    expect((await list()).items.find((b) => b.id === id)).toMatchObject({
      id,
      setupName: 'Bench',
      state: { stage: 'unplugged' },
    });
    expect((await h.api.delete(`/api/benches/${id}`)).status).toBe(200);
    expect((await list()).items.map((b) => b.id)).not.toContain(id);
    expect(await h.rows('SELECT 1 FROM bench_events WHERE bench_id = $1', [id])).toEqual([]);
  });
});
