import * as z from 'zod';
import { byId, contracts } from '../../base/contract';
import { jobSchema, logImportQuery } from '../../parts/contract';
import { compatPage, compatQuery, evidenceBody, evidenceResponse, logNames } from './compatibility';
import { logShare, shareQuery } from './log-share';
import {
  eventSchema,
  noteBody,
  outcomeBody,
  outcomePage,
  outcomeQuery,
  outcomeSchema,
} from './outcomes';
import {
  claimBody,
  claimList,
  gridQuery,
  gridResponse,
  registerList,
  titleNoteBody,
} from './stated';

const record = z.object({ items: z.array(eventSchema) });

export const logContracts = contracts({
  'GET /api/compatibility': {
    summary:
      'Chains that were logged, a page at a time: predicted and seen apart; near ones ranked by what they share',
    role: 'reader',
    query: compatQuery,
    response: compatPage,
  },
  'GET /api/compatibility/names': {
    summary: 'Names of hosts, docks and cards the log knows',
    role: 'reader',
    response: logNames,
  },
  'POST /api/evidence': {
    summary:
      'What the log says of a chain: exact and near entries with their factors; weights and an entry may be tried otherwise',
    role: 'reader',
    body: evidenceBody,
    response: evidenceResponse,
  },
  'GET /api/log/share-report': {
    summary: 'What would leave with a file of the log and what would stay',
    role: 'reader',
    query: shareQuery,
    response: logShare,
  },
  'GET /api/log/share.json': {
    summary: 'The log or a part of it as JSON, private fields left out',
    role: 'reader',
    query: shareQuery,
    response: z.string(),
  },
  'GET /api/log/share.csv': {
    summary: 'The log or a part of it as CSV, private fields left out',
    role: 'reader',
    query: shareQuery,
    response: z.string(),
  },
  'POST /api/log/imports': {
    summary:
      'Look at a file of log entries, or store it: all of it or nothing. JSON in the format of the bundle, or CSV',
    role: 'member',
    audit: 'import',
    query: logImportQuery,
    file: true,
    text: ['text/csv', 'application/json'],
    body: z.string(),
    bodyLimit: '128mb',
    response: jobSchema,
  },
});

export const statedContracts = contracts({
  'GET /api/grid': {
    summary:
      'Two kinds of parts against each other: the parts whole, and what was seen of each pair',
    role: 'reader',
    query: gridQuery,
    response: gridResponse,
  },
  'GET /api/claims': {
    summary: 'Rules somebody states, each held against what was measured',
    role: 'reader',
    response: claimList,
  },
  'POST /api/claims': {
    summary: 'State a rule',
    role: 'member',
    body: claimBody,
    response: claimList,
  },
  'POST /api/claims/:id/withdraw': {
    summary: 'Take a rule back',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: claimList,
  },
  'GET /api/register': {
    summary: 'What is known of titles, by class of chains: stated, and shown by runs',
    role: 'reader',
    response: registerList,
  },
  'POST /api/register': {
    summary: 'Say something of a title on a class of chains',
    role: 'member',
    body: titleNoteBody,
    response: registerList,
  },
  'POST /api/register/:id/withdraw': {
    summary: 'Delete a note on a title',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: registerList,
  },
});

export const outcomeContracts = contracts({
  'GET /api/setups/:id/record': {
    summary: 'What happened with a setup, newest first',
    role: 'reader',
    params: byId,
    response: record,
  },
  'POST /api/setups/:id/notes': {
    summary: 'Add a note to the record',
    role: 'member',
    params: byId,
    body: noteBody,
    response: record,
  },
  'POST /api/setups/:id/outcomes': {
    summary: 'Log what happened with a setup as it stands now',
    role: 'member',
    params: byId,
    body: outcomeBody,
    response: outcomeSchema,
  },
  'GET /api/outcomes': {
    summary: 'The compatibility log, newest first',
    role: 'reader',
    query: outcomeQuery,
    response: outcomePage,
  },
});
