import { execute, select } from '../platform/db/database';
import { inTransaction } from '../platform/db/transaction';
import { type HouseRules, RULE_IDS, type RuleId, ruleProblem, RULES } from '@ruddy/core/base';
import { defaultRow, type RuleRow } from '@ruddy/core/plan/contract';
import { invalid } from '../platform/http/problem';
import { checkRevision, type Actor, type Services } from '../platform/http/route';
import { newId } from '../platform/db/ids';

interface Row {
  key: string;
  value: number | null;
  reason: string;
  rev: number;
}

async function stored(): Promise<Row[]> {
  return select<Row>(
    `SELECT key, value, reason, rev FROM settings WHERE member_id IS NULL AND key = ANY($1::text[])`,
    [RULE_IDS],
  );
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

/** What the workshop changed, as the core wants it. */
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
    await execute('SELECT pg_advisory_xact_lock(4311)');
    const now = (await listRules()).find((r) => r.id === id) ?? defaultRow(id);
    checkRevision(revision, now.rev, now);
    await execute(
      `INSERT INTO settings (id, origin, created_at, created_by, member_id, key, value, reason)
       VALUES ($1, 'own', $2, $3, NULL, $4, $5::jsonb, $6)
       ON CONFLICT (member_id, key) DO UPDATE SET value = EXCLUDED.value, reason = EXCLUDED.reason, rev = settings.rev + 1`,
      [newId(), s.now(), actor.id, id, JSON.stringify(body.value), body.reason],
    );
    return (await listRules()).find((r) => r.id === id) ?? defaultRow(id);
  });
}
