import { mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { randomUUID } from 'node:crypto';
import { pino } from 'pino';
import request from 'supertest';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { createApp } from '../src/app';
import { addPart, addSetup, NOW, start, type Harness } from './harness';

let h: Harness;
let web: ReturnType<typeof request>;
const dir = mkdtempSync(join(tmpdir(), 'rb-pages-'));

beforeAll(async () => {
  h = await start();
  const built = {
    'index.html': '<!doctype html><head><title>page</title></head><body></body>',
    'main-ABCD1234.js': 'import{a}from"./chunk-a_-B1234.js";import("./plan-page-PLAN1234.js");',
    'chunk-a_-B1234.js': 'export const a=1;',
    'chunk-PLAN1234.js': 'import"./chunk-a_-B1234.js";',
    'setup-frame-FRAM1234.js': 'export{};',
    'plan-page-PLAN1234.js': 'import{b}from"./chunk-PLAN1234.js";',
    'parts-page-PART1234.js': 'export{};',
  };
  for (const [name, text] of Object.entries(built)) writeFileSync(join(dir, name), text);
  web = request(createApp({ now: () => NOW }, { webDir: dir, logger: pino({ level: 'silent' }) }));
});
afterAll(async () => {
  await h.close();
  rmSync(dir, { recursive: true });
});

describe('the pages', () => {
  it('every address of the pages gets the page, asked for anew', async () => {
    for (const path of ['/', '/setups', `/setups/${randomUUID()}/plan`, '/parts/host']) {
      const r = await web.get(path);
      expect([r.status, r.headers['cache-control']]).toEqual([200, 'no-cache']);
      expect(r.text).toContain('<title>page');
      expect(r.text).toContain(`<meta name="server-time" content="${NOW.toISOString()}">`);
    }
  });

  it('a page names all scripts that it runs', async () => {
    const ahead = async (path: string) =>
      [...(await web.get(path)).text.matchAll(/rel="modulepreload" href="\/([^"]+)"/g)].map(
        (m) => m[1],
      );
    const first = ['main-ABCD1234.js', 'chunk-a_-B1234.js'];
    expect(await ahead('/')).toEqual(first);
    expect(await ahead('/parts/host')).toEqual([...first, 'parts-page-PART1234.js']);
    expect(await ahead('/setups/3f/plan')).toEqual([
      ...first,
      'setup-frame-FRAM1234.js',
      'plan-page-PLAN1234.js',
      'chunk-PLAN1234.js',
    ]);
  });

  it('built files stay cached; a missing one is a 404', async () => {
    for (const file of ['/main-ABCD1234.js', '/chunk-a_-B1234.js'])
      expect((await web.get(file)).headers['cache-control']).toContain('immutable');
    const gone = await web.get('/chunk-GONE1234.js');
    expect([gone.status, gone.type]).toEqual([404, 'application/problem+json']);
  });

  it('no path leads out, and the API never answers pages', async () => {
    for (const path of ['/..%2f..%2fetc%2fpasswd', '/%2e%2e/%2e%2e/package.json', '/.env']) {
      const r = await web.get(path);
      expect(r.text).not.toMatch(/root:|"dependencies"/);
    }
    expect((await web.get('/api/nothing')).type).toBe('application/problem+json');
  });
});

describe('words that look like something else', () => {
  it.each([
    "Robert'); DROP TABLE parts;--",
    '<img src=x onerror=alert(1)>',
    '${7*7}',
    '=1+1',
    'ÄÖÜ ß 漢字 🌉',
  ])('%s is stored and given back as it is', async (name) => {
    const s = await addSetup(h, `w ${randomUUID().slice(0, 6)}`);
    const r = await h.api.patch(`/api/setups/${s.id}`).set('If-Match', '"1"').send({ name });
    expect(r.body.name).toBe(name);
    const found = await h.api.get('/api/setups').query({ q: name });
    expect((found.body.items as { name: string }[]).map((x) => x.name)).toContain(name);
    expect(found.type).toBe('application/json');
  });

  it.each([
    ['\u202Edrow', 'U+202E'],
    ['Fen\u200Bland', 'U+200B'],
    ['Fen\u001B[31m', 'U+001B'],
  ])('%j is refused with its place', async (name, code) => {
    const r = await h.api.post('/api/setups').send({ id: randomUUID(), name });
    expect([r.status, r.body.errors[0].path]).toEqual([422, 'name']);
    expect(r.body.detail).toContain(`cannot be seen (${code})`);
  });

  it('the same letters are one name, and found however they are typed', async () => {
    const s = await addSetup(h, 'Zu\u0308rich am Moor');
    expect(s.name).toBe('Z\u00FCrich am Moor');
    for (const q of ['Z\u00FCrich', 'Zu\u0308rich']) {
      const found = await h.api.get('/api/setups').query({ q });
      expect((found.body.items as { id: string }[]).map((x) => x.id)).toContain(s.id);
    }
  });

  it('a null character is refused, not a crash', async () => {
    const r = await h.api.post('/api/setups').send({ id: randomUUID(), name: 'a\u0000b' });
    expect(r.status).toBe(422);
    expect(r.body.errors[0].path).toBe('name');
    expect((await h.api.get('/api/search').query({ q: 'a\u0000' })).status).toBe(400);
    const half = await h.api
      .post('/api/setups')
      .type('application/json')
      .send(`{"id":"${randomUUID()}","name":"\\ud83c"}`);
    expect(half.body.errors[0].path).toBe('name');
  });
});

describe('many at once', () => {
  it('twenty edits of one part: one wins each revision', async () => {
    const part = await addPart(h, 'cable', { model: 'contended' });
    const sent = await Promise.all(
      Array.from({ length: 20 }, (_, i) =>
        h.api
          .patch(`/api/parts/${part.id}`)
          .set('If-Match', '"1"')
          .send({ spec: { lengthMm: 500 + i } }),
      ),
    );
    const codes = sent.map((r) => r.status);
    expect(codes.filter((c) => c === 200)).toHaveLength(1);
    expect(codes.filter((c) => c === 412)).toHaveLength(19);
    expect((await h.api.get(`/api/parts/${part.id}`)).body.rev).toBe(2);
  });

  it('the same part sent ten times at once is stored once', async () => {
    const body = {
      id: randomUUID(),
      kind: 'card',
      spec: { maker: 'Alder', model: 'burst', pcieGen: 4, lanes: 16 },
    };
    const sent = await Promise.all(
      Array.from({ length: 10 }, () => h.api.post('/api/parts').send(body)),
    );
    expect(sent.filter((r) => r.status === 201)).toHaveLength(1);
    expect(sent.every((r) => [200, 201, 409].includes(r.status))).toBe(true);
    expect(await h.rows('SELECT 1 FROM parts WHERE id = $1', [body.id])).toHaveLength(1);
  });
});
