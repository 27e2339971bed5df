import { logContracts } from '@ruddy/core/compatibility/contract';
import { implement } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { listCompatibility, namesOfLog } from './compatibility';
import { askEvidence } from '../plan/evidence-entries';
import { startLogImport } from './log-import';
import { shareLogCsv, shareLogJson, shareLogReport } from './log-share';

export const logRoutes = implement(logContracts, {
  'GET /api/compatibility': async ({ query }, s) => ({ body: await listCompatibility(s, query) }),
  'GET /api/compatibility/names': async (_call, s) => ({ body: await namesOfLog(s) }),
  'POST /api/evidence': async ({ body }, s) => ({
    body: await askEvidence(s, await givenChain(s, body), body),
  }),
  'GET /api/log/share-report': async ({ query }, { db }) => ({
    body: await shareLogReport(db, query),
  }),
  'GET /api/log/share.json': async ({ query }, { db }) => ({
    body: JSON.stringify(await shareLogJson(db, query)),
    file: { name: 'compatibility-log.json', type: 'application/json' },
  }),
  'GET /api/log/share.csv': async ({ query }, { db }) => ({
    body: await shareLogCsv(db, query),
    file: { name: 'compatibility-log.csv', type: 'text/csv; charset=utf-8' },
  }),
  'POST /api/log/imports': async ({ query, body, actor }, s) => ({
    status: 202,
    body: await startLogImport(s, body, query, actor),
  }),
});
