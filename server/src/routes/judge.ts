import * as z from 'zod';
import { evaluateBody, evaluateResponse, fixesBody, fixesResponse, ruleRow, rulePut } from '@ruddy/core/api';
import { RULE_IDS, RuleBook, type RuleId } from '@ruddy/core/house';
import { nearWeights } from '@ruddy/core/log';
import { evaluate } from '@ruddy/core/plan';
import { headline } from '@ruddy/core/texts';
import { route } from '../http/route';
import { givenChain } from '../services/chain-given';
import { groundsFor } from '../services/context';
import { askedOf, evidenceOf } from '../services/evidence';
import { frameAsks } from '../services/fits';
import { fixesFor } from '../services/fixes';
import { listRules, putRule } from '../services/rules';

export const judgeRoutes = [
  route({
    method: 'post',
    path: '/api/evaluate',
    summary: 'Judge a chain: hops, pinch, findings, verdict. Parts by id or whole; nothing is stored',
    role: 'reader',
    body: evaluateBody,
    response: evaluateResponse,
    handle: async ({ body }, s) => {
      const chain = await givenChain(s, body);
      const grounds = await groundsFor(s, [chain], body.rules, body.asOf);
      const rules = new RuleBook(grounds.house);
      const weights = nearWeights((id) => rules.get(id));
      const evidence = body.evidence === 'log' ? await evidenceOf(s.db, askedOf(chain, weights)) : undefined;
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
          sentence: headline(evaluation),
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
      return { body: await fixesFor(s, chain, { code, ...(about !== undefined && { about }) }) };
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
