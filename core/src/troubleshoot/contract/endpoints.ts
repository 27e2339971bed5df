import * as z from 'zod';
import { byId, contracts, uuid } from '../../base/contract';
import { figureBody, tablesSchema, troubleBody, troubleNoteBody, troublesSchema } from './trouble';

const ofTrouble = z.strictObject({ id: uuid, trouble: uuid });

export const troubleContracts = contracts({
  'GET /api/setups/:id/troubles': {
    summary: 'Searches for a cause on a setup, with every test, fix and how they ended',
    role: 'reader',
    params: byId,
    response: troublesSchema,
  },
  'POST /api/setups/:id/troubles': {
    summary: 'Begin to look for a cause, from symptoms, a failed step or an alarm',
    role: 'member',
    params: byId,
    body: troubleBody,
    response: troublesSchema,
  },
  'POST /api/setups/:id/troubles/:trouble/notes': {
    summary: 'Note what is seen, a test, a fix or the end of a search',
    role: 'member',
    params: ofTrouble,
    body: troubleNoteBody,
    response: troublesSchema,
  },
  'POST /api/setups/:id/troubles/:trouble/undo': {
    summary: 'Take the last note of an open search back; both stay on record',
    role: 'member',
    params: ofTrouble,
    body: z.strictObject({ id: uuid }),
    response: troublesSchema,
  },
  'GET /api/faults/tables': {
    summary:
      'What moves the net here: figures the workshop set, and counts of searches that ended with their cause',
    role: 'reader',
    response: tablesSchema,
  },
  'PUT /api/faults/figures': {
    summary: 'Set a figure of the net with its reason, or let it be as it shipped',
    role: 'member',
    body: figureBody,
    response: tablesSchema,
    revision: 'optional',
  },
});
