import type { readReport } from '@ruddy/core/bring-up';
import { bringUpContracts, readingContracts } from '@ruddy/core/bring-up/contract';
import { readProblemText } from '@ruddy/core/bring-up/text';
import { readText } from '../platform/files/file-work';
import { invalid } from '../platform/http/problem';
import { type Services, implement } from '../platform/http/route';
import { requireSetup } from '../setups/setups';
import { addTry, beginAttempt, endAttempt, keepGood, noteStep, noteUse, strike } from './bring-up';
import { readBringUp } from './bring-up-read';
import { usedHours } from './queries/attempt-history';
import { addReading, listReadings } from './readings';

const answered = async (s: Services, setupId: string, fresh: boolean) => {
  const body = await readBringUp(setupId);
  return { status: fresh ? 201 : 200, body, etag: body.setup.rev };
};

export const bringUpRoutes = implement(bringUpContracts, {
  'GET /api/setups/:id/bring-up': async ({ params }) => {
    const body = await readBringUp(params.id);
    return { body, etag: body.setup.rev };
  },
  'POST /api/setups/:id/attempts': async ({ params, body, actor }, s) =>
    answered(s, params.id, await beginAttempt(s, params.id, body, actor)),
  'POST /api/setups/:id/attempts/:attempt/end': async ({ params, body, actor }, s) =>
    answered(s, params.id, await endAttempt(s, params.id, params.attempt, body, actor)),
  'POST /api/setups/:id/steps': async ({ params, body, actor }, s) =>
    answered(s, params.id, await noteStep(s, params.id, body, actor)),
  'POST /api/setups/:id/tries': async ({ params, body, actor }, s) =>
    answered(s, params.id, await addTry(s, params.id, body, actor)),
  'POST /api/setups/:id/used': async ({ params, body, actor }, s) =>
    answered(s, params.id, await noteUse(s, params.id, body, actor)),
  'GET /api/used': async () => ({ body: { items: await usedHours() } }),
  'POST /api/setups/:id/struck': async ({ params, body, actor }, s) =>
    answered(s, params.id, await strike(s, params.id, body, actor)),
  'POST /api/setups/:id/good': async ({ params, body, actor }, s) =>
    answered(s, params.id, await keepGood(s, params.id, body, actor)),
});

export const readingRoutes = implement(readingContracts, {
  'GET /api/setups/:id/readings': async ({ params }) => {
    await requireSetup(params.id);
    return { body: { items: await listReadings(params.id) } };
  },
  'POST /api/setups/:id/readings': async ({ params, body, actor }, s) => {
    const { fresh } = await addReading(s, params.id, body, actor);
    return { status: fresh ? 201 : 200, body: { items: await listReadings(params.id) } };
  },
  'POST /api/reports': async ({ body }, s) => {
    const r = await readText<ReturnType<typeof readReport>>(s, 'report', body.text);
    if (!r.ok) throw invalid('text', readProblemText(r.problem));
    return { body: { report: r.report } };
  },
});
