import { randomUUID } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import pg from 'pg';
import { QueryTypes } from 'sequelize';
import { describe, expect, inject, it } from 'vitest';
import { type Chain, chainSchema } from '@ruddy/core/chain';
import { chainKey } from '@ruddy/core/compatibility';
import { bundleSchema } from '@ruddy/core/workshop/contract';
import { connect } from '../src/platform/db/connect';
import { migrate } from '../src/platform/db/migrate';
import { defineModels } from '../src/models';
import { exportBundle } from '../src/workshop/bundle-export';
import { listSetups } from '../src/plan/setup-list';
import { NOW } from './harness';

const DIR = join(import.meta.dirname, 'schemas');

async function within<T>(work: (url: string) => Promise<T>): Promise<T> {
  const admin = connect(inject('adminUrl'));
  const name = `m_${randomUUID().replaceAll('-', '')}`;
  await admin.query(`CREATE DATABASE ${name} OWNER ruddy_owner`);
  try {
    return await work(inject('ownerUrl').replace(/\/postgres$/, `/${name}`));
  } finally {
    await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
    await admin.close();
  }
}

async function restore(url: string, sql: string): Promise<void> {
  const client = new pg.Client(url);
  await client.connect();
  await client.query(sql);
  await client.end();
}

describe('migrations', () => {
  it.each(readdirSync(DIR))(
    'bring the database of %s up to date with nothing lost',
    async (file) => {
      await within(async (url) => {
        const sql = readFileSync(join(DIR, file), 'utf8');
        await restore(url, sql);
        const db = connect(url);
        defineModels(db);
        await migrate(db);
        const bundle = await exportBundle();
        const rows = (table: string) =>
          sql.match(new RegExp(`^INSERT INTO public\\.${table} `, 'gm'))?.length ?? 0;
        expect(rows('setups')).toBeGreaterThan(5);
        expect([bundle.parts.length, bundle.setups.length, bundle.outcomes.length]).toEqual(
          ['parts', 'setups', 'log_entries'].map(rows),
        );
        expect(
          (
            await listSetups(
              { now: () => NOW },
              { limit: 50, retired: true, sort: 'name', dir: 'asc' },
            )
          ).items,
        ).toHaveLength(rows('setups'));
        expect(bundleSchema.safeParse(bundle).error).toBeUndefined();
        const entries = await db.query<{ chain: Chain; chain_key: string | null }>(
          'SELECT chain, chain_key FROM log_entries',
          {
            type: QueryTypes.SELECT,
          },
        );
        for (const e of entries) {
          expect(chainSchema.parse(e.chain)).toEqual(e.chain);
          expect(e.chain_key).toBe(chainKey(e.chain));
        }
        await db.close();
      });
    },
  );

  it('two processes starting at once make one schema', async () => {
    await within(async (url) => {
      const dbs = [connect(url), connect(url)];
      const done = await Promise.all(dbs.map(migrate));
      expect(done.map((d) => d.length).sort()).toEqual([0, 16]);
      const rows = await dbs[0]!.query('SELECT name FROM schema_migrations', {
        type: QueryTypes.SELECT,
      });
      expect(rows).toHaveLength(16);
      await Promise.all(dbs.map((d) => d.close()));
    });
  });

  it('refuses a database of a newer program and changes nothing', async () => {
    await within(async (url) => {
      const db = connect(url);
      await migrate(db);
      await db.query("INSERT INTO schema_migrations (name) VALUES ('9999-later')");
      await db.query("DELETE FROM schema_migrations WHERE name = '0015-stated-figures'");
      await expect(migrate(db)).rejects.toThrow(/newer Ruddy Bridge \(schema 9999-later/);
      const rows = await db.query('SELECT name FROM schema_migrations', {
        type: QueryTypes.SELECT,
      });
      expect(rows).toHaveLength(16);
      await db.close();
    });
  });
});
