import { randomUUID } from 'node:crypto';
import fc from 'fast-check';
import { parse } from 'csv-parse/sync';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import {
  cableSchema,
  EntryJoiner,
  type FilePart,
  PART_KINDS,
  PART_SCHEMAS,
  type PartKind,
  readHeader,
  readRow,
  specOf,
} from '@ruddy/core/parts';
import { unseenCharacter } from '@ruddy/core/base/contract';
import type { ImportRow, Job } from '@ruddy/core/parts/contract';
import { toCsv } from '../src/parts/export';
import { csvOptions } from '../src/platform/files/csv';
import { addPart, demoBundle, start, type Harness } from './harness';

let h: Harness;
beforeAll(async () => {
  h = await start();
});
afterAll(() => h.close());

async function send(
  text: string,
  mode: 'try' | 'store',
  kind: PartKind | null = 'cable',
  wait = true,
): Promise<Job> {
  const query = { mode, name: 'parts.csv', ...(kind && { kind }) };
  const r = await h.api
    .post('/api/imports')
    .query(query)
    .set('content-type', 'text/csv')
    .send(text);
  if (r.status !== 202) throw new Error(JSON.stringify(r.body));
  let job = r.body as Job;
  while (wait && job.state === 'running') {
    await new Promise((resolve) => setTimeout(resolve, 20));
    job = (await h.api.get(`/api/jobs/${job.id}`)).body as Job;
  }
  return job;
}
const rows = async (job: Job, query = '') =>
  (await h.api.get(`/api/jobs/${job.id}/rows${query}`)).body.items as ImportRow[];
const count = async () =>
  (await h.rows<{ n: number }>('SELECT count(*)::int AS n FROM parts'))[0]?.n;
const HEAD = 'maker,model,variant,connector,construction,lengthMm,markedGbps,markedW';
const line = (i: number, length: number | string = 800) =>
  `Mill,M-${i},,usb-c,passive,${length},40,100`;

