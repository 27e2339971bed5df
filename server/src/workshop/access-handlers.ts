import { accessContracts } from '@ruddy/core/workshop/contract';
import { endSession } from '../platform/access/sessions';
import { HttpProblem } from '../platform/http/problem';
import { implement } from '../platform/http/route';
import { createMember, listMembers, patchMember, setPassword, signIn } from './members';

export const accessRoutes = implement(accessContracts, {
  'GET /api/me': ({ visit }, s) =>
    Promise.resolve({ body: { signIn: s.access !== undefined, member: visit.actor } }),
  'POST /api/sign-in': async ({ body, visit }, s) => {
    if (!s.access)
      throw new HttpProblem(409, 'Nobody signs in here', {
        detail: 'Only this machine reaches this server; nobody signs in',
      });
    const { member, token } = await signIn(s, body, visit);
    return { body: { signIn: true, member }, session: token };
  },
  'POST /api/sign-out': async ({ visit }, s) => {
    if (visit.token !== null) await endSession(visit.token);
    return { body: { signIn: s.access !== undefined, member: null }, session: null };
  },
  'GET /api/members': async (_call, s) => ({ body: { items: await listMembers(s) } }),
  'POST /api/members': async ({ body }, s) => {
    const { row, fresh } = await createMember(s, body);
    return { status: fresh ? 201 : 200, body: row, etag: row.rev };
  },
  'PATCH /api/members/:id': async ({ params, body, revision }, s) => {
    const row = await patchMember(s, params.id, body, revision);
    return { body: row, etag: row.rev };
  },
  'POST /api/members/:id/password': async ({ params, body, actor, visit }, s) => {
    const { row, token } = await setPassword(s, params.id, body, actor, visit);
    return { body: row, ...(token !== null && { session: token }) };
  },
});
