import { randomUUID } from 'node:crypto';
import {
  appendFile,
  mkdtemp,
  readdir,
  readFile,
  rm,
  stat,
  truncate,
  writeFile,
} from 'node:fs/promises';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { BackupList, BackupRow, RestoreReport } from '@ruddy/core/workshop/contract';
import { connect } from '../src/platform/db/connect';
import { listPlace } from '../src/workshop/backup/store';
import { backUpIfDue } from '../src/workshop/backups';
import { exportBundle } from '../src/workshop/bundle-export';
import { giveKeeper } from '../src/workshop/members';
import { addPart, addSetup, NOW, start, type Harness } from './harness';

let h: Harness;
let dir: string;
beforeAll(async () => {
  dir = await mkdtemp(join(tmpdir(), 'ruddy-backups-'));
  h = await start({ demo: true }, (url, restoreUrl) => ({
    backups: { dir, bin: null, url, restoreUrl },
  }));
});
afterAll(async () => {
  await h.close();
  await rm(dir, { recursive: true, force: true });
});

const make = async () => (await h.api.post('/api/backups').send({})).body as BackupRow;
const list = async () => (await h.api.get('/api/backups')).body as BackupList;
const check = (name: string) => h.api.post(`/api/backups/${name}/check`).send({});
const restore = (name: string) => h.api.post(`/api/backups/${name}/restore`).send({});

