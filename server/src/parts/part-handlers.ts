import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  bulkAnswer,
  bulkBody,
  partBody,
  partPage,
  partPatch,
  partQuery,
  partSchema,
  revisionSchema,
} from '@ruddy/core/parts/contract';
import { installedBody, searchHit, touchedRow } from '@ruddy/core/plan/contract';
import { setupSchema } from '@ruddy/core/setups/contract';
import { route } from '../platform/http/route';
import { createPart, getPart, listParts, patchMany, patchPart, revisionsOf } from './parts';
import { markInstalled, touchedBy } from '../plan/releases';
import { search } from '../plan/setup-list';

const byId = z.strictObject({ id: uuid });

export const partRoutes = [
  route({
    method: 'get',
    path: '/api/parts',
    summary: 'The catalogue, a page at a time',
    role: 'reader',
    query: partQuery,
    response: partPage,
    handle: async ({ query }, { db }) => ({ body: await listParts(db, query) }),
  }),
  route({
    method: 'get',
    path: '/api/parts/:id',
    summary: 'One part',
    role: 'reader',
    params: byId,
    response: partSchema,
    handle: async ({ params }, { db }) => {
      const part = await getPart(db, params.id);
      return { body: part, etag: part.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/parts',
    summary: 'Add a part',
    role: 'member',
    body: partBody,
    response: partSchema,
    handle: async ({ body, actor }, s) => {
      const fate = await s.db.transaction((t) =>
        createPart(body, { origin: 'own', at: s.now(), by: actor.id }, t),
      );
      const part = await getPart(s.db, body.id);
      return { status: fate === 'stored' ? 201 : 200, body: part, etag: part.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/parts/:id',
    summary: 'Change a part by a merge patch of its spec, retire it or bring it back',
    role: 'member',
    params: byId,
    body: partPatch,
    response: partSchema,
    handle: async ({ params, body, ifMatch, actor }, s) => {
      const part = await patchPart(s, params.id, body, ifMatch, actor);
      return { body: part, etag: part.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/parts/bulk',
    summary: 'The same change to many parts, all or none',
    role: 'member',
    body: bulkBody,
    response: bulkAnswer,
    handle: async ({ body, actor }, s) => ({ body: await patchMany(s, body, actor) }),
  }),
  route({
    method: 'get',
    path: '/api/parts/:id/revisions',
    summary: 'The past of a part, newest first',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(revisionSchema) }),
    handle: async ({ params }, { db }) => ({ body: { items: await revisionsOf(db, params.id) } }),
  }),
  route({
    method: 'get',
    path: '/api/releases/:id/setups',
    summary: 'Setups a release touches: what is installed there and what it would mend',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(touchedRow) }),
    handle: async ({ params }, s) => ({ body: { items: await touchedBy(s, params.id) } }),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/installed',
    summary: 'Mark a version as installed on a setup, with its date and what came of it',
    role: 'member',
    params: byId,
    body: installedBody,
    response: setupSchema,
    handle: async ({ params, body, ifMatch, actor }, s) => {
      const setup = await markInstalled(s, params.id, body, ifMatch, actor);
      return { status: 201, body: setup, etag: setup.rev };
    },
  }),
  route({
    method: 'get',
    path: '/api/search',
    summary: 'Setups and parts by name',
    role: 'reader',
    query: z.strictObject({
      q: z.string().trim().min(1).max(100),
      limit: z.coerce.number().int().min(1).max(50).default(8),
    }),
    response: z.object({ items: z.array(searchHit) }),
    handle: async ({ query }, { db }) => ({
      body: { items: await search(db, query.q, query.limit) },
    }),
  }),
];