describe('PA-02 a file of parts', () => {
  it("a look tells every row's outcome and stores nothing", async () => {
    await addPart(h, 'cable', { maker: 'Mill', model: 'M-1', lengthMm: 800, markedW: 100 });
    await addPart(h, 'cable', { maker: 'Mill', model: 'M-2', lengthMm: 500, markedW: 100 });
    const before = await count();
    const text = [
      HEAD,
      line(1),
      line(2),
      line(3),
      line(4, 'long'),
      'Mill,M-5,,usb-c,woven,70000,2.5,100',
      'Mill,M-6,,usb-c,passive,800,2.5,100',
    ].join('\n');
    const job = await send(text, 'try');
    expect(job).toMatchObject({
      state: 'done',
      result: { stored: false, fates: { wrong: 2, asks: 1, new: 1, changed: 1, same: 1 } },
    });
    expect((await rows(job)).map((r) => [r.row, r.fate])).toEqual([
      [2, 'same'],
      [3, 'changed'],
      [4, 'new'],
      [5, 'wrong'],
      [6, 'wrong'],
      [7, 'asks'],
    ]);
    const wrong = await rows(job, '?fate=wrong');
    expect(wrong.flatMap((r) => r.notes.map((n) => [n.row, n.column]))).toEqual([
      [5, 'lengthMm'],
      [6, 'construction'],
    ]);
    expect((await rows(job, '?fate=asks'))[0]?.notes[0]?.what).toContain(
      '2.5 GB/s would be 20 Gb/s',
    );
    expect(await count()).toBe(before);
  });

  it('one wrong row stores nothing; mended, all of it', async () => {
    const before = (await count()) ?? 0;
    const lines = Array.from({ length: 1200 }, (_, i) => line(100 + i));
    const bad = await send([HEAD, ...lines.with(700, line(800, 'long'))].join('\n'), 'store');
    expect(bad).toMatchObject({ state: 'done', result: { stored: false, fates: { wrong: 1 } } });
    expect((await rows(bad, '?fate=wrong'))[0]?.row).toBe(702);
    expect(await count()).toBe(before);
    const text = [HEAD, ...lines].join('\r\n');
    expect(await send(text, 'store')).toMatchObject({
      result: { stored: true, fates: { new: 1200, same: 0 } },
    });
    expect(await count()).toBe(before + 1200);
    expect(await send(text, 'store')).toMatchObject({
      result: { stored: true, fates: { new: 0, changed: 0, same: 1200 } },
    });
    const [part] = await h.rows<{ rev: number; revisions: number }>(
      `SELECT rev, (SELECT count(*)::int FROM part_revisions r WHERE r.part_id = p.id) AS revisions FROM parts p WHERE model = 'M-100'`,
    );
    expect(part).toEqual({ rev: 1, revisions: 1 });
  });

  it('sent again with other values it changes, and keeps the past', async () => {
    await send([HEAD, line(100, 900)].join('\n'), 'store');
    const [part] = await h.rows<{ id: string; rev: number; spec: { lengthMm: number } }>(
      `SELECT id, rev, spec FROM parts WHERE model = 'M-100'`,
    );
    expect([part?.rev, part?.spec.lengthMm]).toEqual([2, 900]);
    const past = (await h.api.get(`/api/parts/${part?.id}/revisions`)).body.items as {
      spec: { lengthMm: number };
    }[];
    expect(past.map((r) => r.spec.lengthMm)).toEqual([900, 800]);
  });

  it('stopped, it takes back what it wrote', async () => {
    const before = await count();
    const job = await send(
      [HEAD, ...Array.from({ length: 20_000 }, (_, i) => line(20_000 + i))].join('\n'),
      'store',
      'cable',
      false,
    );
    await h.api.post(`/api/jobs/${job.id}/cancel`).send({});
    let now = job;
    while (now.state === 'running') now = (await h.api.get(`/api/jobs/${job.id}`)).body as Job;
    expect(now.state).toBe('cancelled');
    expect(await count()).toBe(before);
  });

  it.each([
    ['', 'The file is empty'],
    ['maker,model', 'a header and no rows'],
    ['a,b\n1,2', '"maker" and "model" not found'],
    ['maker,model\n"Mill,M-1', 'Not a CSV file: Quote Not Closed'],
    ['{"format":', 'Not JSON'],
    ['{"format":"other"}', '"format" must be'],
    ['{"format":"ruddy-bridge/bundle","version":1,"parts":[]}', 'holds no parts'],
  ])('%j is refused with a word', async (text, words) => {
    const job = await send(text, 'store');
    expect([job.state, job.message]).toEqual(['failed', expect.stringContaining(words)]);
  });

  it('reads semicolons, tabs, byte-order marks and quoted cells', async () => {
    const job = await send(
      '\ufeffmaker;model;colour;connector\n"Mill; Sons";"M ""9""";red;usb-c',
      'store',
    );
    expect(job.result).toMatchObject({ unknown: ['colour'], fates: { new: 1 } });
    expect(
      await h.rows(`SELECT 1 FROM parts WHERE maker = 'Mill; Sons' AND model = 'M "9"'`),
    ).toHaveLength(1);
    expect(
      (await send('maker\tmodel\tconnector\nMill\tTab\tusb-c', 'store')).result?.fates.new,
    ).toBe(1);
  });

  it('two rows of one part are wrong, missing kinds are asked', async () => {
    const part = await addPart(h, 'cable', { maker: 'Mill', model: 'Twice' });
    const job = await send(
      `id,maker,model,connector\n${part.id},Mill,Other,usb-c\n,Mill,Twice,usb-c`,
      'try',
    );
    expect((await rows(job, '?fate=wrong'))[0]?.notes[0]?.what).toContain('same part as row 2');
    const r = await h.api
      .post('/api/imports')
      .query({ mode: 'try' })
      .set('content-type', 'text/csv')
      .send('maker,model\na,b');
    expect([r.status, r.body.title]).toEqual([400, 'Say which kind of part the file holds']);
    expect(
      (
        await h.api
          .post('/api/imports')
          .query({ mode: 'try' })
          .set('content-type', 'text/plain')
          .send('x')
      ).status,
    ).toBe(415);
  });

  it('a name taken by another part is wrong at its row', async () => {
    const a = await addPart(h, 'cable', { maker: 'Mill', model: 'Left' });
    const b = await addPart(h, 'cable', { maker: 'Mill', model: 'Right' });
    const renamed = `id,maker,model,connector\n${a.id},Mill,Right,usb-c`;
    expect((await rows(await send(renamed, 'store'), '?fate=wrong'))[0]?.notes[0]).toMatchObject({
      column: 'model',
      what: expect.stringContaining('another part here has this name') as string,
    });
    await h.api.patch(`/api/parts/${b.id}`).set('If-Match', '"1"').send({ retired: true });
    expect((await send(renamed, 'store')).result).toMatchObject({
      stored: true,
      fates: { changed: 1 },
    });
    const back = await send(
      `id,maker,model,connector,retired\n${b.id},Mill,Right,usb-c,no`,
      'store',
    );
    expect(back.result).toMatchObject({ stored: false, fates: { wrong: 1 } });
    const twin = (id: string) => ({
      id,
      kind: 'cable',
      spec: { maker: 'Mill', model: 'Twin', connector: 'usb-c' },
    });
    const json = await send(
      JSON.stringify({
        format: 'ruddy-bridge/bundle',
        version: 1,
        parts: [twin('t-1'), twin('t-2')],
      }),
      'store',
      null,
    );
    expect(json.result).toMatchObject({ stored: false, fates: { wrong: 1, new: 1 } });
  });

  it('JSON: bad parts are named, files with setups sent elsewhere', async () => {
    const spec = { maker: 'Mill', model: 'J-1', connector: 'usb-c' };
    const good = { id: 'j-1', kind: 'cable', spec };
    const bundle = (parts: object[], more: object = {}) =>
      JSON.stringify({ format: 'ruddy-bridge/bundle', version: 1, parts, ...more });
    const bad = await send(
      bundle([good, { ...good, id: 'j-2', spec: { ...spec, model: 'J-2', lengthMm: 1 } }]),
      'store',
      null,
    );
    expect(bad.result).toMatchObject({ stored: false, fates: { wrong: 1, new: 1 } });
    expect((await rows(bad, '?fate=wrong'))[0]).toMatchObject({
      row: 2,
      notes: [{ column: 'lengthMm' }],
    });
    expect((await send(bundle([good]), 'store', null)).result).toMatchObject({
      stored: true,
      fates: { new: 1 },
    });
    expect((await send(bundle([good], { setups: [{}] }), 'store', null)).message).toContain(
      'Workshop, Data',
    );
  });
});

