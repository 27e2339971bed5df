import * as z from 'zod';
import { RULE_IDS, type RuleId } from '../../base';
import { byId, contracts } from '../../base/contract';
import { setupSchema } from '../../setups/contract';
import { forecastList } from '../../runs/contract';
import { evaluateBody, evaluateResponse, forecastBody, rulePut, ruleRow } from './evaluate';
import { fixesBody, fixesResponse, installedBody, touchedRow } from './fixes';
import { searchHit, setupPage, setupQuery, summarySchema } from './setup-list';

export const planContracts = contracts({
  'GET /api/releases/:id/setups': {
    summary: 'Setups a release touches: what is installed there and what it would mend',
    role: 'reader',
    params: byId,
    response: z.object({ items: z.array(touchedRow) }),
  },
  'POST /api/setups/:id/installed': {
    summary: 'Mark a version as installed on a setup, with its date and what came of it',
    role: 'member',
    params: byId,
    body: installedBody,
    response: setupSchema,
    revision: 'required',
  },
  'GET /api/search': {
    summary: 'Setups and parts by name',
    role: 'reader',
    query: z.strictObject({
      q: z.string().trim().min(1).max(100),
      limit: z.coerce.number().int().min(1).max(50).default(8),
    }),
    response: z.object({ items: z.array(searchHit) }),
  },
  'GET /api/setups': {
    summary: 'Setups by name, each with its judgement at a glance',
    role: 'reader',
    query: setupQuery,
    response: setupPage,
  },
  'GET /api/setups/summary': {
    summary: 'Counts by verdict, and the setup that needs someone first',
    role: 'reader',
    response: summarySchema,
  },
});

export const evaluateContracts = contracts({
  'POST /api/evaluate': {
    summary:
      'Judge a chain: hops, pinch, findings, verdict. Parts by id or whole; nothing is stored',
    role: 'reader',
    body: evaluateBody,
    response: evaluateResponse,
  },
  'POST /api/forecasts': {
    summary:
      'Frames to expect of titles on a chain, with their bands and what the link costs; nothing is stored',
    role: 'reader',
    body: forecastBody,
    response: forecastList,
  },
  'POST /api/fixes': {
    summary: 'Changes that take a finding of a chain away, each judged whole; nothing is stored',
    role: 'reader',
    body: fixesBody,
    response: fixesResponse,
  },
  'GET /api/rules': {
    summary: 'House rules: default, own value, unit, reason',
    role: 'reader',
    response: z.object({ items: z.array(ruleRow) }),
  },
  'PUT /api/rules/:id': {
    summary: 'Set a house rule with its reason; null goes back to the default',
    role: 'keeper',
    audit: 'rule',
    params: z.strictObject({ id: z.enum(RULE_IDS as [RuleId, ...RuleId[]]) }),
    body: rulePut,
    response: ruleRow,
    revision: 'required',
  },
});
