import * as z from 'zod';
import {
  byId,
  contracts,
  encodingSchema,
  flag,
  pageOf,
  pageQuery,
  uuid,
} from '../../base/contract';
import { PART_KINDS, partKind } from '../../parts';
import { jobSchema, loadReport } from '../../parts/contract';
import { auditQuery, auditRow, auditRule, auditRuleAnswer } from './audit';
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
  accountAnswer,
  codesBegun,
  codesBody,
  confirmAnswer,
  confirmBody,
  meAnswer,
  memberBody,
  memberList,
  memberPatch,
  memberRow,
  passwordBody,
  recoveryCodes,
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
    audit: 'sign-in',
    body: signInBody,
    bodyLimit: '4kb',
    response: meAnswer,
  },
  'POST /api/sign-out': {
    summary: 'End the session',
    role: 'anyone',
    audit: 'sign-out',
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
    audit: 'member',
    confirm: true,
    body: memberBody,
    bodyLimit: '4kb',
    response: memberRow,
  },
  'PATCH /api/members/:id': {
    summary: 'Rename a member, give another role, let go or take back in',
    role: 'keeper',
    audit: 'member',
    confirm: true,
    params: byId,
    body: memberPatch,
    response: memberRow,
    revision: 'required',
  },
  'POST /api/members/:id/password': {
    summary:
      "A new password: one's own with the current one, or that of another by a keeper; every session under the old one ends",
    role: 'reader',
    audit: 'password',
    params: byId,
    body: passwordBody,
    bodyLimit: '4kb',
    response: memberRow,
  },
});

/** One's own account; where nobody signs in there is none. */
export const accountContracts = contracts({
  'GET /api/me/account': {
    summary: "One's own one-time codes and the browsers that are signed in",
    role: 'reader',
    response: accountAnswer,
  },
  'POST /api/me/confirm': {
    summary: 'Give the password again, before an act that asks for it',
    role: 'reader',
    audit: 'confirmation',
    body: confirmBody,
    bodyLimit: '4kb',
    response: confirmAnswer,
  },
  'POST /api/me/one-time-codes': {
    summary:
      'A new secret for an authenticator program; nothing changes until a code of it is given',
    role: 'reader',
    audit: 'one-time-codes',
    confirm: true,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: codesBegun,
  },
  'PUT /api/me/one-time-codes': {
    summary: 'Give the first code: from now on signing in asks for one; answers the recovery codes',
    role: 'reader',
    audit: 'one-time-codes',
    confirm: true,
    body: codesBody,
    bodyLimit: '1kb',
    response: recoveryCodes,
  },
  'DELETE /api/me/one-time-codes': {
    summary: 'No more one-time codes for me',
    role: 'reader',
    audit: 'one-time-codes',
    confirm: true,
    response: z.object({ removed: z.boolean() }),
  },
  'DELETE /api/members/:id/one-time-codes': {
    summary: 'No more one-time codes for a member who lost the device and the recovery codes',
    role: 'keeper',
    audit: 'one-time-codes',
    confirm: true,
    params: byId,
    response: z.object({ removed: z.boolean() }),
  },
  'DELETE /api/me/sessions/:id': {
    summary: 'End the session of another browser of mine',
    role: 'reader',
    audit: 'session',
    params: byId,
    response: accountAnswer,
  },
  'DELETE /api/me/sessions': {
    summary: 'End the sessions of all my other browsers',
    role: 'reader',
    audit: 'session',
    response: accountAnswer,
  },
});

export const auditContracts = contracts({
  'GET /api/audit': {
    summary: 'Who did what, newest first',
    role: 'keeper',
    query: auditQuery.extend(pageQuery),
    response: pageOf(auditRow),
  },
  'GET /api/audit-file': {
    summary: 'The same as a file, CSV or JSON',
    role: 'keeper',
    audit: 'download',
    query: auditQuery.extend({ format: z.enum(['csv', 'json']).default('csv') }),
    response: z.string(),
    sends: 'bytes',
  },
  'GET /api/audit/rule': {
    summary: 'How long the audit trail is kept, and how much of it there is',
    role: 'keeper',
    response: auditRuleAnswer,
  },
  'PUT /api/audit/rule': {
    summary: 'How long the audit trail is kept',
    role: 'keeper',
    audit: 'rule',
    confirm: true,
    body: auditRule,
    response: auditRuleAnswer,
    revision: 'required',
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
    audit: 'backup',
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: backupRow,
  },
  'PUT /api/backups/plan': {
    summary: 'How often backups are made by themselves, and how many of those are kept',
    role: 'keeper',
    audit: 'rule',
    body: backupPlan,
    response: backupPlan.extend({ rev: z.number().int() }),
    revision: 'required',
  },
  'POST /api/backups/:name/check': {
    summary: 'Try a backup by restoring it beside the database',
    role: 'keeper',
    audit: 'backup',
    params: byName,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: backupRow,
  },
  'POST /api/backups/:name/restore': {
    summary:
      'Put a backup in the place of everything; what is there now is tried and backed up first',
    role: 'keeper',
    audit: 'restore',
    confirm: true,
    params: byName,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: restoreReport,
  },
  'DELETE /api/backups/:name': {
    summary: 'Let a backup go',
    role: 'keeper',
    audit: 'removal',
    confirm: true,
    params: byName,
    response: z.object({ removed: z.boolean() }),
  },
  'GET /api/backup-file': {
    summary: 'A backup as a file, to keep somewhere else',
    role: 'keeper',
    audit: 'download',
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
    audit: 'download',
    response: bundleSchema,
  },
  'POST /api/bundle': {
    summary: 'Load a file, whole or not at all',
    role: 'keeper',
    audit: 'import',
    file: true,
    body: bundleSchema,
    bodyLimit: '128mb',
    response: loadReport,
  },
  'POST /api/bundle-loads': {
    summary: 'Begin to load a file, whole or not at all; says how far it is',
    role: 'keeper',
    audit: 'import',
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
    audit: 'download',
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
    audit: 'removal',
    confirm: true,
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
    audit: 'feed',
    body: feedBody,
    response: feedEntry,
  },
  'PATCH /api/feeds/:id': {
    summary:
      'Change a feed: name, address, how often, whether it may lie on this machine or in the local network',
    role: 'keeper',
    audit: 'feed',
    params: byId,
    body: feedPatch,
    response: feedEntry,
    revision: 'required',
  },
  'DELETE /api/feeds/:id': {
    summary: 'Delete a feed and its news; releases made from it stay',
    role: 'keeper',
    audit: 'removal',
    confirm: true,
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
