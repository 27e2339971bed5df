import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  attemptBody,
  bringUpSchema,
  endBody,
  goodBody,
  stepBody,
  struckBody,
  tryBody,
  usedBody,
  usedRow,
} from '@ruddy/core/bring-up/contract';
import { route, type Services } from '../platform/http/route';
import { readBringUp, usedHours } from './bring-up-read';
import { addTry, beginAttempt, endAttempt, keepGood, noteStep, noteUse, strike } from './bring-up';

const byId = z.strictObject({ id: uuid });
const ofAttempt = z.strictObject({ id: uuid, attempt: uuid });

const answered = async (s: Services, setupId: string, fresh: boolean) => {
  const body = await readBringUp(s.db, setupId);
  return { status: fresh ? 201 : 200, body, etag: body.setup.rev };
};

export const bringUpRoutes = [
  route({
    method: 'get',
    path: '/api/setups/:id/bring-up',
    summary: 'Attempts and steps of a setup, tries of its host, the last known good',
    role: 'reader',
    params: byId,
    response: bringUpSchema,
    handle: async ({ params }, s) => {
      const body = await readBringUp(s.db, params.id);
      return { body, etag: body.setup.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/attempts',
    summary: 'Begin an attempt; one that is still open ends with it',
    role: 'member',
    params: byId,
    body: attemptBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await beginAttempt(s, params.id, body, actor)),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/attempts/:attempt/end',
    summary: 'End an attempt that did not pass',
    role: 'member',
    params: ofAttempt,
    body: endBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await endAttempt(s, params.id, params.attempt, body, actor)),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/steps',
    summary:
      'Note how a step went, with versions and settings met at it; the last one writes the entry',
    role: 'member',
    params: byId,
    body: stepBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await noteStep(s, params.id, body, actor)),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/tries',
    summary: 'Write down a try from before: order, day, build, and whether the card came up',
    role: 'member',
    params: byId,
    body: tryBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await addTry(s, params.id, body, actor)),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/used',
    summary: 'Note hours in use, with drops and freezes',
    role: 'member',
    params: byId,
    body: usedBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await noteUse(s, params.id, body, actor)),
  }),
  route({
    method: 'get',
    path: '/api/used',
    summary: 'Hours in use, drops and freezes of every setup',
    role: 'reader',
    response: z.object({ items: z.array(usedRow) }),
    handle: async (_call, { db }) => ({ body: { items: await usedHours(db) } }),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/struck',
    summary: 'Take a fact of the record back, with the reason; both stay',
    role: 'member',
    params: byId,
    body: struckBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await strike(s, params.id, body, actor)),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/good',
    summary: 'Mark a setup as good as it stands now',
    role: 'member',
    params: byId,
    body: goodBody,
    response: bringUpSchema,
    handle: async ({ params, body, actor }, s) =>
      answered(s, params.id, await keepGood(s, params.id, body, actor)),
  }),
];