describe('a backup', () => {
  it('holds everything, can be tried, and brings everything back', async () => {
    await h.api
      .post('/api/members')
      .send({ id: randomUUID(), name: 'Kept', password: 'a heron in the reeds' })
      .expect(201);
    const before = await exportBundle();
    const row = await make();
    expect(row.note?.counts).toMatchObject({
      setups: before.setups.length,
      parts: before.parts.length,
      runs: before.runs.length,
    });
    const tried = (await check(row.name)).body as BackupRow;
    expect(tried.note?.checked).toMatchObject({
      ok: true,
      words: expect.stringMatching(/^\d+ rows came back$/),
    });

    const later = await addSetup(h, 'Made later');
    await h.api.delete('/api/demo').expect(200);
    const done = (await restore(row.name)).body as RestoreReport;
    const { audit_events: trail, ...counts } = row.note!.counts;
    expect(done).toMatchObject({ restored: row.name, counts });
    // What was done after the backup stays on record.
    expect(done.counts['audit_events']).toBe(trail! + 3);
    const acts = (await h.api.get('/api/audit')).body.items.map((e: { act: string }) => e.act);
    expect(acts.slice(0, 2)).toEqual(['POST /api/backups/:name/restore', 'DELETE /api/demo']);
    expect(await exportBundle()).toEqual(before);
    expect((await h.api.get(`/api/setups/${later.id}`)).status).toBe(404);
    // Facts are as append-only as before, and new ones go on with the next number.
    await expect(h.rows(`UPDATE events SET body = '{}'`)).rejects.toThrow(/append-only/);
    const fresh = await addSetup(h, 'After it');
    expect((await h.api.get(`/api/setups/${fresh.id}/record`)).body.items).toHaveLength(1);

    // The way back: what was there before the restore.
    expect((await list()).items.find((b) => b.name === done.safety)?.note?.why).toBe(
      'before-restore',
    );
    await restore(done.safety).expect(200);
    expect((await h.api.get(`/api/setups/${later.id}`)).body.name).toBe('Made later');
  });

  it('of damaged or shortened bytes is found out, and changes nothing', async () => {
    const row = await make();
    const file = join(dir, row.name);
    const before = await exportBundle();
    await appendFile(file, 'x');
    expect(((await check(row.name)).body as BackupRow).note?.checked).toMatchObject({
      ok: false,
      words: 'The file is not as it was written',
    });
    const refused = await restore(row.name);
    expect([refused.status, refused.body.detail]).toEqual([
      409,
      'Nothing changed. The file is not as it was written',
    ]);
    // Without its note the file itself is what is looked at.
    await truncate(file, Math.floor((await stat(file)).size / 2));
    await rm(`${file}.json`);
    expect((await restore(row.name)).status).toBe(409);
    await writeFile(file, 'this is no backup');
    expect((await restore(row.name)).status).toBe(409);
    expect(await exportBundle()).toEqual(before);
    const left = await h.rows<{ n: number }>(
      `SELECT count(*)::int AS n FROM pg_database WHERE datname LIKE 'ruddy_check_%'`,
    );
    expect(left).toEqual([{ n: 0 }]);
    await h.api.delete(`/api/backups/${row.name}`).expect(200);
  });

  it('missing rows or a newer version fail the try', async () => {
    const row = await make();
    const note = JSON.parse(await readFile(join(dir, `${row.name}.json`), 'utf8'));
    await writeFile(
      join(dir, `${row.name}.json`),
      JSON.stringify({ ...note, counts: { ...note.counts, parts: note.counts.parts + 1 } }),
    );
    expect(((await check(row.name)).body as BackupRow).note?.checked?.words).toMatch(
      /^Not all came back: parts: \d+ of \d+$/,
    );
    await h.rows(`INSERT INTO schema_migrations (name) VALUES ('9999-from-later') RETURNING name`);
    const newer = await make();
    await h.rows(`DELETE FROM schema_migrations WHERE name = '9999-from-later' RETURNING name`);
    expect((await restore(newer.name)).body.detail).toBe(
      'Nothing changed. It was made by a newer version of this program',
    );
  });

  it('sees one moment, whatever is written meanwhile', async () => {
    const writing = Promise.all(
      Array.from({ length: 12 }, (_, i) => addPart(h, 'cable', { model: `During ${i}` })),
    );
    const row = await make();
    await writing;
    expect(((await check(row.name)).body as BackupRow).note?.checked?.ok).toBe(true);
  });

  it('is readable by this user alone and leaves no halves', async () => {
    const row = await make();
    expect((await stat(dir)).mode & 0o777).toBe(0o700);
    expect((await stat(join(dir, row.name))).mode & 0o077).toBe(0);
    expect((await readdir(dir)).filter((n) => /\.(part|sql)$/.test(n))).toEqual([]);
    const file = await h.api.get(`/api/backup-file?name=${row.name}`).buffer();
    expect(file.headers['content-disposition']).toContain(row.name);
    expect(Number(file.headers['content-length'] ?? (file.body as Buffer).length)).toBe(row.bytes);
  });

  it('is reached by the names of the list alone', async () => {
    for (const name of [
      '..%2f..%2fetc%2fpasswd',
      'ruddy-20260101-000000-abcdef.dump%00',
      'x.dump',
      '..',
      'ruddy-20260101-000000-abcdef.dump.json',
    ]) {
      expect([name, (await h.api.get(`/api/backup-file?name=${name}`)).status]).toEqual([
        name,
        400,
      ]);
      expect([
        name,
        (await h.api.post(`/api/backups/${name}/restore`).send({})).status >= 400,
      ]).toEqual([name, true]);
    }
    expect((await restore('ruddy-20260101-000000-abcdef.dump')).status).toBe(404);
  });
});

