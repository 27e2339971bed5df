import { benchContracts } from '@ruddy/core/bench/contract';
import { implement } from '../platform/http/route';
import { benchArchive, benchFiles, readOff } from './bench-read';
import { createBench, doAct, listBenches, readBench, removeBench, setClock } from './benches';

export const benchRoutes = implement(benchContracts, {
  'GET /api/benches': async ({ query }, s) => ({
    body: { items: await listBenches(s, query.setupId) },
  }),
  'POST /api/benches': async ({ body, actor }, s) => {
    const { bench, fresh } = await createBench(s, body, actor);
    return { status: fresh ? 201 : 200, body: bench };
  },
  'GET /api/benches/:id': async ({ params }, s) => ({ body: await readBench(s, params.id) }),
  'POST /api/benches/:id/acts': async ({ params, body }, s) => ({
    body: await doAct(s, params.id, body),
  }),
  'POST /api/benches/:id/clock': async ({ params, body }, s) => ({
    body: await setClock(s, params.id, body),
  }),
  'POST /api/benches/:id/read': async ({ params }, s) => ({ body: await readOff(s, params.id) }),
  'GET /api/benches/:id/tree': async ({ params }, s) => ({
    body: { entries: await benchFiles(s, params.id) },
  }),
  'GET /api/benches/:id/tree.tar': async ({ params }, s) => ({
    body: await benchArchive(s, params.id),
    file: { name: 'bench.tar', type: 'application/x-tar' },
  }),
  'DELETE /api/benches/:id': async ({ params }, s) => {
    await removeBench(s, params.id);
    return { body: { removed: params.id } };
  },
});
