import * as z from 'zod';
import { byId, contracts, uuid } from '../../base/contract';
import {
  actBody,
  benchBody,
  benchList,
  benchQuery,
  benchReading,
  benchSchema,
  clockBody,
  treeSchema,
} from './bench';
import {
  practiceBody,
  practiceList,
  practiceSayBody,
  practiceSchema,
  practiceTestBody,
} from './practice';
import { streamEvent, streamQuery } from './stream';

export const benchContracts = contracts({
  'GET /api/benches': {
    summary: 'Simulated benches as they stand now, newest first; those of one setup when asked',
    role: 'reader',
    query: benchQuery,
    response: benchList,
  },
  'POST /api/benches': {
    summary: 'Create a bench from a setup, from parts, or empty',
    role: 'member',
    body: benchBody,
    bodyLimit: '512kb',
    response: benchSchema,
  },
  'GET /api/benches/:id': {
    summary: 'One bench as it stands now, with its log; a stream goes on from its seq',
    role: 'reader',
    params: byId,
    response: benchSchema,
  },
  'POST /api/benches/:id/acts': {
    summary: 'Do something at a bench: plug, switch, mount, approve, load, or hide a fault in it',
    role: 'member',
    params: byId,
    body: actBody,
    response: benchSchema,
  },
  'POST /api/benches/:id/clock': {
    summary: 'Set how fast a bench goes, step it, or go on to what happens next',
    role: 'member',
    params: byId,
    body: clockBody,
    response: benchSchema,
  },
  'POST /api/benches/:id/read': {
    summary: "Read a bench off: the probe's report of its running system, and copy rates both ways",
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: benchReading,
  },
  'GET /api/benches/:id/tree': {
    summary: 'Every file and link of the system that runs on a bench',
    role: 'reader',
    params: byId,
    response: treeSchema,
  },
  'GET /api/benches/:id/tree.tar': {
    summary: 'The same as a tape archive, for lspci and the probe',
    role: 'reader',
    params: byId,
    response: z.custom<Uint8Array>(),
  },
  'DELETE /api/benches/:id': {
    summary: 'Clear a bench away',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: z.object({ removed: uuid }),
  },
});

export const streamContracts = contracts({
  'GET /api/stream': {
    summary:
      'Server-sent events of up to 32 topics, each from after the number seen; its ids say the way to go on',
    role: 'reader',
    query: streamQuery,
    response: streamEvent,
    sends: 'events',
  },
});

export const practiceContracts = contracts({
  'GET /api/practices': {
    summary: 'Graded cases, and what was practised so far, newest first',
    role: 'reader',
    response: practiceList,
  },
  'POST /api/practices': {
    summary: 'Hide a fault in a bench: a graded case, or at random in the chain of a setup',
    role: 'member',
    body: practiceBody,
    response: practiceSchema,
  },
  'GET /api/practices/:id': {
    summary: 'One practice; what is hidden stays hidden until a cause was named',
    role: 'reader',
    params: byId,
    response: practiceSchema,
  },
  'POST /api/practices/:id/tests': {
    summary: 'Make a test on the bench and hear what it shows',
    role: 'member',
    params: byId,
    body: practiceTestBody,
    response: practiceSchema,
  },
  'POST /api/practices/:id/named': {
    summary:
      'Name the cause: ends the practice and shows what was hidden, the best path, and where it was left',
    role: 'member',
    params: byId,
    body: practiceSayBody,
    response: practiceSchema,
  },
  'DELETE /api/practices/:id': {
    summary: 'Take a practice off the list',
    role: 'member',
    audit: 'removal',
    params: byId,
    response: z.object({ removed: uuid }),
  },
});
