import { statedContracts } from '@ruddy/core/compatibility/contract';
import { implement } from '../platform/http/route';
import { grid } from './grid';
import { addClaim, addTitleNote, listClaims, titleRegister, withdraw } from './stated';

export const statedRoutes = implement(statedContracts, {
  'GET /api/grid': async ({ query }, s) => ({ body: await grid(s, query) }),
  'GET /api/claims': async () => ({ body: { items: await listClaims() } }),
  'POST /api/claims': async ({ body, actor }, s) => {
    await addClaim(s, body, actor);
    return { status: 201, body: { items: await listClaims() } };
  },
  'POST /api/claims/:id/withdraw': async ({ params }, s) => {
    await withdraw(s, 'claims', params.id);
    return { body: { items: await listClaims() } };
  },
  'GET /api/register': async () => ({ body: await titleRegister() }),
  'POST /api/register': async ({ body, actor }, s) => {
    await addTitleNote(s, body, actor);
    return { status: 201, body: await titleRegister() };
  },
  'POST /api/register/:id/withdraw': async ({ params }, s) => {
    await withdraw(s, 'title_notes', params.id);
    return { body: await titleRegister() };
  },
});
