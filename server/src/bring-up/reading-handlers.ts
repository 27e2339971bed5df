import { readingContracts } from '@ruddy/core/bring-up/contract';
import { readReport } from '@ruddy/core/bring-up';
import { readProblemText } from '@ruddy/core/bring-up/text';
import { invalid } from '../platform/http/problem';
import { implement } from '../platform/http/route';
import { addReading, listReadings } from './readings';
import { requireSetup } from '../setups/setups';

export const readingRoutes = implement(readingContracts, {
  'GET /api/setups/:id/readings': async ({ params }) => {
    await requireSetup(params.id);
    return { body: { items: await listReadings(params.id) } };
  },
  'POST /api/setups/:id/readings': async ({ params, body, actor }, s) => {
    const { fresh } = await addReading(s, params.id, body, actor);
    return { status: fresh ? 201 : 200, body: { items: await listReadings(params.id) } };
  },
  'POST /api/reports': ({ body }) => {
    const r = readReport(body.text);
    if (!r.ok) throw invalid('text', readProblemText(r.problem));
    return Promise.resolve({ body: { report: r.report } });
  },
});
