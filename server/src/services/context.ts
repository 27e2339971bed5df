import { QueryTypes, type Sequelize } from 'sequelize';
import type { HouseRules } from '@ruddy/core/house';
import type { Context } from '@ruddy/core/plan';
import type { Chain, ReleaseSpec, RequirementSpec } from '@ruddy/core/schema';
import { isAdapter } from '@ruddy/core/schema';
import type { Services } from '../http/route';
import { houseRules } from './rules';

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

/**
 * Requirements and releases that may speak of these chains, in one query: by maker and by model or family, or for any. The core
 * decides which of them do.
 */
async function software(
  db: Sequelize,
  chains: readonly Chain[],
): Promise<{ requirements: RequirementSpec[]; releases: ReleaseSpec[] }> {
  const parts = chains.flatMap(partsOf);
  const lower = (list: (string | undefined)[]) => [...new Set(list.flatMap((s) => (s ? [s.trim().toLowerCase()] : [])))];
  const makers = [...lower(parts.map((p) => p.maker)), 'any'];
  const models = [...lower(parts.flatMap((p) => [p.model, p.variant ? `${p.model} ${p.variant}` : undefined, p.family])), 'any'];
  const rows = await db.query<{ kind: 'release'; spec: ReleaseSpec } | { kind: 'requirement'; spec: RequirementSpec }>(
    `SELECT kind, spec FROM parts WHERE kind IN ('release', 'requirement') AND retired_at IS NULL
       AND lower(maker) = ANY($1::text[]) AND lower(model) = ANY($2::text[]) ORDER BY kind, id`,
    { type: QueryTypes.SELECT, bind: [makers, models] },
  );
  return {
    requirements: rows.flatMap((r) => (r.kind === 'requirement' ? [r.spec] : [])),
    releases: rows.flatMap((r) => (r.kind === 'release' ? [r.spec] : [])),
  };
}

/** House rules, date, requirements and releases for judging these chains; the evidence is added by whoever has it. */
export async function groundsFor(s: Services, chains: readonly Chain[], own: HouseRules = {}, asOf?: string): Promise<Grounds> {
  const [house, soft] = await Promise.all([houseRules(s.db), software(s.db, chains)]);
  return { asOf: asOf ?? s.now().toISOString().slice(0, 10), house: { ...house, ...own }, ...soft };
}
