import { statedContracts } from '@ruddy/core/compatibility/contract';
import { implement } from '../platform/http/route';
import { grid } from './grid';
import { addClaim, addTitleNote, listClaims, titleRegister, withdraw } from './stated';

export const statedRoutes = implement(statedContracts, {
  'GET /api/grid': async ({ query }, s) => ({ body: await grid(s, query) }),
  'GET /api/claims': async (_call, s) => ({ body: { items: await listClaims(s) } }),
  'POST /api/claims': async ({ body, actor }, s) => {
    await addClaim(s, body, actor);
    return { status: 201, body: { items: await listClaims(s) } };
  },
  'POST /api/claims/:id/withdraw': async ({ params }, s) => {
    await withdraw(s, 'claims', params.id);
    return { body: { items: await listClaims(s) } };
  },
  'GET /api/register': async (_call, s) => ({ body: await titleRegister(s) }),
  'POST /api/register': async ({ body, actor }, s) => {
    await addTitleNote(s, body, actor);
    return { status: 201, body: await titleRegister(s) };
  },
  'POST /api/register/:id/withdraw': async ({ params }, s) => {
    await withdraw(s, 'title_notes', params.id);
    return { body: await titleRegister(s) };
  },
});
