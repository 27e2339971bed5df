import * as z from 'zod';
import { flag, uuid } from '@ruddy/core/base/contract';
import { reportSchema } from '@ruddy/core/bring-up';
import { PART_KINDS, PART_SCHEMAS, partKind } from '@ruddy/core/parts';
import { captureSchema } from '@ruddy/core/runs/contract';
import {
  bundleSchema,
  demoReport as demoSchema,
  loadReport,
  shareReportSchema,
} from '@ruddy/core/workshop/contract';
import { VERSION } from './backup/make';
import { notFound } from '../platform/http/problem';
import { route } from '../platform/http/route';
import { exportBundle } from './bundle-export';
import { loadBundle } from './bundle-load';
import { demoReport, removeDemo } from './demo';
import { shareFile, shareReport } from './share';

export const dataRoutes = [
  route({
    method: 'get',
    path: '/api/health',
    summary: 'Is the server there, and its database',
    role: 'anyone',
    response: z.object({
      status: z.enum(['ok', 'down']),
      database: z.enum(['ok', 'down']),
      version: z.string(),
      now: z.string(),
    }),
    handle: async (_call, s) => {
      const up = await s.db.query('SELECT 1').then(
        () => true,
        () => false,
      );
      const word = up ? ('ok' as const) : ('down' as const);
      return {
        status: up ? 200 : 503,
        body: { status: word, database: word, version: VERSION, now: s.now().toISOString() },
      };
    },
  }),
  route({
    method: 'get',
    path: '/api/schemas/:name',
    summary: `JSON Schema of an open format: bundle, report, capture, ${PART_KINDS.join(', ')}`,
    role: 'reader',
    params: z.strictObject({ name: z.union([z.enum(['bundle', 'report', 'capture']), partKind]) }),
    response: z.looseObject({}),
    handle: ({ params }) => {
      const schema = {
        bundle: bundleSchema,
        report: reportSchema,
        capture: captureSchema,
        ...PART_SCHEMAS,
      }[params.name];
      if (!schema) throw notFound('format');
      return Promise.resolve({
        body: z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }),
      });
    },
  }),
  route({
    method: 'get',
    path: '/api/bundle',
    summary: 'Everything as one file',
    role: 'keeper',
    response: bundleSchema,
    handle: async (_call, { db }) => ({ body: await exportBundle(db) }),
  }),
  route({
    method: 'post',
    path: '/api/bundle',
    summary: 'Load a file, whole or not at all',
    role: 'keeper',
    body: bundleSchema,
    bodyLimit: '128mb',
    response: loadReport,
    handle: async ({ body, actor }, s) => ({
      body: await s.db.transaction((t) =>
        loadBundle(s.db, body, { origin: 'imported', by: actor.id, now: s.now() }, t),
      ),
    }),
  }),
  route({
    method: 'get',
    path: '/api/setups/:id/share',
    summary: 'What of a setup would leave with a share file, and what stays here',
    role: 'reader',
    params: z.strictObject({ id: uuid }),
    response: shareReportSchema,
    handle: async ({ params }, s) => ({ body: await shareReport(s, params.id) }),
  }),
  route({
    method: 'get',
    path: '/api/setups/:id/share-file',
    summary: 'A setup with its parts as one file to give away',
    role: 'member',
    params: z.strictObject({ id: uuid }),
    query: z.strictObject({ prices: flag.default(false) }),
    response: bundleSchema,
    handle: async ({ params, query }, s) => ({ body: await shareFile(s, params.id, query.prices) }),
  }),
  route({
    method: 'get',
    path: '/api/demo',
    summary: 'What removing the demo data would do',
    role: 'reader',
    response: demoSchema,
    handle: async (_call, s) => ({ body: await demoReport(s) }),
  }),
  route({
    method: 'delete',
    path: '/api/demo',
    summary: 'Remove the demo data; own data and what it needs stay',
    role: 'keeper',
    response: demoSchema,
    handle: async (_call, s) => ({ body: await removeDemo(s) }),
  }),
];
