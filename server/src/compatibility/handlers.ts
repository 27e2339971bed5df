import {
  logContracts,
  outcomeContracts,
  statedContracts,
} from '@ruddy/core/compatibility/contract';
import { askEvidence } from '../plan/evidence-entries';
import { addOutcome } from '../plan/outcomes';
import { listOutcomes } from '../plan/queries/log-entries';
import { inTransaction } from '../platform/db/transaction';
import { invalid } from '../platform/http/problem';
import { implement } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { addEvent, recordOf } from '../setups/events';
import { EventModel } from '../setups/models/event';
import { requireSetup } from '../setups/setups';
import { listCompatibility } from './compatibility';
import { grid } from './grid';
import { startLogImport } from './log-import';
import { shareLogCsv, shareLogJson, shareLogReport } from './log-share';
import { namesOfLog } from './queries/logged-chains';
import { addClaim, addTitleNote, listClaims, titleRegister, withdraw } from './stated';

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
    about: `${query.name}${query.mode === 'try' ? ' (looked at only)' : ''}`,
  }),
});

export const outcomeRoutes = implement(outcomeContracts, {
  'GET /api/setups/:id/record': async ({ params }) => {
    await requireSetup(params.id);
    return { body: { items: await recordOf(params.id) } };
  },
  'POST /api/setups/:id/notes': async ({ params, body, actor }, s) => {
    const at = s.now();
    await inTransaction(async () => {
      if (await EventModel.findByPk(body.id)) return;
      const old =
        body.corrects === null ? null : await EventModel.findByPk(body.corrects, { raw: true });
      if (body.corrects !== null && (old?.setupId !== params.id || old.kind !== 'note'))
        throw invalid('corrects', 'No note of this setup has this id');
      const happenedAt = new Date(`${body.happenedOn}T12:00:00Z`);
      await addEvent({
        id: body.id,
        setupId: params.id,
        kind: 'note',
        body: { text: body.text },
        corrects: body.corrects,
        private: body.photo === '' ? null : { photo: body.photo },
        happenedAt,
        recordedAt: at,
        origin: 'own',
        by: actor.id,
      });
    });
    return { status: 201, body: { items: await recordOf(params.id) } };
  },
  'POST /api/setups/:id/outcomes': async ({ params, body, actor }, s) => {
    const { entry, fresh } = await addOutcome(s, params.id, body, actor);
    return { status: fresh ? 201 : 200, body: entry };
  },
  'GET /api/outcomes': async ({ query }) => ({ body: await listOutcomes(query) }),
});

export const statedRoutes = implement(statedContracts, {
  'GET /api/grid': async ({ query }, s) => ({ body: await grid(s, query) }),
  'GET /api/claims': async () => ({ body: { items: await listClaims() } }),
  'POST /api/claims': async ({ body, actor }, s) => {
    await addClaim(s, body, actor);
    return { status: 201, body: { items: await listClaims() } };
  },
  'POST /api/claims/:id/withdraw': async ({ params }, s) => {
    await withdraw(s, 'claims', params.id);
    return { body: { items: await listClaims() } };
  },
  'GET /api/register': async () => ({ body: await titleRegister() }),
  'POST /api/register': async ({ body, actor }, s) => {
    await addTitleNote(s, body, actor);
    return { status: 201, body: await titleRegister() };
  },
  'POST /api/register/:id/withdraw': async ({ params }, s) => {
    await withdraw(s, 'title_notes', params.id);
    return { body: await titleRegister() };
  },
});
