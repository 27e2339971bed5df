import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  meAnswer,
  memberBody,
  memberList,
  memberPatch,
  memberRow,
  passwordBody,
  signInBody,
} from '@ruddy/core/workshop/contract';
import { endSession } from '../platform/access/sessions';
import { HttpProblem } from '../platform/http/problem';
import { route } from '../platform/http/route';
import { createMember, listMembers, patchMember, setPassword, signIn } from './members';

const byId = z.strictObject({ id: uuid });

export const accessRoutes = [
  route({
    method: 'get',
    path: '/api/me',
    summary: 'Who asks, and whether this server asks for a sign-in',
    role: 'anyone',
    response: meAnswer,
    handle: ({ visit }, s) =>
      Promise.resolve({ body: { signIn: s.access !== undefined, member: visit.actor } }),
  }),
  route({
    method: 'post',
    path: '/api/sign-in',
    summary: 'Sign in by name and password; the session comes as a cookie',
    role: 'anyone',
    body: signInBody,
    bodyLimit: '4kb',
    response: meAnswer,
    handle: async ({ body, visit }, s) => {
      if (!s.access)
        throw new HttpProblem(409, 'Nobody signs in here', {
          detail: 'Only this machine reaches this server; nobody signs in',
        });
      const { member, token } = await signIn(s, body, visit);
      return { body: { signIn: true, member }, session: token };
    },
  }),
  route({
    method: 'post',
    path: '/api/sign-out',
    summary: 'End the session',
    role: 'anyone',
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: meAnswer,
    handle: async ({ visit }, s) => {
      if (visit.token !== null) await endSession(s.db, visit.token);
      return { body: { signIn: s.access !== undefined, member: null }, session: null };
    },
  }),
  route({
    method: 'get',
    path: '/api/members',
    summary: 'Members: roles, whether they can sign in, and what is with them',
    role: 'reader',
    response: memberList,
    handle: async (_call, s) => ({ body: { items: await listMembers(s) } }),
  }),
  route({
    method: 'post',
    path: '/api/members',
    summary: 'Write a member down, with or without a password',
    role: 'keeper',
    body: memberBody,
    bodyLimit: '4kb',
    response: memberRow,
    handle: async ({ body }, s) => {
      const { row, fresh } = await createMember(s, body);
      return { status: fresh ? 201 : 200, body: row, etag: row.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/members/:id',
    summary: 'Rename a member, give another role, let go or take back in',
    role: 'keeper',
    params: byId,
    body: memberPatch,
    response: memberRow,
    handle: async ({ params, body, ifMatch }, s) => {
      const row = await patchMember(s, params.id, body, ifMatch);
      return { body: row, etag: row.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/members/:id/password',
    summary:
      "A new password: one's own with the current one, or that of another by a keeper; every session under the old one ends",
    role: 'reader',
    params: byId,
    body: passwordBody,
    bodyLimit: '4kb',
    response: memberRow,
    handle: async ({ params, body, actor, visit }, s) => {
      const { row, token } = await setPassword(s, params.id, body, actor, visit);
      return { body: row, ...(token !== null && { session: token }) };
    },
  }),
];
