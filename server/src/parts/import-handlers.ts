import * as z from 'zod';
import { flag, uuid } from '@ruddy/core/base/contract';
import { columnHelp, partKind } from '@ruddy/core/parts';
import { importRowPage, importRowQuery, importQuery, jobSchema } from '@ruddy/core/parts/contract';
import { HttpProblem } from '../platform/http/problem';
import { route } from '../platform/http/route';
import { exportCsv, templateCsv } from './export';
import { startImport } from './imports';
import { cancelJob, rowOutcomesOf, getJob } from '../platform/jobs/jobs';

const byId = z.strictObject({ id: uuid });
const byKind = z.strictObject({ kind: partKind });
const CSV = 'text/csv; charset=utf-8';

/** Files of parts in and out, and the jobs that read them. */
export const importRoutes = [
  route({
    method: 'post',
    path: '/api/imports',
    summary:
      'Look at a file of parts, or store it: all of it or nothing. CSV of one kind, or JSON in the format of the bundle',
    role: 'member',
    query: importQuery,
    text: ['text/csv', 'application/json'],
    body: z.string(),
    bodyLimit: '64mb',
    response: jobSchema,
    handle: async ({ query, body, actor }, s) => {
      const csv = !/^\s*[{[]/.test(body);
      if (csv && query.kind === undefined)
        throw new HttpProblem(400, 'Say which kind of part the file holds');
      const file = {
        text: body,
        kind: query.kind,
        name: query.name,
        store: query.mode === 'store',
      };
      return { status: 202, body: await startImport(s, file, actor) };
    },
  }),
  route({
    method: 'get',
    path: '/api/jobs/:id',
    summary: 'How far long work is',
    role: 'reader',
    params: byId,
    response: jobSchema,
    handle: async ({ params }, { db }) => ({ body: await getJob(db, params.id) }),
  }),
  route({
    method: 'post',
    path: '/api/jobs/:id/cancel',
    summary: 'Ask long work to stop; what it wrote is taken back',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: jobSchema,
    handle: async ({ params }, { db }) => ({ body: await cancelJob(db, params.id) }),
  }),
  route({
    method: 'get',
    path: '/api/jobs/:id/rows',
    summary: 'What becomes of each row of a file',
    role: 'reader',
    params: byId,
    query: importRowQuery,
    response: importRowPage,
    handle: async ({ params, query }, { db }) => ({
      body: await rowOutcomesOf(db, params.id, query),
    }),
  }),
  route({
    method: 'get',
    path: '/api/export/:kind',
    summary: 'Parts of a kind as CSV, as the import takes it',
    role: 'reader',
    params: byKind,
    query: z.strictObject({ retired: flag.default(true) }),
    response: z.string(),
    handle: async ({ params, query }, { db }) => ({
      body: await exportCsv(db, params.kind, query.retired),
      file: { name: `${params.kind}s.csv`, type: CSV },
    }),
  }),
  route({
    method: 'get',
    path: '/api/templates/:kind',
    summary: 'A CSV to fill: its columns and one row begun',
    role: 'reader',
    params: byKind,
    response: z.string(),
    handle: ({ params }) =>
      Promise.resolve({
        body: templateCsv(params.kind),
        file: { name: `${params.kind}-template.csv`, type: CSV },
      }),
  }),
  route({
    method: 'get',
    path: '/api/columns/:kind',
    summary: 'The columns of a CSV of a kind, in words',
    role: 'reader',
    params: byKind,
    response: z.object({ items: z.array(z.object({ column: z.string(), what: z.string() })) }),
    handle: ({ params }) => Promise.resolve({ body: { items: columnHelp(params.kind) } }),
  }),
];
