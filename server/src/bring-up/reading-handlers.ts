import * as z from 'zod';
import { uuid } from '@ruddy/core/base/contract';
import { readReport } from '@ruddy/core/bring-up';
import {
  readingBody,
  readingEntry,
  reportBody,
  reportResponse,
} from '@ruddy/core/bring-up/contract';
import { readProblemText } from '@ruddy/core/bring-up/text';
import { invalid } from '../platform/http/problem';
import { route } from '../platform/http/route';
import { addReading, listReadings } from './readings';
import { requireSetup } from '../setups/setups';

const byId = z.strictObject({ id: uuid });
const list = z.object({ items: z.array(readingEntry) });

export const readingRoutes = [
  route({
    method: 'get',
    path: '/api/setups/:id/readings',
    summary: 'Readings of a setup, newest first, as they were graded',
    role: 'reader',
    params: byId,
    response: list,
    handle: async ({ params }, s) => {
      await requireSetup(s, params.id);
      return { body: { items: await listReadings(s.db, params.id) } };
    },
  }),
  route({
    method: 'post',
    path: '/api/setups/:id/readings',
    summary: 'Store what was read of the link, held against the chain as it stands now',
    role: 'member',
    params: byId,
    body: readingBody,
    bodyLimit: '4mb',
    response: list,
    handle: async ({ params, body, actor }, s) => {
      const { fresh } = await addReading(s, params.id, body, actor);
      return { status: fresh ? 201 : 200, body: { items: await listReadings(s.db, params.id) } };
    },
  }),
  route({
    method: 'post',
    path: '/api/reports',
    summary:
      'Read a pasted bus listing or a JSON report; private fields are dropped and nothing is stored',
    role: 'reader',
    body: reportBody,
    bodyLimit: '8mb',
    response: reportResponse,
    handle: ({ body }) => {
      const r = readReport(body.text);
      if (!r.ok) throw invalid('text', readProblemText(r.problem));
      return Promise.resolve({ body: { report: r.report } });
    },
  }),
];
