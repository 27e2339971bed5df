import { reportSchema } from '@ruddy/core/bring-up';
import { PART_SCHEMAS } from '@ruddy/core/parts';
import { captureSchema } from '@ruddy/core/runs/contract';
import { concernsHere } from '@ruddy/core/workshop';
import {
  accessContracts,
  accountContracts,
  auditContracts,
  backupContracts,
  dataContracts,
  bundleSchema,
  loanContracts,
  newsContracts,
} from '@ruddy/core/workshop/contract';
import { pipeline } from 'node:stream/promises';
import * as z from 'zod';
import { endSession } from '../platform/access/sessions';
import { answers } from '../platform/db/database';
import { HttpProblem, notFound } from '../platform/http/problem';
import { implement } from '../platform/http/route';
import { VERSION } from './backup/make';
import {
  backupBytes,
  backUpNow,
  checkBackup,
  dropBackup,
  listBackups,
  putPlan,
  restoreNamed,
} from './backups';
import { acceptCodes, beginCodes, dropCodes, endMine, readAccount } from './account';
import { listAudit, putAuditRule, readAuditRule, writeAuditFile } from './audit';
import { exportBundle } from './bundle-export';
import { loadWhole, startLoad } from './bundle-file';
import { removeDemo } from './demo';
import { createFeed, listFeeds, patchFeed, readNow, removeFeed } from './feeds';
import { checkLoan } from './loan-check';
import { createLoan, listLoans, patchLoan, takeBack } from './loans';
import { createMember, listMembers, patchMember } from './members';
import { confirm, setPassword, signIn } from './sign-in';
import { keepRelease, listNews, markNews } from './news';
import { demoReport } from './queries/demo-rows';
import { listLendable } from './queries/loan-rows';
import { piecesElsewhere } from './queries/pieces-elsewhere';
import { shareFile, shareReport } from './share';

export const accessRoutes = implement(accessContracts, {
  'GET /api/me': ({ visit }, s) =>
    Promise.resolve({ body: { signIn: s.access !== undefined, member: visit.actor } }),
  'POST /api/sign-in': async ({ body, visit }, s) => {
    if (!s.access)
      throw new HttpProblem(409, 'Nobody signs in here', {
        detail: 'Only this machine reaches this server; nobody signs in',
      });
    const { member, token, known } = await signIn(s, body, visit);
    return { body: { signIn: true, member }, session: token, known, by: member };
  },
  'POST /api/sign-out': async ({ visit }, s) => {
    if (visit.token !== null) await endSession(visit.token);
    return { body: { signIn: s.access !== undefined, member: null }, session: null };
  },
  'GET /api/members': async (_call, s) => ({ body: { items: await listMembers(s) } }),
  'POST /api/members': async ({ body }, s) => {
    const { row, fresh } = await createMember(s, body);
    return {
      status: fresh ? 201 : 200,
      body: row,
      etag: row.rev,
      about: `${row.name}: ${row.role}`,
    };
  },
  'PATCH /api/members/:id': async ({ params, body, revision }, s) => {
    const row = await patchMember(s, params.id, body, revision);
    const now = `${row.name}: ${row.role}${row.active ? '' : ', deactivated'}`;
    return { body: row, etag: row.rev, about: now };
  },
  'POST /api/members/:id/password': async ({ params, body, actor, visit }, s) => {
    const { row, session } = await setPassword(s, params.id, body, actor, visit);
    return {
      body: row,
      about: row.name,
      ...(session && { session: session.token, known: session.known }),
    };
  },
});

export const accountRoutes = implement(accountContracts, {
  'GET /api/me/account': async ({ actor, visit }, s) => ({
    body: await readAccount(s, { actor, session: visit.session }),
  }),
  'POST /api/me/confirm': async ({ body, actor, visit }, s) => ({
    body: { until: (await confirm(s, body, actor, visit)).toISOString() },
    about: actor.name,
  }),
  'POST /api/me/one-time-codes': async ({ actor, visit }) => ({
    body: await beginCodes({ actor, session: visit.session }),
    about: `${actor.name}: begun`,
  }),
  'PUT /api/me/one-time-codes': async ({ body, actor, visit }, s) => ({
    body: { recovery: await acceptCodes(s, { actor, session: visit.session }, body.code) },
    about: `${actor.name}: on`,
  }),
  'DELETE /api/me/one-time-codes': async ({ actor }) => ({
    about: `${await dropCodes(actor.id)}: off`,
    body: { removed: true },
  }),
  'DELETE /api/members/:id/one-time-codes': async ({ params }) => ({
    about: `${await dropCodes(params.id)}: off`,
    body: { removed: true },
  }),
  'DELETE /api/me/sessions/:id': async ({ params, actor, visit }, s) => ({
    body: await endMine(s, { actor, session: visit.session }, params.id),
  }),
  'DELETE /api/me/sessions': async ({ actor, visit }, s) => ({
    body: await endMine(s, { actor, session: visit.session }, null),
    about: 'all other browsers',
  }),
});

