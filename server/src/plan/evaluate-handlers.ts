import { evaluateContracts } from '@ruddy/core/plan/contract';
import type * as z from 'zod';
import { RuleBook } from '@ruddy/core/base';
import { nearWeights } from '@ruddy/core/compatibility';
import { evaluate } from '@ruddy/core/plan';
import { type evaluateResponse } from '@ruddy/core/plan/contract';
import { verdictSentence } from '@ruddy/core/plan/text';
import { implement } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { groundsFor } from './context';
import { askedOf, evidenceOf } from './queries/evidence';
import { frameAsks } from '../runs/fits';
import { pricesOfFixes } from '../buy/fix-prices';
import { fixesFor } from './fixes';
import { listRules, putRule } from '../setups/rules';

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
      ...(body.frames && { frames: await frameAsks(body.frames) }),
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
