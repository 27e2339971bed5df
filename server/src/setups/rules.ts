import { inTransaction } from '../platform/db/transaction';
import { type HouseRules, RULE_IDS, type RuleId, ruleProblem, RULES } from '@ruddy/core/base';
import { defaultRow, type RuleRow } from '@ruddy/core/plan/contract';
import { invalid } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { lock } from '../platform/db/locks';
import type { SettingModel } from './models/setting';
import { putSetting, settingsWhere } from './settings';

interface Row {
  key: string;
  value: number | null;
  reason: string;
  rev: number;
}

async function stored(): Promise<Row[]> {
  return (await settingsWhere({ key: [...RULE_IDS] })) as (SettingModel & Row)[];
}

/** Every house rule with its default and, where the workshop has one, its own value and reason. */
export async function listRules(): Promise<RuleRow[]> {
  const rows = await stored();
  return RULE_IDS.map((id) => {
    const own = rows.find((r) => r.key === id);
    return own
      ? { ...defaultRow(id), value: own.value, reason: own.reason, rev: own.rev }
      : defaultRow(id);
  });
}

/** The workshop's changed rules, as the core takes them. */
export async function houseRules(): Promise<HouseRules> {
  const own = (await stored()).filter((r) => r.value !== null);
  return Object.fromEntries(own.map((r) => [r.key, r.value]));
}

/** Reads a rule as this workshop has it. */
export async function ruleReader(): Promise<(id: RuleId) => number> {
  const own = await houseRules();
  return (id) => own[id] ?? RULES[id].default;
}

/** Set or clear a rule, under the revision the page showed. */
export async function putRule(
  s: Services,
  id: RuleId,
  body: { value: number | null; reason: string },
  revision: number,
  actor: Actor,
): Promise<RuleRow> {
  const problem = body.value === null ? null : ruleProblem(id, body.value);
  if (problem) throw invalid('value', problem);
  return inTransaction(async () => {
    await lock('houseRules');
    const now = (await listRules()).find((r) => r.id === id) ?? defaultRow(id);
    checkRevision(revision, now.rev, now);
    await putSetting(id, body.value, { at: s.now(), by: actor.id }, body.reason);
    return (await listRules()).find((r) => r.id === id) ?? defaultRow(id);
  });
}
