import { setupContracts } from '@ruddy/core/setups/contract';
import { implement } from '../platform/http/route';
import { readSetup } from './setup-store';
import { cloneSetup, createSetup, patchSetup } from './setups';

export const setupRoutes = implement(setupContracts, {
  'POST /api/setups': async ({ body, actor }, s) => {
    const { setup, fresh } = await createSetup(s, body, actor);
    return { status: fresh ? 201 : 200, body: setup, etag: setup.rev };
  },
  'GET /api/setups/:id': async ({ params }) => {
    const { setup } = await readSetup(params.id);
    return { body: setup, etag: setup.rev };
  },
  'PATCH /api/setups/:id': async ({ params, body, revision, actor }, s) => {
    const setup = await patchSetup(s, params.id, body, revision, actor);
    return { body: setup, etag: setup.rev };
  },
  'POST /api/setups/:id/clone': async ({ params, body, actor }, s) => {
    const setup = await cloneSetup(s, params.id, body, actor);
    return { status: 201, body: setup, etag: setup.rev };
  },
});
