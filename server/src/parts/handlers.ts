import { columnHelp } from '@ruddy/core/parts';
import { importContracts, partContracts } from '@ruddy/core/parts/contract';
import { inTransaction } from '../platform/db/transaction';
import { implement } from '../platform/http/route';
import { cancelJob, rowOutcomesOf, getJob } from '../platform/jobs/jobs';
import { exportCsv, templateCsv } from './export';
import { startImport } from './imports';
import { createPart, patchMany, patchPart, revisionsOf } from './parts';
import { getPart, listParts } from './queries/part-rows';

const CSV = 'text/csv; charset=utf-8';

/** Files of parts in and out, and the jobs that read them. */
export const importRoutes = implement(importContracts, {
  'POST /api/imports': async ({ query, body, actor }, s) => ({
    status: 202,
    body: await startImport(s, body, query, actor),
    about: `${query.name}${query.mode === 'try' ? ' (looked at only)' : ''}`,
  }),
  'GET /api/jobs/:id': async ({ params }) => ({ body: await getJob(params.id) }),
  'POST /api/jobs/:id/cancel': async ({ params }) => ({
    body: await cancelJob(params.id),
  }),
  'GET /api/jobs/:id/rows': async ({ params, query }) => ({
    body: await rowOutcomesOf(params.id, query),
  }),
  'GET /api/export/:kind': async ({ params, query }) => ({
    body: await exportCsv(params.kind, query.retired),
    file: { name: `${params.kind}s.csv`, type: CSV },
  }),
  'GET /api/templates/:kind': ({ params }) =>
    Promise.resolve({
      body: templateCsv(params.kind),
      file: { name: `${params.kind}-template.csv`, type: CSV },
    }),
  'GET /api/columns/:kind': ({ params }) =>
    Promise.resolve({ body: { items: columnHelp(params.kind) } }),
});

export const partRoutes = implement(partContracts, {
  'GET /api/parts': async ({ query }) => ({ body: await listParts(query) }),
  'GET /api/parts/:id': async ({ params }) => {
    const part = await getPart(params.id);
    return { body: part, etag: part.rev };
  },
  'POST /api/parts': async ({ body, actor }, s) => {
    const fate = await inTransaction(() =>
      createPart(body, { origin: 'own', at: s.now(), by: actor.id }),
    );
    const part = await getPart(body.id);
    return { status: fate === 'stored' ? 201 : 200, body: part, etag: part.rev };
  },
  'PATCH /api/parts/:id': async ({ params, body, revision, actor }, s) => {
    const part = await patchPart(s, params.id, body, revision, actor);
    return { body: part, etag: part.rev };
  },
  'POST /api/parts/bulk': async ({ body, actor }, s) => ({ body: await patchMany(s, body, actor) }),
  'GET /api/parts/:id/revisions': async ({ params }) => ({
    body: { items: await revisionsOf(params.id) },
  }),
});
