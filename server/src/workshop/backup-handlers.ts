import { pipeline } from 'node:stream/promises';
import * as z from 'zod';
import {
  backupList,
  backupName,
  backupPlan,
  backupRow,
  restoreReport,
} from '@ruddy/core/workshop/contract';
import { route, streamRoute } from '../platform/http/route';
import {
  backupBytes,
  backUpNow,
  checkBackup,
  dropBackup,
  listBackups,
  putPlan,
  restoreNamed,
} from './backups';

const byName = z.strictObject({ name: backupName });

export const backupRoutes = [
  route({
    method: 'get',
    path: '/api/backups',
    summary: 'Backups of this server, newest first, and the plan they are made by',
    role: 'keeper',
    response: backupList,
    handle: async (_call, s) => ({ body: await listBackups(s) }),
  }),
  route({
    method: 'post',
    path: '/api/backups',
    summary: 'Back everything up now; leaving the request stops it and nothing stays',
    role: 'keeper',
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: backupRow,
    handle: async ({ signal }, s) => ({ status: 201, body: await backUpNow(s, signal) }),
  }),
  route({
    method: 'put',
    path: '/api/backups/plan',
    summary: 'How often backups are made by themselves, and how many of those are kept',
    role: 'keeper',
    body: backupPlan,
    response: backupPlan.extend({ rev: z.number().int() }),
    handle: async ({ body, ifMatch, actor }, s) => {
      const plan = await putPlan(s, body, ifMatch, actor);
      return { body: plan, etag: plan.rev };
    },
  }),
  route({
    method: 'post',
    path: '/api/backups/:name/check',
    summary: 'Try a backup by restoring it beside the database',
    role: 'keeper',
    params: byName,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: backupRow,
    handle: async ({ params, signal }, s) => ({ body: await checkBackup(s, params.name, signal) }),
  }),
  route({
    method: 'post',
    path: '/api/backups/:name/restore',
    summary:
      'Put a backup in the place of everything; what is there now is tried and backed up first',
    role: 'keeper',
    params: byName,
    body: z.strictObject({}),
    bodyLimit: '1kb',
    response: restoreReport,
    handle: async ({ params, signal }, s) => ({ body: await restoreNamed(s, params.name, signal) }),
  }),
  route({
    method: 'delete',
    path: '/api/backups/:name',
    summary: 'Let a backup go',
    role: 'keeper',
    params: byName,
    response: z.object({ removed: z.boolean() }),
    handle: async ({ params }, s) => {
      await dropBackup(s, params.name);
      return { body: { removed: true } };
    },
  }),
  streamRoute({
    path: '/api/backup-file',
    summary: 'A backup as a file, to keep somewhere else',
    role: 'keeper',
    query: byName,
    response: z.string(),
    async open({ name }, s, _req, res) {
      const bytes = await backupBytes(s, name);
      res.attachment(name).type('application/octet-stream').setHeader('Cache-Control', 'no-store');
      await pipeline(bytes, res);
    },
  }),
];
