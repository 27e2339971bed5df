import { inTransaction } from '../platform/db/transaction';
import { partContracts } from '@ruddy/core/parts/contract';
import { implement } from '../platform/http/route';
import { getPart, listParts } from './queries/part-rows';
import { createPart, patchMany, patchPart, revisionsOf } from './parts';

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