describe('PA-02 what goes out comes in again', () => {
  it('any cable survives the file, odd words too', () => {
    const word = fc
      .string({ maxLength: 12, unit: 'grapheme' })
      .map((s) => s.trim())
      .filter((s) => unseenCharacter(s) === null);
    const cable = fc.record({
      maker: word.filter((s) => s !== ''),
      model: word.filter((s) => s !== ''),
      variant: word,
      connector: fc.constant('usb-c'),
      lengthMm: fc.option(fc.integer({ min: 50, max: 60_000 }), { nil: null }),
      markedGbps: fc.option(fc.double({ min: 0.48, max: 120, noNaN: true }), { nil: null }),
      family: word,
    });
    fc.assert(
      fc.property(cable, (given) => {
        const spec = cableSchema.parse(given);
        const text = toCsv('cable', [
          { id: randomUUID(), kind: 'cable', spec, retired: false, sources: {} } satisfies FilePart,
        ]);
        const records: string[][] = parse(text, csvOptions(text.split('\r\n')[0] ?? ''));
        const header = readHeader('cable', records[0] ?? []);
        if (!header.ok) throw new Error(header.why);
        const entry = new EntryJoiner('cable').add(
          readRow('cable', header.header, records[1] ?? [], 2),
        );
        return (
          entry !== null &&
          entry.errors.length === 0 &&
          JSON.stringify(PART_SCHEMAS.cable.parse(specOf(entry, null))) === JSON.stringify(spec)
        );
      }),
      { numRuns: 300 },
    );
  });

  it('a template is an empty file the import reads', async () => {
    for (const kind of PART_KINDS) {
      const r = await h.api.get(`/api/templates/${kind}`);
      expect(r.headers['content-disposition']).toContain(`${kind}-template.csv`);
      const job = await send(r.text, 'try', kind);
      expect([kind, job.state]).toEqual([kind, 'done']);
      expect((await h.api.get(`/api/columns/${kind}`)).body.items.length).toBe(
        r.text.split('\r\n')[0]?.split(',').length,
      );
    }
  });

  // Last: Sequelize's models belong to the database connected last.
  it('every kind of the demo: exported, emptied, imported, exported: equal', async () => {
    const demo = await start({ demo: true });
    try {
      const files = new Map<PartKind, string>();
      for (const kind of PART_KINDS)
        files.set(kind, (await demo.api.get(`/api/export/${kind}`)).text);
      const empty = await start();
      try {
        for (const [kind, text] of files) {
          const r = await empty.api
            .post('/api/imports')
            .query({ kind, mode: 'store' })
            .set('content-type', 'text/csv')
            .send(text);
          let job = r.body as Job;
          while (job.state === 'running')
            job = (await empty.api.get(`/api/jobs/${job.id}`)).body as Job;
          expect([kind, job.state, job.result?.fates.wrong]).toEqual([kind, 'done', 0]);
          expect((await empty.api.get(`/api/export/${kind}`)).text).toBe(text);
        }
        const [n] = await empty.rows<{ n: number }>('SELECT count(*)::int AS n FROM parts');
        expect(n?.n).toBe(demoBundle().parts.length);
      } finally {
        await empty.close();
      }
    } finally {
      await demo.close();
    }
  });
});
