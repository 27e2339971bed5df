import { planContracts } from '@ruddy/core/plan/contract';
import { implement } from '../platform/http/route';
import { markInstalled, touchedBy } from './releases';
import { search, listSetups, summarise } from './setup-list';

export const planRoutes = implement(planContracts, {
  'GET /api/releases/:id/setups': async ({ params }, s) => ({
    body: { items: await touchedBy(s, params.id) },
  }),
  'POST /api/setups/:id/installed': async ({ params, body, revision, actor }, s) => {
    const setup = await markInstalled(s, params.id, body, revision, actor);
    return { status: 201, body: setup, etag: setup.rev };
  },
  'GET /api/search': async ({ query }) => ({
    body: { items: await search(query.q, query.limit) },
  }),
  'GET /api/setups': async ({ query }, s) => ({ body: await listSetups(s, query) }),
  'GET /api/setups/summary': async (_call, s) => ({ body: await summarise(s) }),
});
