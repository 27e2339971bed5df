import { randomUUID } from 'node:crypto';
import { setTimeout } from 'node:timers/promises';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { DEEPEST_JSON, nestsTooDeep } from '@ruddy/core/base';
import type { Job } from '@ruddy/core/parts/contract';
import { bundleValues } from '../src/platform/files/bundle-values';
import { CSV_LIMITS, csvRows } from '../src/platform/files/csv';
import { JSON_LIMITS, jsonValues } from '../src/platform/files/json';
import { MOST_WAITING } from '../src/platform/files/turns';
import { addPart, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

const CSV = 'text/csv';
const JSON_TYPE = 'application/json';
const HEAD = 'maker,model,connector,construction';

function post(body: string | Buffer, type: string, query: object = {}) {
  return h.api
    .post('/api/imports')
    .query({ mode: 'try', kind: 'cable', ...query })
    .set('content-type', type)
    .send(body);
}
async function ended(job: Job): Promise<Job> {
  let now = job;
  while (now.state === 'running') {
    await setTimeout(20);
    now = (await h.api.get(`/api/jobs/${job.id}`)).body as Job;
  }
  return now;
}
const readParts = async (body: string | Buffer, type = CSV, query: object = {}) =>
  ended((await post(body, type, query).expect(202)).body as Job);
const deep = (levels: number) => '['.repeat(levels) + ']'.repeat(levels);
const partsFile = (parts: string) =>
  `{"format":"ruddy-bridge/bundle","version":1,"parts":${parts}}`;
async function all<T>(values: AsyncIterable<T>): Promise<T[]> {
  const found: T[] = [];
  for await (const v of values) found.push(v);
  return found;
}

describe('WS-04 files that are no files of this program', () => {
  const shapes: readonly (readonly [string, string, string, RegExp])[] = [
    ['a line of commas', ','.repeat(3_000_000), CSV, /Line 1 has more than 1,000,000 characters/],
    ['a row of many cells', `a${',b'.repeat(CSV_LIMITS.cells)}`, CSV, /Row 1 has 1001 cells/],
    ['only line ends', '\n'.repeat(3_000_000), CSV, /The file is empty/],
    ['an open quote', `${HEAD}\n"${'a\n'.repeat(600_000)}`, CSV, /Not a CSV file/],
    ['deep brackets', partsFile(`[${deep(5000)}]`), JSON_TYPE, /nests deeper than 100 levels/],
    ['a long list', `[${'0,'.repeat(1_000_000)}0]`, JSON_TYPE, /Not a parts file/],
    ['nothing', '', CSV, /The file is empty/],
    ['half a file', partsFile('[{"id":"a"'), JSON_TYPE, /Not JSON/],
    ['another format', '{"format":"x","parts":[]}', JSON_TYPE, /Not a parts file/],
    ['parts that are no list', partsFile('{"a":{}}'), JSON_TYPE, /holds no parts/],
    [
      'setups too',
      '{"format":"ruddy-bridge/bundle","version":1,"setups":[{}],"parts":[{}]}',
      JSON_TYPE,
      /Load it whole under Workshop, Data/,
    ],
  ];
  it.each(shapes)('%s is refused with the limit or the place', async (_name, body, type, says) => {
    const job = await readParts(body, type);
    expect([job.state, job.result]).toEqual(['failed', null]);
    expect(job.message).toMatch(says);
  });

  it('a value that would fill the memory is given up while reading', async () => {
    const file = () => [`{"junk":[${'0,'.repeat(5000)}0]}`];
    const limits = { ...JSON_LIMITS, tokens: 1000 };
    await expect(all(jsonValues(file, ['$.*'], limits))).rejects.toThrow(/Not saved/);
    const long = () => [`{"a":"${'x'.repeat(5000)}"}`];
    const short = { ...JSON_LIMITS, characters: 1000 };
    await expect(all(jsonValues(long, ['$.*'], short))).rejects.toThrow(/Not saved/);
    expect(await all(jsonValues(long, ['$.*']))).toHaveLength(1);
  });

  it('values come as they are read, wherever a piece ends', async () => {
    const text = partsFile('[{"a":"é\\u00e9😀"},{"a":[1,2.5e1,null]}]');
    for (const size of [1, 2, 3, 7, 1000]) {
      const file = () => text.match(new RegExp(`[^]{1,${size}}`, 'g')) ?? [];
      const of = { name: 'parts file', lists: ['parts'], not: [], notWords: '' };
      expect((await all(bundleValues(file, of))).map((v) => v.value)).toEqual([
        { a: 'éé😀' },
        { a: [1, 25, null] },
      ]);
    }
    const rows = 'a;b\r\n"x\r\ny";2\r\n';
    for (const size of [1, 2, 5]) {
      const file = () => rows.match(new RegExp(`[^]{1,${size}}`, 'g')) ?? [];
      expect(await all(csvRows(file))).toEqual([
        ['a', 'b'],
        ['x\r\ny', '2'],
      ]);
    }
  });
});

describe('encodings', () => {
  const text = `${HEAD}\nMühle,Kabel ä,usb-c,passive\n`;
  const name = async (job: Job) =>
    ((await h.api.get(`/api/jobs/${job.id}/rows`)).body.items as { part: string }[])[0]?.part;

  it('UTF-16 is seen by its first bytes, with a mark or without', async () => {
    for (const file of [`\uFEFF${text}`, text]) {
      const little = Buffer.from(file, 'utf16le');
      expect(await name(await readParts(little))).toBe('Mühle Kabel ä');
      expect(await name(await readParts(Buffer.from(little).swap16()))).toBe('Mühle Kabel ä');
    }
  });

  it('bytes that are not UTF-8 are asked about, with their line', async () => {
    const latin = Buffer.from(text, 'latin1');
    const r = await post(latin, CSV);
    expect([r.status, r.body.errors]).toEqual([
      422,
      [{ path: 'encoding', message: 'Line 2 is not UTF-8. Say which encoding the file has' }],
    ]);
    expect(await name(await readParts(latin, CSV, { encoding: 'windows-1252' }))).toBe(
      'Mühle Kabel ä',
    );
    expect((await post(latin, CSV, { encoding: 'klingon' })).status).toBe(400);
  });
});

describe('several files at once', () => {
  it('are read one after another, and no more than some may wait', async () => {
    const file = `${HEAD}\n${Array.from({ length: 400 }, (_, i) => `M,Q-${i},usb-c,passive`).join('\n')}`;
    const asked = await Promise.all(
      Array.from({ length: MOST_WAITING + 6 }, () => post(file, CSV)),
    );
    const jobs = await Promise.all(
      asked.filter((r) => r.status === 202).map((r) => ended(r.body as Job)),
    );
    expect(jobs.filter((j) => j.state === 'done').length).toBeGreaterThanOrEqual(1);
    for (const j of jobs.filter((x) => x.state !== 'done'))
      expect(j.message).toContain('files of yours are waiting');
  });

  it('work that reports nothing stops when it is asked to', async () => {
    const job = (await post('\n'.repeat(60_000_000), CSV).expect(202)).body as Job;
    await h.api.post(`/api/jobs/${job.id}/cancel`).send({}).expect(200);
    const end = await ended(job);
    expect([end.state, end.message]).toEqual(['cancelled', 'Stopped; nothing saved.']);
    // The thread was ended; the next file has a new one.
    expect((await readParts(`${HEAD}\nM,After,usb-c,passive`)).state).toBe('done');
  });
});

describe('a file of everything', () => {
  const load = (body: string) =>
    h.api.post('/api/bundle-loads?name=all.json').set('content-type', JSON_TYPE).send(body);

  it('is loaded as a job that says what it brought', async () => {
    await addPart(h, 'cable', { model: 'In the file' });
    const whole = (await h.api.get('/api/bundle')).body as object;
    const there = await start();
    try {
      const r = await there.api
        .post('/api/bundle-loads?name=all.json')
        .set('content-type', JSON_TYPE)
        .send(JSON.stringify(whole))
        .expect(202);
      let job = r.body as Job;
      while (job.state === 'running')
        job = (await there.api.get(`/api/jobs/${job.id}`)).body as Job;
      expect([job.state, job.kind, job.result?.loaded?.stored['parts']]).toEqual([
        'done',
        'load',
        1,
      ]);
      expect((await there.api.get('/api/parts')).body.items[0]).toMatchObject({
        spec: { model: 'In the file' },
      });
    } finally {
      await there.close();
    }
  });

  it.each([
    ['{"format":"ruddy-bridge/bundle","version":1,"parts":[],"captures":{"a":1}}', /captures/],
    ['{"format":"ruddy-bridge/bundle","version":1,"parts":[],"captures":[{}]}', /captures\/0/],
    ['{"format":"ruddy-bridge/bundle","version":1,"parts":[],"surprise":1}', /surprise/],
    ['{"format":"ruddy-bridge/bundle","version":1,"parts":[{"id":"\\u0000"}]}', /parts\/0\/id/],
    [' ', /The file is empty/],
  ])('%s is refused with its place', async (body, says) => {
    const job = await ended((await load(body).expect(202)).body as Job);
    expect([job.state, job.result]).toEqual(['failed', null]);
    expect(job.message).toMatch(says);
  });
});

describe('JSON that nests', () => {
  it('is looked at before parsing; brackets in words do not count', () => {
    const bytes = (s: string) => new TextEncoder().encode(s);
    expect(nestsTooDeep(bytes(deep(DEEPEST_JSON)))).toBe(false);
    expect(nestsTooDeep(bytes(deep(DEEPEST_JSON + 1)))).toBe(true);
    expect(nestsTooDeep(bytes(`{"a":"${'['.repeat(500)}\\"${'{'.repeat(500)}"}`))).toBe(false);
    expect(nestsTooDeep(bytes(`{"a":"\\\\",${'"b":['.repeat(500)}`))).toBe(true);
  });

  it('is refused with the limit on every route that takes a body', async () => {
    const id = randomUUID();
    const routes = [
      'parts',
      'setups',
      'feeds',
      'loans',
      'benches',
      'claims',
      'register',
      'members',
      `setups/${id}/readings`,
      'reports',
    ];
    for (const route of routes) {
      const r = await h.api
        .post(`/api/${route}`)
        .set('content-type', JSON_TYPE)
        .send(`{"a":${deep(1500)}}`);
      expect([route, r.status, r.body.detail]).toEqual([
        route,
        400,
        'The body nests deeper than 100 levels',
      ]);
    }
  });
});
