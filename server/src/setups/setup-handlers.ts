import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  eventSchema,
  noteBody,
  outcomeBody,
  outcomePage,
  outcomeQuery,
  outcomeSchema,
} from '@ruddy/core/compatibility/contract';
import { setupPage, setupQuery, summarySchema } from '@ruddy/core/plan/contract';
import { cloneBody, setupBody, setupPatch, setupSchema } from '@ruddy/core/setups/contract';
import { EventModel } from '../platform/db/models';
import { invalid } from '../platform/http/problem';
import { route } from '../platform/http/route';
import { addEvent, recordOf } from './events';
import { listOutcomes } from '../plan/log-list';
import { addOutcome } from '../plan/outcomes';
import { cloneSetup, createSetup, patchSetup, requireSetup } from './setups';
import { listSetups, summarise } from '../plan/setup-list';
import { readSetup } from './setup-store';

const byId = z.strictObject({ id: uuid });
const record = z.object({ items: z.array(eventSchema) });

export const setupRoutes = [
  route({
    method: 'get',
    path: '/api/setups',
    summary: 'Setups by name, each with its judgement at a glance',
    role: 'reader',
    query: setupQuery,
    response: setupPage,
    handle: async ({ query }, s) => ({ body: await listSetups(s, query) }),
  }),
  route({
    method: 'get',
    path: '/api/setups/summary',
    summary: 'Counts by verdict, and the setup that needs someone first',
    role: 'reader',
    response: summarySchema,
    handle: async (_call, s) => ({ body: await summarise(s) }),
  }),
  route({
    method: 'post',
    path: '/api/setups',
    summary: 'Start a setup',
    role: 'member',
    body: setupBody,
    response: setupSchema,
    handle: async ({ body, actor }, s) => {
      const { setup, fresh } = await createSetup(s, body, actor);
      return { status: fresh ? 201 : 200, body: setup, etag: setup.rev };
    },
  }),
  route({
    method: 'get',
    path: '/api/setups/:id',
    summary: 'One setup',
    role: 'reader',
    params: byId,
    response: setupSchema,
    handle: async ({ params }, { db }) => {
      const { setup } = await readSetup(db, params.id);
      return { body: setup, etag: setup.rev };
    },
  }),
  route({
    method: 'patch',
    path: '/api/setups/:id',
    summary: 'Change a setup by a merge patch',
    role: 'member',
    params: byId,
    body: setupPatch,
    response: setupSchema,
    handle: async ({ params, body, ifMatch, actor }, s) => {
      const setup = await patchSetup(s, params.id, body, ifMatch, actor);
      return { body: setup, etag: setup.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/clone',
    summary: 'Copy a setup under another name',
    role: 'member',
    params: byId,
    body: cloneBody,
    response: setupSchema,
    handle: async ({ params, body, actor }, s) => {
      const setup = await cloneSetup(s, params.id, body, actor);
      return { status: 201, body: setup, etag: setup.rev };
    },
  }),
  route({
    method: 'get',
    path: '/api/setups/:id/record',
    summary: 'What happened with a setup, newest first',
    role: 'reader',
    params: byId,
    response: record,
    handle: async ({ params }, s) => {
      await requireSetup(s, params.id);
      return { body: { items: await recordOf(s.db, params.id) } };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/notes',
    summary: 'Add a note to the record',
    role: 'member',
    params: byId,
    body: noteBody,
    response: record,
    handle: async ({ params, body, actor }, s) => {
      const at = s.now();
      await s.db.transaction(async (t) => {
        if (await EventModel.findByPk(body.id, { transaction: t })) return;
        const old =
          body.corrects === null
            ? null
            : await EventModel.findByPk(body.corrects, { transaction: t, raw: true });
        if (body.corrects !== null && (old?.setupId !== params.id || old.kind !== 'note'))
          throw invalid('corrects', 'No note of this setup has this id');
        const happenedAt = new Date(`${body.happenedOn}T12:00:00Z`);
        await addEvent(
          s.db,
          {
            id: body.id,
            setupId: params.id,
            kind: 'note',
            body: { text: body.text },
            corrects: body.corrects,
            private: body.photo === '' ? null : { photo: body.photo },
            happenedAt,
            recordedAt: at,
            origin: 'own',
            by: actor.id,
          },
          t,
        );
      });
      return { status: 201, body: { items: await recordOf(s.db, params.id) } };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/outcomes',
    summary: 'Log what happened with a setup as it stands now',
    role: 'member',
    params: byId,
    body: outcomeBody,
    response: outcomeSchema,
    handle: async ({ params, body, actor }, s) => {
      const { entry, fresh } = await addOutcome(s, params.id, body, actor);
      return { status: fresh ? 201 : 200, body: entry };
    },
  }),
  route({
    method: 'get',
    path: '/api/outcomes',
    summary: 'The compatibility log, newest first',
    role: 'reader',
    query: outcomeQuery,
    response: outcomePage,
    handle: async ({ query }, { db }) => ({ body: await listOutcomes(db, query) }),
  }),
];
