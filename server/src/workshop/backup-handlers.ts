import { backupContracts } from '@ruddy/core/workshop/contract';
import { pipeline } from 'node:stream/promises';
import { implement } from '../platform/http/route';
import {
  backupBytes,
  backUpNow,
  checkBackup,
  dropBackup,
  listBackups,
  putPlan,
  restoreNamed,
} from './backups';

export const backupRoutes = implement(backupContracts, {
  'GET /api/backups': async (_call, s) => ({ body: await listBackups(s) }),
  'POST /api/backups': async ({ signal }, s) => ({ status: 201, body: await backUpNow(s, signal) }),
  'PUT /api/backups/plan': async ({ body, revision, actor }, s) => {
    const plan = await putPlan(s, body, revision, actor);
    return { body: plan, etag: plan.rev };
  },
  'POST /api/backups/:name/check': async ({ params, signal }, s) => ({
    body: await checkBackup(s, params.name, signal),
  }),
  'POST /api/backups/:name/restore': async ({ params, signal }, s) => ({
    body: await restoreNamed(s, params.name, signal),
  }),
  'DELETE /api/backups/:name': async ({ params }, s) => {
    await dropBackup(s, params.name);
    return { body: { removed: true } };
  },
  'GET /api/backup-file': async ({ query: { name } }, s, _req, res) => {
    const bytes = await backupBytes(s, name);
    res.attachment(name).type('application/octet-stream').setHeader('Cache-Control', 'no-store');
    await pipeline(bytes, res);
  },
});
