import { access } from 'node:fs/promises';
import { healthContracts } from '@ruddy/core/base/contract';
import { answers } from '../db/database';
import { LATEST, newestStep } from '../db/migrate';
import { HttpProblem, notFound } from '../http/problem';
import { implement, type Services } from '../http/route';
import { sameText } from './same-text';

type State = 'ok' | 'down';
const stateOf = (work: Promise<boolean>): Promise<State> =>
  work.then(
    (good) => (good ? ('ok' as const) : ('down' as const)),
    () => 'down' as const,
  );

/** The program of the threads that read files is where it is looked for. */
async function threadsThere(s: Services): Promise<boolean> {
  await access(new URL('./file-thread.mjs', s.threads ?? import.meta.url));
  return true;
}

export const healthRoutes = implement(healthContracts, {
  'GET /api/live': () => Promise.resolve({ body: { status: 'ok' as const } }),
  'GET /api/ready': async (_call, s) => {
    const [db, schema, threads] = await Promise.all([
      stateOf(answers().then(() => true)),
      stateOf(newestStep().then((name) => name === LATEST)),
      stateOf(threadsThere(s)),
    ]);
    const ready = [db, schema, threads].every((state) => state === 'ok');
    return {
      status: ready ? 200 : 503,
      body: { status: ready ? 'ok' : 'down', database: db, schema, threads },
    };
  },
  'GET /api/metrics': async ({ visit }, s, req, res) => {
    if (!s.meter) throw notFound('metrics');
    const sent = /^Bearer (.+)$/.exec(req.header('authorization') ?? '')?.[1] ?? '';
    const byToken = s.metricsToken !== undefined && sameText(sent, s.metricsToken);
    if (!byToken && visit.actor?.role !== 'keeper')
      throw new HttpProblem(401, 'Metrics are for keepers', {
        detail: 'Sign in as a keeper, or send the token of RUDDY_METRICS_TOKEN as a bearer token',
      });
    res.type(s.meter.registry.contentType).setHeader('Cache-Control', 'no-store');
    res.send(await s.meter.registry.metrics());
  },
});
