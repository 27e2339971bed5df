import { RULE_IDS, type RuleId } from '@ruddy/core/base';
import type { ReleaseSpec, RequirementSpec } from '@ruddy/core/parts';
import { select } from '../../platform/db/database';

type GroundRow =
  | { kind: 'rule'; spec: { key: RuleId; value: number } }
  | { kind: 'release'; spec: ReleaseSpec }
  | { kind: 'requirement'; spec: RequirementSpec };

/** House rules that were set, and requirements and releases of these makers and models, all in small letters, in one statement. */
export function groundRows(
  makers: readonly string[],
  models: readonly string[],
): Promise<GroundRow[]> {
  return select<GroundRow>(
    `SELECT 'rule' AS kind, jsonb_build_object('key', key, 'value', value) AS spec FROM settings
       WHERE member_id IS NULL AND value IS NOT NULL AND value <> 'null'::jsonb AND key = ANY($3::text[])
     UNION ALL
     (SELECT kind, spec FROM parts WHERE kind IN ('release', 'requirement') AND retired_at IS NULL
       AND lower(maker) = ANY($1::text[]) AND lower(model) = ANY($2::text[]) ORDER BY kind, id)`,
    [makers, models, RULE_IDS],
  );
}
