import { groundRows } from './queries/ground-rows';
import { type HouseRules } from '@ruddy/core/base';
import { type Chain, isAdapter } from '@ruddy/core/chain';
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

/**
 * Inputs of the evaluation of these chains, in one statement: the workshop's rules, and requirements and releases
 * that may match a part by maker and by model or family, or any part. The core decides which of them do.
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
  const rows = await groundRows(makers, models);
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
