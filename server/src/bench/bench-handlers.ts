import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  actBody,
  benchBody,
  benchList,
  benchQuery,
  benchReading,
  benchSchema,
  clockBody,
  treeSchema,
} from '@ruddy/core/bench/contract';
import { route } from '../platform/http/route';
import { benchArchive, benchFiles, readOff } from './bench-read';
import { createBench, doAct, listBenches, readBench, removeBench, setClock } from './benches';

const byId = z.strictObject({ id: uuid });

export const benchRoutes = [
  route({
    method: 'get',
    path: '/api/benches',
    summary: 'Simulated benches as they stand now, newest first; those of one setup when asked',
    role: 'reader',
    query: benchQuery,
    response: benchList,
    handle: async ({ query }, s) => ({ body: { items: await listBenches(s, query.setupId) } }),
  }),
  route({
    method: 'post',
    path: '/api/benches',
    summary: 'Lay out a bench from a setup, from parts, or empty',
    role: 'member',
    body: benchBody,
    bodyLimit: '512kb',
    response: benchSchema,
    handle: async ({ body, actor }, s) => {
      const { bench, fresh } = await createBench(s, body, actor);
      return { status: fresh ? 201 : 200, body: bench };
    },
  }),
  route({
    method: 'get',
    path: '/api/benches/:id',
    summary: 'One bench as it stands now, with its log; a stream goes on from its seq',
    role: 'reader',
    params: byId,
    response: benchSchema,
    handle: async ({ params }, s) => ({ body: await readBench(s, params.id) }),
  }),
  route({
    method: 'post',
    path: '/api/benches/:id/acts',
    summary: 'Do something at a bench: plug, switch, mount, approve, load, or hide a fault in it',
    role: 'member',
    params: byId,
    body: actBody,
    response: benchSchema,
    handle: async ({ params, body }, s) => ({ body: await doAct(s, params.id, body) }),
  }),
  route({
    method: 'post',
    path: '/api/benches/:id/clock',
    summary: 'Set how fast a bench goes, step it, or go on to what happens next',
    role: 'member',
    params: byId,
    body: clockBody,
    response: benchSchema,
    handle: async ({ params, body }, s) => ({ body: await setClock(s, params.id, body) }),
  }),
  route({
    method: 'post',
    path: '/api/benches/:id/read',
    summary: "Read a bench off: the probe's report of its running system, and copy rates both ways",
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: benchReading,
    handle: async ({ params }, s) => ({ body: await readOff(s, params.id) }),
  }),
  route({
    method: 'get',
    path: '/api/benches/:id/tree',
    summary: 'Every file and link of the system that runs on a bench',
    role: 'reader',
    params: byId,
    response: treeSchema,
    handle: async ({ params }, s) => ({ body: { entries: await benchFiles(s, params.id) } }),
  }),
  route({
    method: 'get',
    path: '/api/benches/:id/tree.tar',
    summary: 'The same as a tape archive, for lspci and the probe',
    role: 'reader',
    params: byId,
    response: z.custom<Uint8Array>(),
    handle: async ({ params }, s) => ({
      body: await benchArchive(s, params.id),
      file: { name: 'bench.tar', type: 'application/x-tar' },
    }),
  }),
  route({
    method: 'delete',
    path: '/api/benches/:id',
    summary: 'Clear a bench away',
    role: 'member',
    params: byId,
    response: z.object({ removed: uuid }),
    handle: async ({ params }, s) => {
      await removeBench(s, params.id);
      return { body: { removed: params.id } };
    },
  }),
];
