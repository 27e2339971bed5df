import { answers } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { dataContracts } from '@ruddy/core/workshop/contract';
import * as z from 'zod';
import { reportSchema } from '@ruddy/core/bring-up';
import { PART_SCHEMAS } from '@ruddy/core/parts';
import { captureSchema } from '@ruddy/core/runs/contract';
import { bundleSchema } from '@ruddy/core/workshop/contract';
import { VERSION } from './backup/make';
import { notFound } from '../platform/http/problem';
import { implement } from '../platform/http/route';
import { exportBundle } from './bundle-export';
import { loadBundle } from './bundle-load';
import { removeDemo } from './demo';
import { demoReport } from './queries/demo-rows';
import { shareFile, shareReport } from './share';

export const dataRoutes = implement(dataContracts, {
  'GET /api/health': async (_call, s) => {
    const up = await answers().then(
      () => true,
      () => false,
    );
    const word = up ? ('ok' as const) : ('down' as const);
    return {
      status: up ? 200 : 503,
      body: { status: word, database: word, version: VERSION, now: s.now().toISOString() },
    };
  },
  'GET /api/schemas/:name': ({ params }) => {
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
  'GET /api/bundle': async () => ({ body: await exportBundle() }),
  'POST /api/bundle': async ({ body, actor }, s) => ({
    body: await inTransaction(() =>
      loadBundle(body, { origin: 'imported', by: actor.id, now: s.now() }),
    ),
  }),
  'GET /api/setups/:id/share': async ({ params }) => ({ body: await shareReport(params.id) }),
  'GET /api/setups/:id/share-file': async ({ params, query }) => ({
    body: await shareFile(params.id, query.prices),
  }),
  'GET /api/demo': async () => ({ body: await demoReport() }),
  'DELETE /api/demo': async () => ({ body: await removeDemo() }),
});
