import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  claimBody,
  claimList,
  gridQuery,
  gridResponse,
  registerList,
  titleNoteBody,
} from '@ruddy/core/compatibility/contract';
import { route } from '../platform/http/route';
import { grid } from './grid';
import { addClaim, addTitleNote, listClaims, titleRegister, withdraw } from './stated';

const byId = z.strictObject({ id: uuid });

export const statedRoutes = [
  route({
    method: 'get',
    path: '/api/grid',
    summary:
      'Two kinds of parts against each other: the parts whole, and what was seen of each pair',
    role: 'reader',
    query: gridQuery,
    response: gridResponse,
    handle: async ({ query }, s) => ({ body: await grid(s, query) }),
  }),
  route({
    method: 'get',
    path: '/api/claims',
    summary: 'Rules somebody states, each held against what was measured',
    role: 'reader',
    response: claimList,
    handle: async (_call, s) => ({ body: { items: await listClaims(s) } }),
  }),
  route({
    method: 'post',
    path: '/api/claims',
    summary: 'State a rule',
    role: 'member',
    body: claimBody,
    response: claimList,
    handle: async ({ body, actor }, s) => {
      await addClaim(s, body, actor);
      return { status: 201, body: { items: await listClaims(s) } };
    },
  }),
  route({
    method: 'post',
    path: '/api/claims/:id/withdraw',
    summary: 'Take a rule back',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: claimList,
    handle: async ({ params }, s) => {
      await withdraw(s, 'claims', params.id);
      return { body: { items: await listClaims(s) } };
    },
  }),
  route({
    method: 'get',
    path: '/api/register',
    summary: 'What is known of titles, by class of chains: stated, and shown by runs',
    role: 'reader',
    response: registerList,
    handle: async (_call, s) => ({ body: await titleRegister(s) }),
  }),
  route({
    method: 'post',
    path: '/api/register',
    summary: 'Say something of a title on a class of chains',
    role: 'member',
    body: titleNoteBody,
    response: registerList,
    handle: async ({ body, actor }, s) => {
      await addTitleNote(s, body, actor);
      return { status: 201, body: await titleRegister(s) };
    },
  }),
  route({
    method: 'post',
    path: '/api/register/:id/withdraw',
    summary: 'Take back what was said of a title',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: registerList,
    handle: async ({ params }, s) => {
      await withdraw(s, 'title_notes', params.id);
      return { body: await titleRegister(s) };
    },
  }),
];
