import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  fitBody,
  fitEntry,
  fitList,
  predictions,
  profileBody,
  profileEntry,
  profilePatch,
  tollRow,
} from '@ruddy/core/runs/contract';
import { route } from '../platform/http/route';
import { listFits, makeFit } from './fits';
import { predictionsOf } from './predictions';
import { addProfile, listProfiles, patchProfile } from './profiles';
import { readSetup } from '../setups/setup-store';
import { tollRows } from './tolls';

const byId = z.strictObject({ id: uuid });
const profiles = z.object({ items: z.array(profileEntry) });

export const profileRoutes = [
  route({
    method: 'get',
    path: '/api/profiles',
    summary: 'Titles, work and synthetic tests that runs are made of',
    role: 'reader',
    response: profiles,
    handle: async (_call, s) => ({ body: { items: await listProfiles(s.db) } }),
  }),
  route({
    method: 'post',
    path: '/api/profiles',
    summary: 'Add a title, a kind of work or a test; one of the same name is met, not doubled',
    role: 'member',
    body: profileBody,
    response: z.object({ id: uuid }),
    handle: async ({ body, actor }, s) => {
      const { id, fresh } = await addProfile(s.db, body, {
        origin: 'own',
        at: s.now(),
        by: actor.id,
      });
      return { status: fresh ? 201 : 200, body: { id } };
    },
  }),
  route({
    method: 'patch',
    path: '/api/profiles/:id',
    summary: 'Change what is said of a title: its scene, its year, the start values of its frame',
    role: 'member',
    params: byId,
    body: profilePatch,
    response: profileEntry,
    handle: async ({ params, body, ifMatch }, s) => {
      const entry = await patchProfile(s.db, params.id, body, ifMatch);
      return { body: entry, etag: entry.rev };
    },
  }),
  route({
    method: 'get',
    path: '/api/profiles/:id/fits',
    summary:
      'Calibrations of a title, newest first: what is fitted, what is assumed, how well it predicts what it did not know',
    role: 'reader',
    params: byId,
    response: fitList,
    handle: async ({ params }, s) => ({ body: { items: await listFits(s.db, params.id) } }),
  }),
  route({
    method: 'post',
    path: '/api/profiles/:id/fits',
    summary: 'Calibrate a title from its runs and keep the result under its day',
    role: 'member',
    params: byId,
    body: fitBody,
    response: fitEntry,
    handle: async ({ params, body, actor }, s) => ({
      status: 201,
      body: await makeFit(s, params.id, body, actor),
    }),
  }),
  route({
    method: 'get',
    path: '/api/setups/:id/tolls',
    summary:
      'What the link of a setup costs a frame, title by title, from every pair of runs that measures it',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(tollRow) }),
    handle: async ({ params }, s) => {
      await readSetup(s.db, params.id);
      return { body: { items: (await tollRows(s.db, [params.id])).get(params.id) ?? [] } };
    },
  }),
  route({
    method: 'get',
    path: '/api/predictions',
    summary:
      'Runs against what was predicted of them before they were recorded, and how well predictions held',
    role: 'reader',
    query: z.strictObject({ setupId: uuid.optional() }),
    response: predictions,
    handle: async ({ query }, s) => ({ body: await predictionsOf(s.db, query.setupId ?? null) }),
  }),
];
