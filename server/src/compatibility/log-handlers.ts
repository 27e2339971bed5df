import * as z from 'zod';
import {
  compatPage,
  compatQuery,
  evidenceBody,
  evidenceResponse,
  logNames,
  logShare,
  shareQuery,
} from '@ruddy/core/compatibility/contract';
import { jobSchema, logImportQuery } from '@ruddy/core/parts/contract';
import { route } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { listCompatibility, namesOfLog } from './compatibility';
import { askEvidence } from '../plan/evidence-entries';
import { startLogImport } from './log-import';
import { shareLogCsv, shareLogJson, shareLogReport } from './log-share';

export const logRoutes = [
  route({
    method: 'get',
    path: '/api/compatibility',
    summary:
      'Chains that were logged, a page at a time: predicted and seen apart; near ones ranked by what they share',
    role: 'reader',
    query: compatQuery,
    response: compatPage,
    handle: async ({ query }, s) => ({ body: await listCompatibility(s, query) }),
  }),
  route({
    method: 'get',
    path: '/api/compatibility/names',
    summary: 'Names of hosts, docks and cards the log knows',
    role: 'reader',
    response: logNames,
    handle: async (_call, s) => ({ body: await namesOfLog(s) }),
  }),
  route({
    method: 'post',
    path: '/api/evidence',
    summary:
      'What the log says of a chain: exact and near entries with their factors; weights and an entry may be tried otherwise',
    role: 'reader',
    body: evidenceBody,
    response: evidenceResponse,
    handle: async ({ body }, s) => ({
      body: await askEvidence(s, await givenChain(s, body), body),
    }),
  }),
  route({
    method: 'get',
    path: '/api/log/share-report',
    summary: 'What would leave with a file of the log and what would stay',
    role: 'reader',
    query: shareQuery,
    response: logShare,
    handle: async ({ query }, { db }) => ({ body: await shareLogReport(db, query) }),
  }),
  route({
    method: 'get',
    path: '/api/log/share.json',
    summary: 'The log or a part of it as JSON, private fields left out',
    role: 'reader',
    query: shareQuery,
    response: z.string(),
    handle: async ({ query }, { db }) => ({
      body: JSON.stringify(await shareLogJson(db, query)),
      file: { name: 'compatibility-log.json', type: 'application/json' },
    }),
  }),
  route({
    method: 'get',
    path: '/api/log/share.csv',
    summary: 'The log or a part of it as CSV, private fields left out',
    role: 'reader',
    query: shareQuery,
    response: z.string(),
    handle: async ({ query }, { db }) => ({
      body: await shareLogCsv(db, query),
      file: { name: 'compatibility-log.csv', type: 'text/csv; charset=utf-8' },
    }),
  }),
  route({
    method: 'post',
    path: '/api/log/imports',
    summary:
      'Look at a file of log entries, or store it: all of it or nothing. JSON in the format of the bundle, or CSV',
    role: 'member',
    query: logImportQuery,
    text: ['text/csv', 'application/json'],
    body: z.string(),
    bodyLimit: '128mb',
    response: jobSchema,
    handle: async ({ query, body, actor }, s) => ({
      status: 202,
      body: await startLogImport(s, body, query, actor),
    }),
  }),
];
