import { randomUUID } from 'node:crypto';
import { readFileSync } from 'node:fs';
import express, { type Express } from 'express';
import { pino } from 'pino';
import { QueryTypes, type Sequelize } from 'sequelize';
import request from 'supertest';
import { inject } from 'vitest';
import type { Part } from '@ruddy/core/parts/contract';
import type { Setup } from '@ruddy/core/setups/contract';
import { type Bundle, bundleSchema } from '@ruddy/core/workshop/contract';
import { createApp } from '../src/app';
import { connect } from '../src/platform/db/connect';
import { defineModels } from '../src/models';
import type { Names } from '../src/platform/http/guard';
import type { Services } from '../src/platform/http/route';
import { Streams } from '../src/platform/streams/streams';
import { SPECS } from './specs';
import { DEMO_FILE } from '../../scripts/lib/paths.mjs';

export const NOW = new Date('2026-11-20T18:00:00.000Z');

export interface Harness {
  db: Sequelize;
  /** Address of its database. */
  url: string;
  /** The same database as a restore comes in. */
  restoreUrl: string;
  app: Express;
  api: ReturnType<typeof request>;
  clock: { now: Date };
  rows<T extends object>(sql: string, bind?: unknown[]): Promise<T[]>;
  close(): Promise<void>;
}

export interface Start extends Partial<Services> {
  names?: Names;
  /** Copy the database that holds the demo data, loaded at its first start. */
  demo?: boolean;
}

/** The real application over a database of its own, copied from a template. */
export async function start(
  more: Start = {},
  withUrl: (url: string, restoreUrl: string) => Partial<Services> = () => ({}),
): Promise<Harness> {
  const { names, demo, ...services } = more;
  const admin = connect(inject('adminUrl'));
  const name = `t_${randomUUID().replaceAll('-', '')}`;
  await admin.query(
    `CREATE DATABASE ${name} OWNER ruddy_owner TEMPLATE ${demo ? 'ruddy_demo_template' : 'ruddy_template'}`,
  );
  const url = inject('ownerUrl').replace(/\/postgres$/, `/${name}`);
  const restoreUrl = inject('restoreUrl').replace(/\/postgres$/, `/${name}`);
  const db = connect(url);
  defineModels(db);
  const clock = { now: NOW };
  const grounds = { db, now: () => clock.now };
  const streams = new Streams(grounds, url);
  const app = createApp(
    {
      ...grounds,
      streams,
      threads: inject('threads'),
      databaseUrl: url,
      ...services,
      ...withUrl(url, restoreUrl),
    },
    { webDir: null, logger: pino({ level: 'silent' }), ...(names && { names }) },
  );
  // A process works on one database at a time; here each request makes its own the one.
  const bound = express();
  bound.use((_req, _res, next) => {
    defineModels(db);
    next();
  });
  bound.use(app);
  return {
    db,
    url,
    restoreUrl,
    app,
    api: request(bound),
    clock,
    rows: <T extends object>(sql: string, bind: unknown[] = []) =>
      db.query<T>(sql, { type: QueryTypes.SELECT, bind }),
    async close() {
      await streams.close();
      await db.close();
      await admin.query(`DROP DATABASE ${name} WITH (FORCE)`);
      await admin.close();
    },
  };
}

/** The demo bundle as it ships. */
export function demoBundle(): Bundle {
  return bundleSchema.parse(JSON.parse(readFileSync(DEMO_FILE, 'utf8')));
}

export { SPECS };

/** Add a part and give it back. */
export async function addPart(
  h: Harness,
  kind: keyof typeof SPECS,
  over: object = {},
): Promise<Part> {
  const r = await h.api
    .post('/api/parts')
    .send({ id: randomUUID(), kind, spec: { ...SPECS[kind], ...over } });
  if (r.status !== 201) throw new Error(JSON.stringify(r.body));
  return r.body as Part;
}

/** A setup with all parts, and its parts. */
export async function addSetup(h: Harness, name = 'Bench', over: object = {}): Promise<Setup> {
  const [host, cable, dock, card] = await Promise.all([
    addPart(h, 'host', { model: `H ${name}` }),
    addPart(h, 'cable', { model: `K ${name}` }),
    addPart(h, 'dock', { model: `D ${name}` }),
    addPart(h, 'card', { model: `C ${name}` }),
  ]);
  const slots = {
    host: host.id,
    socket: 'left',
    path: [cable.id],
    dock: dock.id,
    card: card.id,
    ...over,
  };
  const r = await h.api.post('/api/setups').send({ id: randomUUID(), name, slots });
  if (r.status !== 201) throw new Error(JSON.stringify(r.body));
  return r.body as Setup;
}
