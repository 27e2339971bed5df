import * as z from 'zod';
import { evaluateBody, evaluateResponse, fixesBody, fixesResponse, ruleRow, rulePut } from '@ruddy/core/api';
import { RULE_IDS, type RuleId } from '@ruddy/core/house';
import { chainKey } from '@ruddy/core/log';
import { evaluate } from '@ruddy/core/plan';
import { headline } from '@ruddy/core/texts';
import type { Chain } from '@ruddy/core/schema';
import { invalid } from '../http/problem';
import { route, type Services } from '../http/route';
import { chainOf, resolveChain } from '../services/chain';
import { groundsFor } from '../services/context';
import { tallyOf } from '../services/evidence';
import { frameAsks } from '../services/fits';
import { fixesFor } from '../services/fixes';
import { listRules, putRule } from '../services/rules';
import { readSetup } from '../services/setup-store';

/** The chain a body names: given whole or by id, or that of a setup, with a patch on top. */
async function givenChain(s: Services, body: Pick<z.output<typeof evaluateBody>, 'chain' | 'setupId' | 'patch'>): Promise<Chain> {
  let base = null;
  if (body.setupId) {
    const { rows, row } = await readSetup(s.db, body.setupId);
    base = chainOf(rows, row.details);
  }
  const first = body.chain ? await resolveChain(s.db, body.chain, null) : base;
  const chain = body.patch ? await resolveChain(s.db, body.patch, first) : first;
  if (!chain) throw invalid('chain', 'Give either a chain or a setupId');
  return chain;
}

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
      const evidence = body.evidence === 'log' ? await tallyOf(s.db, chainKey(chain)) : undefined;
      const grounds = await groundsFor(s, [chain], body.rules, body.asOf);
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