export const auditRoutes = implement(auditContracts, {
  'GET /api/audit': async ({ query }) => ({ body: await listAudit(query) }),
  'GET /api/audit-file': async ({ query: { format, ...query } }, _s, _req, res) => {
    res.attachment(`audit-trail.${format}`).setHeader('Cache-Control', 'no-store');
    await writeAuditFile(query, format, res);
  },
  'GET /api/audit/rule': async () => {
    const rule = await readAuditRule();
    return { body: rule, etag: rule.rev };
  },
  'PUT /api/audit/rule': async ({ body, revision, actor }, s) => {
    const rule = await putAuditRule(s, body, revision, actor);
    return { body: rule, etag: rule.rev, about: `audit trail: kept ${rule.days} days` };
  },
});

export const backupRoutes = implement(backupContracts, {
  'GET /api/backups': async (_call, s) => ({ body: await listBackups(s) }),
  'POST /api/backups': async ({ signal }, s) => {
    const row = await backUpNow(s, signal);
    return { status: 201, body: row, about: row.name };
  },
  'PUT /api/backups/plan': async ({ body, revision, actor }, s) => {
    const plan = await putPlan(s, body, revision, actor);
    return { body: plan, etag: plan.rev, about: 'plan of backups' };
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

export const dataRoutes = implement(dataContracts, {
  'GET /api/health': async (_call, s) => {
    const up = await answers().then(
      () => true,
      () => false,
    );
    const word = up ? ('ok' as const) : ('down' as const);
    return {
      status: up ? 200 : 503,
      body: { status: word, database: word, version: VERSION, now: s.now().toISOString() },
    };
  },
  'GET /api/schemas/:name': ({ params }) => {
    const schema = {
      bundle: bundleSchema,
      report: reportSchema,
      capture: captureSchema,
      ...PART_SCHEMAS,
    }[params.name];
    if (!schema) throw notFound('format');
    return Promise.resolve({
      body: z.toJSONSchema(schema, { io: 'input', unrepresentable: 'any' }),
    });
  },
  'GET /api/bundle': async () => ({ body: await exportBundle(), about: 'everything' }),
  'POST /api/bundle': async ({ body, actor }, s) => ({ body: await loadWhole(s, body, actor) }),
  'POST /api/bundle-loads': async ({ body, query, actor }, s) => ({
    status: 202,
    about: query.name,
    body: await startLoad(s, body, query, actor),
  }),
  'GET /api/setups/:id/share': async ({ params }) => ({ body: await shareReport(params.id) }),
  'GET /api/setups/:id/share-file': async ({ params, query }) => ({
    body: await shareFile(params.id, query.prices),
  }),
  'GET /api/demo': async () => ({ body: await demoReport() }),
  'DELETE /api/demo': async () => ({ body: await removeDemo() }),
});

export const loanRoutes = implement(loanContracts, {
  'GET /api/setups/:id/pieces-elsewhere': async ({ params }) => ({
    body: { items: await piecesElsewhere(params.id) },
  }),
  'GET /api/loans': async ({ query }) => ({ body: { items: await listLoans(query) } }),
  'GET /api/loans/pieces': async () => ({ body: { items: await listLendable() } }),
  'POST /api/loans/check': async ({ body }, s) => ({
    body: await checkLoan(s, body.itemId, body.setupId),
  }),
  'POST /api/loans': async ({ body, actor }, s) => {
    const { loan, fresh } = await createLoan(s, body, actor);
    return { status: fresh ? 201 : 200, body: loan, etag: loan.rev };
  },
  'PATCH /api/loans/:id': async ({ params, body, revision }, s) => {
    const loan = await patchLoan(s, params.id, body, revision);
    return { body: loan, etag: loan.rev };
  },
  'POST /api/loans/:id/back': async ({ params, body, revision, actor }, s) => {
    const loan = await takeBack(s, params.id, body, revision, actor);
    return { body: loan, etag: loan.rev };
  },
});

export const newsRoutes = implement(newsContracts, {
  'GET /api/feeds': async () => ({ body: { items: await listFeeds() } }),
  'POST /api/feeds': async ({ body, actor }, s) => {
    const { feed, fresh } = await createFeed(s, body, actor);
    return { status: fresh ? 201 : 200, body: feed, etag: feed.rev, about: feed.name };
  },
  'PATCH /api/feeds/:id': async ({ params, body, revision }, s) => {
    const feed = await patchFeed(s, params.id, body, revision);
    return { body: feed, etag: feed.rev, about: feed.name };
  },
  'DELETE /api/feeds/:id': async ({ params }) => {
    await removeFeed(params.id);
    return { body: { removed: true } };
  },
  'POST /api/feeds/:id/read': async ({ params }, s) => ({ body: await readNow(s, params.id) }),
  'GET /api/news': async () => {
    const items = await listNews();
    return {
      body: { items, concerns: items.filter((n) => n.state === 'new' && concernsHere(n)).length },
    };
  },
  'PATCH /api/news/:id': async ({ params, body }) => ({
    body: await markNews(params.id, body.state),
  }),
  'POST /api/news/:id/release': async ({ params, body, actor }, s) => ({
    status: 201,
    body: await keepRelease(s, params.id, body, actor),
  }),
});
