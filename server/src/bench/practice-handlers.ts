import { practiceContracts } from '@ruddy/core/bench/contract';
import { implement } from '../platform/http/route';
import {
  beginPractice,
  removePractice,
  listPractices,
  namePractice,
  readPractice,
  tryPractice,
} from './practice';

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
