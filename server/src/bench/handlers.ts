import { benchContracts, practiceContracts } from '@ruddy/core/bench/contract';
import { implement } from '../platform/http/route';
import { benchArchive, benchFiles, readOff } from './bench-read';
import { createBench, doAct, listBenches, readBench, removeBench, setClock } from './benches';
import {
  beginPractice,
  removePractice,
  listPractices,
  namePractice,
  readPractice,
  tryPractice,
} from './practice';

export const benchRoutes = implement(benchContracts, {
  'GET /api/benches': async ({ query }) => ({
    body: { items: await listBenches(query.setupId) },
  }),
  'POST /api/benches': async ({ body, actor }, s) => {
    const { bench, fresh } = await createBench(s, body, actor);
    return { status: fresh ? 201 : 200, body: bench };
  },
  'GET /api/benches/:id': async ({ params }) => ({ body: await readBench(params.id) }),
  'POST /api/benches/:id/acts': async ({ params, body }) => ({
    body: await doAct(params.id, body),
  }),
  'POST /api/benches/:id/clock': async ({ params, body }) => ({
    body: await setClock(params.id, body),
  }),
  'POST /api/benches/:id/read': async ({ params }) => ({ body: await readOff(params.id) }),
  'GET /api/benches/:id/tree': async ({ params }) => ({
    body: { entries: await benchFiles(params.id) },
  }),
  'GET /api/benches/:id/tree.tar': async ({ params }) => ({
    body: await benchArchive(params.id),
    file: { name: 'bench.tar', type: 'application/x-tar' },
  }),
  'DELETE /api/benches/:id': async ({ params }) => {
    await removeBench(params.id);
    return { body: { removed: params.id } };
  },
});

export const practiceRoutes = implement(practiceContracts, {
  'GET /api/practices': async () => ({ body: await listPractices() }),
  'POST /api/practices': async ({ body, actor }, s) => {
    const { practice, fresh } = await beginPractice(s, body, actor);
    return { status: fresh ? 201 : 200, body: practice };
  },
  'GET /api/practices/:id': async ({ params }) => ({ body: await readPractice(params.id) }),
  'POST /api/practices/:id/tests': async ({ params, body }, s) => ({
    body: await tryPractice(s, params.id, body),
  }),
  'POST /api/practices/:id/named': async ({ params, body }, s) => ({
    body: await namePractice(s, params.id, body.cause),
  }),
  'DELETE /api/practices/:id': async ({ params }) => {
    await removePractice(params.id);
    return { body: { removed: params.id } };
  },
});
