import { catalogueContracts, searchContracts } from '@ruddy/core/buy/contract';
import { createItem, getItem, itemsOf, noteFact, patchItem } from '../parts/items';
import { register } from '../parts/queries/item-rows';
import { inTransaction } from '../platform/db/transaction';
import { refuseFuture } from '../platform/http/problem';
import { implement } from '../platform/http/route';
import {
  addPrice,
  addRate,
  costGroundsFor,
  listRates,
  pricesOf,
  withdrawPrice,
  withdrawRate,
} from './prices';
import { machinesFor, scoutGroundsFor } from './scout-input';
import { runScout } from './scout-run';
import { createSearch, listSearches, patchSearch, removeSearch } from './searches';

/** Pieces, prices, rates, the cable register and what a plan costs. */
export const catalogueRoutes = implement(catalogueContracts, {
  'GET /api/parts/:id/items': async ({ params }) => ({
    body: { items: await itemsOf(params.id) },
  }),
  'POST /api/items': async ({ body, actor }, s) => {
    const fate = await inTransaction(() =>
      createItem(body, { origin: 'own', at: s.now(), by: actor.id }),
    );
    const item = await getItem(body.id);
    return { status: fate === 'stored' ? 201 : 200, body: item, etag: item.rev };
  },
  'PATCH /api/items/:id': async ({ params, body, revision }) => {
    const item = await patchItem(params.id, body, revision);
    return { body: item, etag: item.rev };
  },
  'POST /api/item-facts': async ({ body, actor }, s) => ({
    status: 201,
    body: await noteFact(s, body, actor),
  }),
  'GET /api/cables': async () => ({ body: { items: await register() } }),
  'GET /api/parts/:id/prices': async ({ params }) => ({
    body: { items: await pricesOf(params.id) },
  }),
  'POST /api/prices': async ({ body, actor }, s) => {
    refuseFuture('onDate', body.onDate, s.now());
    await inTransaction(() => addPrice(body, { origin: 'own', at: s.now(), by: actor.id }));
    return { status: 201, body: { items: await pricesOf(body.partId) } };
  },
  'DELETE /api/prices/:id': async ({ params }, s) => {
    await withdrawPrice(s, params.id);
    return { body: { done: true as const } };
  },
  'GET /api/rates': async () => ({ body: { items: await listRates() } }),
  'POST /api/rates': async ({ body, actor }, s) => {
    refuseFuture('onDate', body.onDate, s.now());
    await addRate(body, { origin: 'own', at: s.now(), by: actor.id });
    return { status: 201, body: { items: await listRates() } };
  },
  'DELETE /api/rates/:id': async ({ params }, s) => {
    await withdrawRate(s, params.id);
    return { body: { done: true as const } };
  },
  'POST /api/cost': async ({ body }, s) => ({ body: await costGroundsFor(s, body) }),
});

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
