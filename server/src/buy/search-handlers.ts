import { searchContracts } from '@ruddy/core/buy/contract';
import { implement } from '../platform/http/route';
import { machinesFor, scoutGroundsFor } from './scout-input';
import { runScout } from './scout-run';
import { createSearch, listSearches, patchSearch, removeSearch } from './searches';

export const scoutRoutes = implement(searchContracts, {
  'POST /api/scout/grounds': async ({ body }, s) => ({ body: await scoutGroundsFor(s, body) }),
  'POST /api/scout': async ({ body }, s) => {
    const began = performance.now();
    const { input, outright } = await scoutGroundsFor(s, body);
    const { result } = await runScout(s, input, body.pins);
    return {
      body: {
        result,
        outright: [...outright] as unknown as { kind: string }[],
        ms: performance.now() - began,
      },
    };
  },
  'POST /api/scout/machines': async ({ body }, s) => ({
    body: { items: await machinesFor(s, body.frames, body.currency) },
  }),
  'GET /api/searches': async () => ({ body: { items: await listSearches() } }),
  'POST /api/searches': async ({ body, actor }, s) => {
    const { search, fresh } = await createSearch(s, body, actor);
    return { status: fresh ? 201 : 200, body: search, etag: search.rev };
  },
  'PATCH /api/searches/:id': async ({ params, body, revision }) => {
    const search = await patchSearch(params.id, body, revision);
    return { body: search, etag: search.rev };
  },
  'DELETE /api/searches/:id': async ({ params }) => {
    await removeSearch(params.id);
    return { body: { removed: true } };
  },
});