describe('by plan', () => {
  it('is made when due and tried; the oldest are removed', async () => {
    const s = {
      now: () => h.clock.now,
      backups: { dir, bin: null, url: h.url, restoreUrl: h.restoreUrl },
    };
    const asked = (await listPlace(dir)).filter((b) => b.note?.why !== 'schedule').length;
    const { plan } = await list();
    expect(plan).toEqual({ everyHours: 24, keep: 14, rev: 0 });
    await h.api
      .put('/api/backups/plan')
      .set('If-Match', '"0"')
      .send({ everyHours: 6, keep: 2 })
      .expect(200);
    expect(
      (await h.api.put('/api/backups/plan').set('If-Match', '"0"').send({ everyHours: 0, keep: 2 }))
        .status,
    ).toBe(422);
    h.clock.now = new Date(NOW.getTime() + 5 * 3_600_000);
    expect(await backUpIfDue(s)).toBe('not-due');
    for (let i = 1; i <= 3; i++) {
      h.clock.now = new Date(NOW.getTime() + 6 * i * 3_600_000);
      // Two processes at once make one.
      expect((await Promise.all([backUpIfDue(s), backUpIfDue(s)])).sort()).toEqual([
        'made',
        'not-due',
      ]);
    }
    const all = await listPlace(dir);
    const planned = all.filter((b) => b.note?.why === 'schedule');
    expect(planned.map((b) => [b.note?.madeAt, b.note?.checked?.ok])).toEqual([
      [new Date(NOW.getTime() + 18 * 3_600_000).toISOString(), true],
      [new Date(NOW.getTime() + 12 * 3_600_000).toISOString(), true],
    ]);
    expect(all.length - planned.length).toBe(asked);
    h.clock.now = NOW;
  });
});

describe('beyond this machine', () => {
  it('a backup in which nobody could sign in is not restored', async () => {
    const away = await mkdtemp(join(tmpdir(), 'ruddy-backups-'));
    const s = await start({ access: { secure: false } }, (url, restoreUrl) => ({
      backups: { dir: away, bin: null, url, restoreUrl },
    }));
    const { backUpNow, restoreNamed } = await import('../src/workshop/backups');
    const services = {
      now: () => s.clock.now,
      access: { secure: false },
      backups: { dir: away, bin: null, url: s.url, restoreUrl: s.restoreUrl },
    };
    const never = new AbortController().signal;
    const row = await backUpNow(services, never);
    await expect(restoreNamed(services, row.name, never)).rejects.toMatchObject({
      more: { detail: expect.stringContaining('nobody could sign in') },
    });
    await giveKeeper(services, randomUUID(), 'Keeper K', 'fen mist over the dyke');
    // The database has a keeper now; the backup still has none.
    await expect(restoreNamed(services, row.name, never)).rejects.toMatchObject({
      more: { detail: expect.stringContaining('nobody could sign in') },
    });
    const next = await backUpNow(services, never);
    await expect(restoreNamed(services, next.name, never)).resolves.toMatchObject({
      restored: next.name,
    });
    // Who goes away while it is made leaves nothing behind.
    const gone = new AbortController();
    const made = backUpNow(services, gone.signal);
    setTimeout(() => gone.abort(), 5);
    await expect(made).rejects.toThrow();
    expect((await readdir(away)).filter((n) => n.endsWith('.part'))).toEqual([]);
    await s.close();
    await rm(away, { recursive: true, force: true });
  });
});

const REFUSED = /permission denied|must be superuser/;

describe('the roles of the database', () => {
  it.each(['url', 'restoreUrl'] as const)(
    '%s runs no program and reads no file there',
    async (as) => {
      const db = connect(h[as]);
      try {
        await expect(db.query(`COPY (SELECT 1) TO PROGRAM 'cat'`)).rejects.toThrow(REFUSED);
        await expect(db.query(`COPY members FROM '/etc/passwd'`)).rejects.toThrow(REFUSED);
        await expect(db.query('CREATE ROLE somebody')).rejects.toThrow(REFUSED);
        await expect(db.query('ALTER SYSTEM SET work_mem = 1')).rejects.toThrow(REFUSED);
      } finally {
        await db.close();
      }
    },
  );

  it('the one of the server makes no databases, that of restores does', async () => {
    const owner = connect(h.url);
    const restorer = connect(h.restoreUrl);
    const name = `t_made_${randomUUID().replaceAll('-', '')}`;
    try {
      await expect(owner.query(`CREATE DATABASE ${name}`)).rejects.toThrow(REFUSED);
      await restorer.query(`CREATE DATABASE ${name}`);
      await restorer.query(`DROP DATABASE ${name}`);
    } finally {
      await owner.close();
      await restorer.close();
    }
  });
});
