import * as z from 'zod';
import { byId, contracts, flag } from '../../base/contract';
import { partKind } from '../schema/parts';
import { importQuery, importRowPage, importRowQuery, jobSchema } from './imports';
import {
  bulkAnswer,
  bulkBody,
  partBody,
  partPage,
  partPatch,
  partQuery,
  partSchema,
  revisionSchema,
} from './parts';

const byKind = z.strictObject({ kind: partKind });

export const importContracts = contracts({
  'POST /api/imports': {
    summary:
      'Look at a file of parts, or store it: all of it or nothing. CSV of one kind, or JSON in the format of the bundle',
    role: 'member',
    audit: 'import',
    query: importQuery,
    file: true,
    text: ['text/csv', 'application/json'],
    body: z.string(),
    bodyLimit: '64mb',
    response: jobSchema,
  },
  'GET /api/jobs/:id': {
    summary: 'How far long work is',
    role: 'reader',
    params: byId,
    response: jobSchema,
  },
  'POST /api/jobs/:id/cancel': {
    summary: 'Ask long work to stop; what it wrote is taken back',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: jobSchema,
  },
  'GET /api/jobs/:id/rows': {
    summary: 'What becomes of each row of a file',
    role: 'reader',
    params: byId,
    query: importRowQuery,
    response: importRowPage,
  },
  'GET /api/export/:kind': {
    summary: 'Parts of a kind as CSV, as the import takes it',
    role: 'reader',
    params: byKind,
    query: z.strictObject({ retired: flag.default(true) }),
    response: z.string(),
  },
  'GET /api/templates/:kind': {
    summary: 'A CSV to fill: its columns and one row begun',
    role: 'reader',
    params: byKind,
    response: z.string(),
  },
  'GET /api/columns/:kind': {
    summary: 'The columns of a CSV of a kind, in words',
    role: 'reader',
    params: byKind,
    response: z.object({ items: z.array(z.object({ column: z.string(), what: z.string() })) }),
  },
});

export const partContracts = contracts({
  'GET /api/parts': {
    summary: 'The catalogue, a page at a time',
    role: 'reader',
    query: partQuery,
    response: partPage,
  },
  'GET /api/parts/:id': {
    summary: 'One part',
    role: 'reader',
    params: byId,
    response: partSchema,
  },
  'POST /api/parts': {
    summary: 'Add a part',
    role: 'member',
    body: partBody,
    response: partSchema,
  },
  'PATCH /api/parts/:id': {
    summary: 'Change a part by a merge patch of its spec, retire it or bring it back',
    role: 'member',
    params: byId,
    body: partPatch,
    response: partSchema,
    revision: 'required',
  },
  'POST /api/parts/bulk': {
    summary: 'The same change to many parts, all or none',
    role: 'member',
    body: bulkBody,
    response: bulkAnswer,
  },
  'GET /api/parts/:id/revisions': {
    summary: 'The past of a part, newest first',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(revisionSchema) }),
  },
});
