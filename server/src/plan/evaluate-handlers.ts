import * as z from 'zod';
import { RULE_IDS, RuleBook, type RuleId } from '@ruddy/core/base';
import { nearWeights } from '@ruddy/core/compatibility';
import { evaluate } from '@ruddy/core/plan';
import {
  evaluateBody,
  evaluateResponse,
  fixesBody,
  fixesResponse,
  rulePut,
  ruleRow,
} from '@ruddy/core/plan/contract';
import { verdictSentence } from '@ruddy/core/plan/text';
import { route } from '../platform/http/route';
import { givenChain } from '../setups/chain-given';
import { groundsFor } from './context';
import { askedOf, evidenceOf } from './evidence';
import { frameAsks } from '../runs/fits';
import { pricesOfFixes } from '../buy/fix-prices';
import { fixesFor } from './fixes';
import { listRules, putRule } from '../setups/rules';

export const judgeRoutes = [
  route({
    method: 'post',
    path: '/api/evaluate',
    summary:
      'Judge a chain: hops, pinch, findings, verdict. Parts by id or whole; nothing is stored',
    role: 'reader',
    body: evaluateBody,
    response: evaluateResponse,
    handle: async ({ body }, s) => {
      const chain = await givenChain(s, body);
      const grounds = await groundsFor(s, [chain], body.rules, body.asOf);
      const rules = new RuleBook(grounds.house);
      const weights = nearWeights((id) => rules.get(id));
      const evidence =
        body.evidence === 'log' ? await evidenceOf(s.db, askedOf(chain, weights)) : undefined;
      const { requirements, releases } = body;
      const context = {
        ...grounds,
        ...(requirements && { requirements }),
        ...(releases && { releases }),
        ...(evidence && { evidence }),
        ...(body.frames && { frames: await frameAsks(s.db, body.frames) }),
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
  }),
  route({
    method: 'post',
    path: '/api/fixes',
    summary: 'Changes that take a finding of a chain away, each judged whole; nothing is stored',
    role: 'reader',
    body: fixesBody,
    response: fixesResponse,
    handle: async ({ body }, s) => {
      const chain = await givenChain(s, body);
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
  }),
  route({
    method: 'get',
    path: '/api/rules',
    summary: 'House rules: default, own value, unit, reason',
    role: 'reader',
    response: z.object({ items: z.array(ruleRow) }),
    handle: async (_call, { db }) => ({ body: { items: await listRules(db) } }),
  }),
  route({
    method: 'put',
    path: '/api/rules/:id',
    summary: 'Set a house rule with its reason; null goes back to the default',
    role: 'keeper',
    params: z.strictObject({ id: z.enum(RULE_IDS as [RuleId, ...RuleId[]]) }),
    body: rulePut,
    response: ruleRow,
    handle: async ({ params, body, ifMatch, actor }, s) => {
      const row = await putRule(s, params.id, body, ifMatch, actor);
      return { body: row, etag: row.rev };
    },
  }),
];
