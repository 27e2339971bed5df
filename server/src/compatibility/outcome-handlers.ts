import { inTransaction } from '../platform/db/transaction';
import { outcomeContracts } from '@ruddy/core/compatibility/contract';
import { implement } from '../platform/http/route';
import { EventModel } from '../setups/models/event';
import { invalid } from '../platform/http/problem';
import { addEvent, recordOf } from '../setups/events';
import { listOutcomes } from '../plan/queries/log-entries';
import { addOutcome } from '../plan/outcomes';
import { requireSetup } from '../setups/setups';

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
