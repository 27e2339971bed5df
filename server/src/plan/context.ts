import { select } from '../platform/db/database';
import { type HouseRules, RULE_IDS, type RuleId } from '@ruddy/core/base';
import { type Chain, isAdapter } from '@ruddy/core/chain';
import type { ReleaseSpec, RequirementSpec } from '@ruddy/core/parts';
import type { Context } from '@ruddy/core/plan';
import type { Services } from '../platform/http/route';

/** What a chain is judged by, the evidence aside. */
export type Grounds = Pick<Context, 'asOf' | 'house' | 'requirements' | 'releases'>;

interface Names {
  maker: string;
  model: string;
  variant?: string;
  family?: string;
}

function partsOf(chain: Chain): Names[] {
  const adapters = (chain.path ?? []).flatMap(({ spec }) => (isAdapter(spec) ? [spec] : []));
  return [chain.host, chain.dock, chain.card, chain.system, ...adapters].filter((p) => p !== null);
}

type Row =
  | { kind: 'rule'; spec: { key: RuleId; value: number } }
  | { kind: 'release'; spec: ReleaseSpec }
  | { kind: 'requirement'; spec: RequirementSpec };

/**
 * What the workshop judges these chains by, in one statement: its own house rules, and the requirements and releases that may speak of
 * the parts, by maker and by model or family, or for any. The core decides which of them do.
 */
async function stored(
  chains: readonly Chain[],
): Promise<Pick<Grounds, 'house' | 'requirements' | 'releases'>> {
  const parts = chains.flatMap(partsOf);
  const lower = (list: (string | undefined)[]) => [
    ...new Set(list.flatMap((s) => (s ? [s.trim().toLowerCase()] : []))),
  ];
  const makers = [...lower(parts.map((p) => p.maker)), 'any'];
  const models = [
    ...lower(
      parts.flatMap((p) => [p.model, p.variant ? `${p.model} ${p.variant}` : undefined, p.family]),
    ),
    'any',
  ];
  const rows = await select<Row>(
    `SELECT 'rule' AS kind, jsonb_build_object('key', key, 'value', value) AS spec FROM settings
       WHERE member_id IS NULL AND value IS NOT NULL AND value <> 'null'::jsonb AND key = ANY($3::text[])
     UNION ALL
     (SELECT kind, spec FROM parts WHERE kind IN ('release', 'requirement') AND retired_at IS NULL
       AND lower(maker) = ANY($1::text[]) AND lower(model) = ANY($2::text[]) ORDER BY kind, id)`,
    [makers, models, RULE_IDS],
  );
  return {
    house: Object.fromEntries(
      rows.flatMap((r) => (r.kind === 'rule' ? [[r.spec.key, r.spec.value]] : [])),
    ),
    requirements: rows.flatMap((r) => (r.kind === 'requirement' ? [r.spec] : [])),
    releases: rows.flatMap((r) => (r.kind === 'release' ? [r.spec] : [])),
  };
}

/** House rules, date, requirements and releases for judging these chains; the evidence is added by whoever has it. */
export async function groundsFor(
  s: Services,
  chains: readonly Chain[],
  own: HouseRules = {},
  asOf?: string,
): Promise<Grounds> {
  const { house, ...soft } = await stored(chains);
  return { asOf: asOf ?? s.now().toISOString().slice(0, 10), house: { ...house, ...own }, ...soft };
}
