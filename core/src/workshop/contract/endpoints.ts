import * as z from 'zod';
import { byId, contracts, encodingSchema, flag, uuid } from '../../base/contract';
import { PART_KINDS, partKind } from '../../parts';
import { jobSchema, loadReport } from '../../parts/contract';
import { backupList, backupName, backupPlan, backupRow, restoreReport } from './backups';
import { bundleSchema, demoReport as demoSchema, shareReportSchema } from './bundle';
import {
  backBody,
  chainCheck,
  chainCheckBody,
  lendableList,
  loanBody,
  loanList,
  loanPatch,
  loanQuery,
  loanRow,
  pieceElsewhere,
} from './loans';
import {
  meAnswer,
  memberBody,
  memberList,
  memberPatch,
  memberRow,
  passwordBody,
  signInBody,
} from './members';
import {
  feedBody,
  feedEntry,
  feedPatch,
  newsEntry,
  newsList,
  newsRelease,
  newsState,
} from './news';

const byName = z.strictObject({ name: backupName });

export const accessContracts = contracts({
  'GET /api/me': {
    summary: 'Who asks, and whether this server asks for a sign-in',
    role: 'anyone',
    response: meAnswer,
  },
  'POST /api/sign-in': {
    summary: 'Sign in by name and password; the session comes as a cookie',
    role: 'anyone',
    body: signInBody,
    bodyLimit: '4kb',
    response: meAnswer,
  },
  'POST /api/sign-out': {
    summary: 'End the session',
    role: 'anyone',
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: meAnswer,
  },
  'GET /api/members': {
    summary: 'Members: roles, whether they can sign in, and what is with them',
    role: 'reader',
    response: memberList,
  },
  'POST /api/members': {
    summary: 'Write a member down, with or without a password',
    role: 'keeper',
    body: memberBody,
    bodyLimit: '4kb',
    response: memberRow,
  },
  'PATCH /api/members/:id': {
    summary: 'Rename a member, give another role, let go or take back in',
    role: 'keeper',
    params: byId,
    body: memberPatch,
    response: memberRow,
    revision: 'required',
  },
  'POST /api/members/:id/password': {
    summary:
      "A new password: one's own with the current one, or that of another by a keeper; every session under the old one ends",
    role: 'reader',
    params: byId,
    body: passwordBody,
    bodyLimit: '4kb',
    response: memberRow,
  },
});

export const backupContracts = contracts({
  'GET /api/backups': {
    summary: 'Backups of this server, newest first, and the plan they are made by',
    role: 'keeper',
    response: backupList,
  },
  'POST /api/backups': {
    summary: 'Back everything up now; leaving the request stops it and nothing stays',
    role: 'keeper',
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: backupRow,
  },
  'PUT /api/backups/plan': {
    summary: 'How often backups are made by themselves, and how many of those are kept',
    role: 'keeper',
    body: backupPlan,
    response: backupPlan.extend({ rev: z.number().int() }),
    revision: 'required',
  },
  'POST /api/backups/:name/check': {
    summary: 'Try a backup by restoring it beside the database',
    role: 'keeper',
    params: byName,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: backupRow,
  },
  'POST /api/backups/:name/restore': {
    summary:
      'Put a backup in the place of everything; what is there now is tried and backed up first',
    role: 'keeper',
    params: byName,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: restoreReport,
  },
  'DELETE /api/backups/:name': {
    summary: 'Let a backup go',
    role: 'keeper',
    params: byName,
    response: z.object({ removed: z.boolean() }),
  },
  'GET /api/backup-file': {
    summary: 'A backup as a file, to keep somewhere else',
    role: 'keeper',
    query: byName,
    response: z.string(),
    sends: 'bytes',
  },
});

