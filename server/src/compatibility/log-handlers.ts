import { namesOfLog } from './queries/logged-chains';
import { logContracts } from '@ruddy/core/compatibility/contract';
import { implement } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { listCompatibility } from './compatibility';
import { askEvidence } from '../plan/evidence-entries';
import { startLogImport } from './log-import';
import { shareLogCsv, shareLogJson, shareLogReport } from './log-share';

export const logRoutes = implement(logContracts, {
  'GET /api/compatibility': async ({ query }, s) => ({ body: await listCompatibility(s, query) }),
  'GET /api/compatibility/names': async () => ({ body: await namesOfLog() }),
  'POST /api/evidence': async ({ body }) => ({
    body: await askEvidence(await givenChain(body), body),
  }),
  'GET /api/log/share-report': async ({ query }) => ({
    body: await shareLogReport(query),
  }),
  'GET /api/log/share.json': async ({ query }) => ({
    body: JSON.stringify(await shareLogJson(query)),
    file: { name: 'compatibility-log.json', type: 'application/json' },
  }),
  'GET /api/log/share.csv': async ({ query }) => ({
    body: await shareLogCsv(query),
    file: { name: 'compatibility-log.csv', type: 'text/csv; charset=utf-8' },
  }),
  'POST /api/log/imports': async ({ query, body, actor }, s) => ({
    status: 202,
    body: await startLogImport(s, body, query, actor),
  }),
});
