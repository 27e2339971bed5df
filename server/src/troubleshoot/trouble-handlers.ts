import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import {
  practiceBody,
  practiceList,
  practiceSayBody,
  practiceSchema,
  practiceTestBody,
} from '@ruddy/core/bench/contract';
import {
  figureBody,
  tablesSchema,
  troubleBody,
  troubleNoteBody,
  troublesSchema,
} from '@ruddy/core/troubleshoot/contract';
import { route } from '../platform/http/route';
import { putFigure, readTables } from './figures';
import {
  beginPractice,
  listPractices,
  namePractice,
  readPractice,
  removePractice,
  tryPractice,
} from '../bench/practice';
import { noteTrouble, openTrouble, readTroubles, undoNote } from './troubles';

const byId = z.strictObject({ id: uuid });
const ofTrouble = z.strictObject({ id: uuid, trouble: uuid });

export const troubleRoutes = [
  route({
    method: 'get',
    path: '/api/setups/:id/troubles',
    summary: 'Searches for a cause on a setup, with every test, fix and how they ended',
    role: 'reader',
    params: byId,
    response: troublesSchema,
    handle: async ({ params }, s) => ({ body: await readTroubles(s.db, params.id) }),
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/troubles',
    summary: 'Begin to look for a cause, from symptoms, a failed step or an alarm',
    role: 'member',
    params: byId,
    body: troubleBody,
    response: troublesSchema,
    handle: async ({ params, body, actor }, s) => {
      const fresh = await openTrouble(s, params.id, body, actor);
      return { status: fresh ? 201 : 200, body: await readTroubles(s.db, params.id) };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/troubles/:trouble/notes',
    summary: 'Note what is seen, a test, a fix or the end of a search',
    role: 'member',
    params: ofTrouble,
    body: troubleNoteBody,
    response: troublesSchema,
    handle: async ({ params, body, actor }, s) => {
      const fresh = await noteTrouble(s, params.id, params.trouble, body, actor);
      return { status: fresh ? 201 : 200, body: await readTroubles(s.db, params.id) };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/troubles/:trouble/undo',
    summary: 'Take the last note of an open search back; both stay on record',
    role: 'member',
    params: ofTrouble,
    body: z.strictObject({ id: uuid }),
    response: troublesSchema,
    handle: async ({ params, body, actor }, s) => {
      const fresh = await undoNote(s, params.id, params.trouble, body.id, actor);
      return { status: fresh ? 201 : 200, body: await readTroubles(s.db, params.id) };
    },
  }),
  route({
    method: 'get',
    path: '/api/faults/tables',
    summary:
      'What moves the net here: figures the workshop set, and counts of searches that ended with their cause',
    role: 'reader',
    response: tablesSchema,
    handle: async (_, s) => ({ body: await readTables(s.db) }),
  }),
  route({
    method: 'put',
    path: '/api/faults/figures',
    summary: 'Set a figure of the net with its reason, or let it be as it shipped',
    role: 'member',
    body: figureBody,
    response: tablesSchema,
    handle: async ({ body, ifMatch, actor }, s) => {
      await putFigure(s, body, ifMatch, actor);
      return { body: await readTables(s.db) };
    },
  }),
  route({
    method: 'get',
    path: '/api/practices',
    summary: 'Graded cases, and what was practised so far, newest first',
    role: 'reader',
    response: practiceList,
    handle: async (_, s) => ({ body: await listPractices(s) }),
  }),
  route({
    method: 'post',
    path: '/api/practices',
    summary: 'Hide a fault in a bench: a graded case, or at random in the chain of a setup',
    role: 'member',
    body: practiceBody,
    response: practiceSchema,
    handle: async ({ body, actor }, s) => {
      const { practice, fresh } = await beginPractice(s, body, actor);
      return { status: fresh ? 201 : 200, body: practice };
    },
  }),
  route({
    method: 'get',
    path: '/api/practices/:id',
    summary: 'One practice; what is hidden stays hidden until a cause was named',
    role: 'reader',
    params: byId,
    response: practiceSchema,
    handle: async ({ params }, s) => ({ body: await readPractice(s, params.id) }),
  }),
  route({
    method: 'post',
    path: '/api/practices/:id/tests',
    summary: 'Make a test on the bench and hear what it shows',
    role: 'member',
    params: byId,
    body: practiceTestBody,
    response: practiceSchema,
    handle: async ({ params, body }, s) => ({ body: await tryPractice(s, params.id, body) }),
  }),
  route({
    method: 'post',
    path: '/api/practices/:id/named',
    summary:
      'Name the cause: ends the practice and shows what was hidden, the best path, and where it was left',
    role: 'member',
    params: byId,
    body: practiceSayBody,
    response: practiceSchema,
    handle: async ({ params, body }, s) => ({ body: await namePractice(s, params.id, body.cause) }),
  }),
  route({
    method: 'delete',
    path: '/api/practices/:id',
    summary: 'Take a practice off the list',
    role: 'member',
    params: byId,
    response: z.object({ removed: uuid }),
    handle: async ({ params }, s) => {
      await removePractice(s, params.id);
      return { body: { removed: params.id } };
    },
  }),
];
