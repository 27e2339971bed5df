import { troubleContracts } from '@ruddy/core/troubleshoot/contract';
import { implement } from '../platform/http/route';
import { putFigure, readTables } from './figures';
import { noteTrouble, openTrouble, readTroubles, undoNote } from './troubles';

export const troubleRoutes = implement(troubleContracts, {
  'GET /api/setups/:id/troubles': async ({ params }) => ({
    body: await readTroubles(params.id),
  }),
  'POST /api/setups/:id/troubles': async ({ params, body, actor }, s) => {
    const fresh = await openTrouble(s, params.id, body, actor);
    return { status: fresh ? 201 : 200, body: await readTroubles(params.id) };
  },
  'POST /api/setups/:id/troubles/:trouble/notes': async ({ params, body, actor }, s) => {
    const fresh = await noteTrouble(s, params.id, params.trouble, body, actor);
    return { status: fresh ? 201 : 200, body: await readTroubles(params.id) };
  },
  'POST /api/setups/:id/troubles/:trouble/undo': async ({ params, body, actor }, s) => {
    const fresh = await undoNote(s, params.id, params.trouble, body.id, actor);
    return { status: fresh ? 201 : 200, body: await readTroubles(params.id) };
  },
  'GET /api/faults/tables': async () => ({ body: await readTables() }),
  'PUT /api/faults/figures': async ({ body, revision, actor }, s) => {
    await putFigure(s, body, revision, actor);
    return { body: await readTables() };
  },
});
