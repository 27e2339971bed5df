import { profileContracts, runContracts } from '@ruddy/core/runs/contract';
import { implement, BYTES } from '../platform/http/route';
import { dropUnusedCaptures, keepCapture, packedChannel } from './captures';
import { listImpossible, setImpossible } from './impossible-runs';
import { linkOverheads } from './link-overheads';
import {
  addProfile,
  listProfiles,
  patchProfile,
  addSession,
  dropSession,
  keepMapping,
  listMappings,
  listSessions,
} from './profiles';
import { addRun, oneRun, sayOfRun } from './runs';
import { listRuns } from './runs-read';
import { settledForecasts } from './settled-forecasts';
import { addStated, listStated, removeStated } from './stated-figures';

export const profileRoutes = implement(profileContracts, {
  'GET /api/profiles': async () => ({ body: { items: await listProfiles() } }),
  'POST /api/profiles': async ({ body, actor }, s) => {
    const { id, fresh } = await addProfile(body, {
      origin: 'own',
      at: s.now(),
      by: actor.id,
    });
    return { status: fresh ? 201 : 200, body: { id } };
  },
  'PATCH /api/profiles/:id': async ({ params, body, revision }) => {
    const entry = await patchProfile(params.id, body, revision);
    return { body: entry, etag: entry.rev };
  },
  'GET /api/link-overheads': async ({ query }, s) => ({
    body: { items: await linkOverheads(s, query.setupIds.split(',')) },
  }),
  'GET /api/settled-forecasts': async ({ query }) => ({ body: await settledForecasts(query) }),
  'GET /api/stated-figures': async ({ query: { setupId, titleId } }) => ({
    body: { items: await listStated({ setupId, ...(titleId && { titleIds: [titleId] }) }) },
  }),
  'POST /api/stated-figures': async ({ body, actor }, s) => {
    const fate = await addStated(s, body, actor);
    return { status: fate === 'stored' ? 201 : 200, body: { id: body.id } };
  },
  'DELETE /api/stated-figures/:id': async ({ params }) => {
    await removeStated(params.id);
    return { body: { removed: true as const } };
  },
  'GET /api/setups/:id/impossible-runs': async ({ params }) => ({
    body: { items: await listImpossible(params.id) },
  }),
  'POST /api/setups/:id/impossible-runs': async ({ params, body, actor }, s) => ({
    body: { items: await setImpossible(s, params.id, body, actor) },
  }),
});

export const runRoutes = implement(runContracts, {
  'PUT /api/captures/:sha256': async ({ params, query, body }, s) => {
    const fate = await keepCapture({
      sha256: params.sha256,
      n: query.n,
      data: Buffer.from(body.buffer, body.byteOffset, body.byteLength),
      at: s.now(),
    });
    if (fate === 'stored') await dropUnusedCaptures(s.now());
    return { status: fate === 'stored' ? 201 : 200, body: { sha256: params.sha256 } };
  },
  'GET /api/runs': async ({ query }) => ({
    body: await listRuns({
      ...query,
      ids: query.ids?.split(','),
      titleIds: query.titleIds?.split(','),
    }),
  }),
  'GET /api/runs/:id': async ({ params }) => ({ body: await oneRun(params.id) }),
  'POST /api/setups/:id/runs': async ({ params, body, actor }, s) => {
    const { entry, fresh } = await addRun(s, params.id, body, actor);
    return { status: fresh ? 201 : 200, body: entry };
  },
  'POST /api/runs/:id/said': async ({ params, body, actor }, s) => ({
    body: await sayOfRun(s, params.id, body, actor),
  }),
  'GET /api/runs/:id/channels/:channel': async ({ params }) => {
    const body = await packedChannel(params.id, params.channel);
    return { body, file: { name: `${params.channel}.f32.gz`, type: BYTES } };
  },
  'GET /api/csv-mappings': async () => ({ body: { items: await listMappings() } }),
  'POST /api/csv-mappings': async ({ body }, s) => {
    await keepMapping(body, s.now());
    return { body };
  },
  'GET /api/sessions': async () => ({ body: { items: await listSessions() } }),
  'POST /api/sessions': async ({ body, actor }, s) => {
    const fate = await addSession(body, { origin: 'own', at: s.now(), by: actor.id });
    return { status: fate === 'stored' ? 201 : 200, body: { items: await listSessions() } };
  },
  'DELETE /api/sessions/:id': async ({ params }) => {
    await dropSession(params.id);
    return { body: { items: await listSessions() } };
  },
});
