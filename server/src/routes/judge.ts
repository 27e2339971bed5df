import * as z from 'zod';
import { evaluateBody, evaluateResponse, ruleRow, rulePut } from '@ruddy/core/api';
import { RULE_IDS, type RuleId } from '@ruddy/core/house';
import { chainKey } from '@ruddy/core/log';
import { evaluate } from '@ruddy/core/plan';
import { headline } from '@ruddy/core/texts';
import { route } from '../http/route';
import { chainOf, resolveChain } from '../services/chain';
import { tallyOf } from '../services/evidence';
import { houseRules, listRules, putRule } from '../services/rules';
import { readSetup } from '../services/setup-store';

export const judgeRoutes = [
  route({
    method: 'post',
    path: '/api/evaluate',
    summary: 'Judge a chain: hops, pinch, findings, verdict. Parts by id or whole; nothing is stored',
    role: 'reader',
    body: evaluateBody,
    response: evaluateResponse,
    handle: async ({ body }, s) => {
      let base = null;
      if (body.setupId) {
        const { rows, row } = await readSetup(s.db, body.setupId);
        base = chainOf(rows, row.details);
      }
      const first = body.chain ? await resolveChain(s.db, body.chain, null) : base;
      const chain = body.patch ? await resolveChain(s.db, body.patch, first) : first;
      if (!chain) throw new Error('a checked body has a chain or a setup');
      const evidence = body.evidence === 'log' ? await tallyOf(s.db, chainKey(chain)) : undefined;
      const asOf = body.asOf ?? s.now().toISOString().slice(0, 10);
      const house = { ...(await houseRules(s.db)), ...body.rules };
      const evaluation = evaluate({ chain, context: { asOf, house, ...(evidence && { evidence }) } });
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
