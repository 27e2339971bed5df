import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  machinesAnswer,
  machinesBody,
  scoutAnswer,
  scoutAsk,
  scoutGrounds,
  searchBody,
  searchEntry,
  searchPatch,
} from '@ruddy/core/buy/contract';
import { route } from '../platform/http/route';
import { machinesFor, scoutGroundsFor } from './scout-input';
import { runScout } from './scout-run';
import { createSearch, listSearches, patchSearch, removeSearch } from './searches';

const byId = z.strictObject({ id: uuid });

export const scoutRoutes = [
  route({
    method: 'post',
    path: '/api/scout/grounds',
    summary:
      'All that a search for what to buy needs: parts with prices, what is at hand, rules, the log. Nothing is stored',
    role: 'reader',
    body: scoutAsk,
    response: scoutGrounds,
    handle: async ({ body }, s) => ({ body: await scoutGroundsFor(s, body) }),
  }),
  route({
    method: 'post',
    path: '/api/scout',
    summary:
      'Search what to buy for a host, a use and money, in a thread of its own. Nothing is stored',
    role: 'reader',
    body: scoutAsk,
    response: scoutAnswer,
    handle: async ({ body }, s) => {
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
  }),
  route({
    method: 'post',
    path: '/api/scout/machines',
    summary:
      'Laptops and desktops of the catalogue with net price and frames to expect. Nothing is stored',
    role: 'reader',
    body: machinesBody,
    response: machinesAnswer,
    handle: async ({ body }, s) => ({
      body: { items: await machinesFor(s, body.frames, body.currency) },
    }),
  }),
  route({
    method: 'get',
    path: '/api/searches',
    summary: 'Searches that were kept under a name',
    role: 'reader',
    response: z.object({ items: z.array(searchEntry) }),
    handle: async (_call, s) => ({ body: { items: await listSearches(s.db) } }),
  }),
  route({
    method: 'post',
    path: '/api/searches',
    summary: 'Keep a search under a name',
    role: 'member',
    body: searchBody,
    response: searchEntry,
    handle: async ({ body, actor }, s) => {
      const { search, fresh } = await createSearch(s, body, actor);
      return { status: fresh ? 201 : 200, body: search, etag: search.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/searches/:id',
    summary: 'Rename a kept search or keep it as it is now',
    role: 'member',
    params: byId,
    body: searchPatch,
    response: searchEntry,
    handle: async ({ params, body, ifMatch }, s) => {
      const search = await patchSearch(s, params.id, body, ifMatch);
      return { body: search, etag: search.rev };
    },
  }),
  route({
    method: 'delete',
    path: '/api/searches/:id',
    summary: 'Let go of a kept search',
    role: 'member',
    params: byId,
    response: z.object({ removed: z.boolean() }),
    handle: async ({ params }, s) => {
      await removeSearch(s, params.id);
      return { body: { removed: true } };
    },
  }),
];
