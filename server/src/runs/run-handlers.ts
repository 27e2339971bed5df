import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  CHANNELS,
  csvMapping,
  MAX_PACKED,
  MAX_VALUES,
  runBody,
  runEntry,
  runPage,
  runQuery,
  saidBody,
  sessionBody,
  sessionEntry,
  sha256,
} from '@ruddy/core/runs/contract';
import { BYTES, route } from '../platform/http/route';
import { keepCapture, packedChannel } from './captures';
import { addSession, dropSession, keepMapping, listMappings, listSessions } from './profiles';
import { addRun, oneRun, sayOfRun } from './runs';
import { listRuns } from './runs-read';

const byId = z.strictObject({ id: uuid });
const sessions = z.object({ items: z.array(sessionEntry) });
const mappings = z.object({ items: z.array(csvMapping) });
const bytes = z.instanceof(Buffer, { error: 'bytes are missing' });

export const runRoutes = [
  route({
    method: 'put',
    path: '/api/captures/:sha256',
    summary: 'Send values before the run that names them: float32, little-endian, gzip',
    role: 'member',
    params: z.strictObject({ sha256 }),
    query: z.strictObject({ n: z.coerce.number().int().min(1).max(MAX_VALUES) }),
    body: bytes,
    bytes: true,
    bodyLimit: String(MAX_PACKED),
    response: z.object({ sha256 }),
    handle: async ({ params, query, body }, s) => {
      const fate = await keepCapture(s.db, {
        sha256: params.sha256,
        n: query.n,
        data: body,
        at: s.now(),
      });
      return { status: fate === 'stored' ? 201 : 200, body: { sha256: params.sha256 } };
    },
  }),
  route({
    method: 'get',
    path: '/api/runs',
    summary: 'Runs that stand, newest first: of a setup, of a title, or those named',
    role: 'reader',
    query: runQuery,
    response: runPage,
    handle: async ({ query }, s) => ({
      body: await listRuns(s.db, {
        ...query,
        ids: query.ids?.split(','),
        titleIds: query.titleIds?.split(','),
      }),
    }),
  }),
  route({
    method: 'get',
    path: '/api/runs/:id',
    summary: 'One run with its figures',
    role: 'reader',
    params: byId,
    response: runEntry,
    handle: async ({ params }, s) => ({ body: await oneRun(s.db, params.id) }),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/runs',
    summary: 'Store a run of a setup as it stands now; its values were sent before',
    role: 'member',
    params: byId,
    body: runBody,
    bodyLimit: '256kb',
    response: runEntry,
    handle: async ({ params, body, actor }, s) => {
      const { entry, fresh } = await addRun(s, params.id, body, actor);
      return { status: fresh ? 201 : 200, body: entry };
    },
  }),
  route({
    method: 'post',
    path: '/api/runs/:id/said',
    summary:
      'Say more of a run: settings, what was seen, cut, scenes, sensors. The run itself stays as it was',
    role: 'member',
    params: byId,
    body: saidBody,
    bodyLimit: '256kb',
    response: runEntry,
    handle: async ({ params, body, actor }, s) => ({
      body: await sayOfRun(s, params.id, body, actor),
    }),
  }),
  route({
    method: 'get',
    path: '/api/runs/:id/channels/:channel',
    summary: 'Values of a channel as they were sent: float32, little-endian, gzip',
    role: 'reader',
    params: z.strictObject({ id: uuid, channel: z.enum(CHANNELS) }),
    response: z.unknown(),
    handle: async ({ params }, s) => {
      const body = await packedChannel(s.db, params.id, params.channel);
      return { body, file: { name: `${params.channel}.f32.gz`, type: BYTES } };
    },
  }),
  route({
    method: 'get',
    path: '/api/csv-mappings',
    summary: 'How files of known layouts are read',
    role: 'reader',
    response: mappings,
    handle: async (_call, s) => ({ body: { items: await listMappings(s.db) } }),
  }),
  route({
    method: 'post',
    path: '/api/csv-mappings',
    summary: 'Remember how files of a layout are read',
    role: 'member',
    body: csvMapping,
    response: csvMapping,
    handle: async ({ body }, s) => {
      await keepMapping(s.db, body, s.now());
      return { body };
    },
  }),
  route({
    method: 'get',
    path: '/api/sessions',
    summary: 'Planned sessions, newest first',
    role: 'reader',
    response: sessions,
    handle: async (_call, s) => ({ body: { items: await listSessions(s.db) } }),
  }),
  route({
    method: 'post',
    path: '/api/sessions',
    summary: 'Plan a session',
    role: 'member',
    body: sessionBody,
    response: sessions,
    handle: async ({ body, actor }, s) => {
      const fate = await addSession(s.db, body, { origin: 'own', at: s.now(), by: actor.id });
      return { status: fate === 'stored' ? 201 : 200, body: { items: await listSessions(s.db) } };
    },
  }),
  route({
    method: 'delete',
    path: '/api/sessions/:id',
    summary: 'Drop a planned session; its runs stay',
    role: 'member',
    params: byId,
    response: sessions,
    handle: async ({ params }, s) => {
      await dropSession(s.db, params.id);
      return { body: { items: await listSessions(s.db) } };
    },
  }),
];
