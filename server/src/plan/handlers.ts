import { RuleBook } from '@ruddy/core/base';
import { nearWeights } from '@ruddy/core/compatibility';
import { evaluate, rigOfEvaluation } from '@ruddy/core/plan';
import { evaluateContracts, type evaluateResponse, planContracts } from '@ruddy/core/plan/contract';
import { verdictSentence } from '@ruddy/core/plan/text';
import type * as z from 'zod';
import { pricesOfFixes } from '../buy/fix-prices';
import { implement } from '../platform/http/route';
import { frameAsks } from '../runs/frame-titles';
import { inFrameThread } from '../runs/frame-work';
import { givenChain } from '../setups/chain-given';
import { listRules, putRule } from '../setups/rules';
import { groundsFor } from './context';
import { fixesFor } from './fixes';
import { askedOf, evidenceOf } from './queries/evidence';
import { markInstalled, touchedBy } from './releases';
import { search, listSetups, summarise } from './setup-list';

export const judgeRoutes = implement(evaluateContracts, {
  'POST /api/evaluate': async ({ body }, s) => {
    const chain = await givenChain(body);
    const grounds = await groundsFor(s, [chain], body.rules, body.asOf);
    const rules = new RuleBook(grounds.house);
    const weights = nearWeights((id) => rules.get(id));
    const evidence =
      body.evidence === 'log' ? await evidenceOf(askedOf(chain, weights)) : undefined;
    const { requirements, releases } = body;
    const context = {
      ...grounds,
      ...(requirements && { requirements }),
      ...(releases && { releases }),
      ...(evidence && { evidence }),
    };
    const evaluation = evaluate({ chain, context });
    return {
      body: {
        sentence: verdictSentence(evaluation),
        chain,
        evaluation: evaluation as unknown as z.input<typeof evaluateResponse>['evaluation'],
      },
    };
  },
  'POST /api/forecasts': async ({ body }, s) => {
    const chain = await givenChain(body);
    const context = await groundsFor(s, [chain], body.rules);
    const rig = rigOfEvaluation(chain, evaluate({ chain, context }));
    const asks = await frameAsks(body.frames);
    return {
      body: { items: await inFrameThread(s, 'forecasts', { rig, asks, refined: body.refined }) },
    };
  },
  'POST /api/fixes': async ({ body }, s) => {
    const chain = await givenChain(body);
    const { code, about } = body;
    return {
      body: await fixesFor(
        s,
        chain,
        { code, ...(about !== undefined && { about }) },
        pricesOfFixes,
      ),
    };
  },
  'GET /api/rules': async () => ({ body: { items: await listRules() } }),
  'PUT /api/rules/:id': async ({ params, body, revision, actor }, s) => {
    const row = await putRule(s, params.id, body, revision, actor);
    return { body: row, etag: row.rev };
  },
});

export const planRoutes = implement(planContracts, {
  'GET /api/releases/:id/setups': async ({ params }, s) => ({
    body: { items: await touchedBy(s, params.id) },
  }),
  'POST /api/setups/:id/installed': async ({ params, body, revision, actor }, s) => {
    const setup = await markInstalled(s, params.id, body, revision, actor);
    return { status: 201, body: setup, etag: setup.rev };
  },
  'GET /api/search': async ({ query }) => ({
    body: { items: await search(query.q, query.limit) },
  }),
  'GET /api/setups': async ({ query }, s) => ({ body: await listSetups(s, query) }),
  'GET /api/setups/summary': async (_call, s) => ({ body: await summarise(s) }),
});