export const dataContracts = contracts({
  'GET /api/health': {
    summary: 'Is the server there, and its database',
    role: 'anyone',
    response: z.object({
      status: z.enum(['ok', 'down']),
      database: z.enum(['ok', 'down']),
      version: z.string(),
      now: z.string(),
    }),
  },
  'GET /api/schemas/:name': {
    summary: `JSON Schema of an open format: bundle, report, capture, ${PART_KINDS.join(', ')}`,
    role: 'reader',
    params: z.strictObject({ name: z.union([z.enum(['bundle', 'report', 'capture']), partKind]) }),
    response: z.looseObject({}),
  },
  'GET /api/bundle': {
    summary: 'Everything as one file',
    role: 'keeper',
    response: bundleSchema,
  },
  'POST /api/bundle': {
    summary: 'Load a file, whole or not at all',
    role: 'keeper',
    file: true,
    body: bundleSchema,
    bodyLimit: '128mb',
    response: loadReport,
  },
  'POST /api/bundle-loads': {
    summary: 'Begin to load a file, whole or not at all; says how far it is',
    role: 'keeper',
    query: z.strictObject({
      name: z.string().trim().max(200).default(''),
      encoding: encodingSchema.optional(),
    }),
    file: true,
    body: bundleSchema,
    bodyLimit: '128mb',
    response: jobSchema,
  },
  'GET /api/setups/:id/share': {
    summary: 'What of a setup would leave with a share file, and what stays here',
    role: 'reader',
    params: z.strictObject({ id: uuid }),
    response: shareReportSchema,
  },
  'GET /api/setups/:id/share-file': {
    summary: 'A setup with its parts as one file to give away',
    role: 'member',
    params: z.strictObject({ id: uuid }),
    query: z.strictObject({ prices: flag.default(false) }),
    response: bundleSchema,
  },
  'GET /api/demo': {
    summary: 'What removing the demo data would do',
    role: 'reader',
    response: demoSchema,
  },
  'DELETE /api/demo': {
    summary: 'Remove the demo data; own data and what it needs stay',
    role: 'keeper',
    response: demoSchema,
  },
});

export const loanContracts = contracts({
  'GET /api/setups/:id/pieces-elsewhere': {
    summary:
      'Items this setup names that are in another active setup too, or lent for something else',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(pieceElsewhere) }),
  },
  'GET /api/loans': {
    summary: 'Loans: what is out or waited for, or what came back',
    role: 'reader',
    query: loanQuery,
    response: loanList,
  },
  'GET /api/loans/pieces': {
    summary: 'Items that can be lent, with where they are and the active setups that name them',
    role: 'reader',
    response: lendableList,
  },
  'POST /api/loans/check': {
    summary: "The borrower's chain as it stands and with the piece in its place; nothing is stored",
    role: 'reader',
    body: chainCheckBody,
    response: chainCheck,
  },
  'POST /api/loans': {
    summary: 'Lend an item now, or wait for it',
    role: 'member',
    body: loanBody,
    response: loanRow,
  },
  'PATCH /api/loans/:id': {
    summary: 'Hand over what was waited for, move the day it is due, or let the wish go',
    role: 'member',
    params: byId,
    body: loanPatch,
    response: loanRow,
    revision: 'required',
  },
  'POST /api/loans/:id/back': {
    summary: 'Take an item back: what is missing, how it looks, whether it works',
    role: 'member',
    params: byId,
    body: backBody,
    response: loanRow,
    revision: 'required',
  },
});

export const newsContracts = contracts({
  'GET /api/feeds': {
    summary: 'Release feeds, with how their last reading went',
    role: 'reader',
    response: z.object({ items: z.array(feedEntry) }),
  },
  'POST /api/feeds': {
    summary: 'Remember a feed (JSON Feed or Atom) to be read by hand or every so many hours',
    role: 'keeper',
    body: feedBody,
    response: feedEntry,
  },
  'PATCH /api/feeds/:id': {
    summary:
      'Change a feed: name, address, how often, whether it may lie on this machine or in the local network',
    role: 'keeper',
    params: byId,
    body: feedPatch,
    response: feedEntry,
    revision: 'required',
  },
  'DELETE /api/feeds/:id': {
    summary: 'Delete a feed and its news; releases made from it stay',
    role: 'keeper',
    params: byId,
    response: z.object({ removed: z.boolean() }),
  },
  'POST /api/feeds/:id/read': {
    summary: 'Read a feed now; what went wrong stands in the answer',
    role: 'member',
    params: byId,
    body: z.strictObject({}),
    response: feedEntry,
  },
  'GET /api/news': {
    summary: 'News of all feeds with the parts and logged symptoms it concerns, newest first',
    role: 'reader',
    response: newsList,
  },
  'PATCH /api/news/:id': {
    summary: 'Mark news as read or as new again',
    role: 'member',
    params: byId,
    body: newsState,
    response: newsEntry,
  },
  'POST /api/news/:id/release': {
    summary: 'Make a release of the catalogue out of news',
    role: 'member',
    params: byId,
    body: newsRelease,
    response: newsEntry,
  },
});
