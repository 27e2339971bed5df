import { profileContracts } from '@ruddy/core/runs/contract';
import { implement } from '../platform/http/route';
import { listFits, makeFit } from './fits';
import { predictionsOf } from './predictions';
import { addProfile, listProfiles, patchProfile } from './profiles';
import { readSetup } from '../setups/setup-store';
import { tollRows } from './tolls';

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
  'GET /api/profiles/:id/fits': async ({ params }) => ({
    body: { items: await listFits(params.id) },
  }),
  'POST /api/profiles/:id/fits': async ({ params, body, actor }, s) => ({
    status: 201,
    body: await makeFit(s, params.id, body, actor),
  }),
  'GET /api/setups/:id/tolls': async ({ params }) => {
    await readSetup(params.id);
    return { body: { items: (await tollRows([params.id])).get(params.id) ?? [] } };
  },
  'GET /api/predictions': async ({ query }) => ({
    body: await predictionsOf(query.setupId ?? null),
  }),
});
