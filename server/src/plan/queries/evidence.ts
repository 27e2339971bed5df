import { select } from '../../platform/db/database';
import type { Chain } from '@ruddy/core/chain';
import {
  entryVersions,
  type MatchKey,
  matchOf,
  type NearWeights,
  type Versions,
} from '@ruddy/core/compatibility';
import { type EvidenceSummary, NO_EVIDENCE, type Tally } from '@ruddy/core/plan';

/** Outcomes of the units at hand, counted; `told` apart from what was seen. */
const COUNTS = `count(*) FILTER (WHERE NOT told)::int AS n,
  count(*) FILTER (WHERE NOT told AND outcome = 'works')::int AS works, count(*) FILTER (WHERE NOT told AND outcome = 'care')::int AS care,
  count(*) FILTER (WHERE NOT told AND outcome = 'unreliable')::int AS unreliable, count(*) FILTER (WHERE NOT told AND outcome = 'fails')::int AS fails,
  (max(happened_on) FILTER (WHERE NOT told))::text AS newest,
  count(*) FILTER (WHERE told)::int AS told_n, count(*) FILTER (WHERE told AND worked)::int AS told_worked`;

interface Counted extends Tally {
  told_n: number;
  told_worked: number;
}

/** What was seen and what was told of each chain key, whatever the versions. The unit is a setup with its newest outcome per set of versions. */
export async function tallies(keys: readonly string[]): Promise<Map<string, EvidenceSummary>> {
  if (keys.length === 0) return new Map();
  const rows = await select<Counted & { chain_key: string }>(
    `SELECT chain_key, ${COUNTS} FROM log_units WHERE chain_key = ANY ($1::text[]) GROUP BY chain_key`,
    [keys],
  );
  return new Map(
    rows.map(({ chain_key, told_n, told_worked, ...exact }) => [
      chain_key,
      { ...NO_EVIDENCE, exact, told: { n: told_n, worked: told_worked } },
    ]),
  );
}

/** What a question of the log is made of; see `evidenceOf`. */
export interface Asked {
  readonly match: MatchKey;
  readonly versions: Versions;
  readonly weights: NearWeights;
  /** An entry that is left out, to see what hangs on it. */
  readonly without: string | null;
}

export function askedOf(chain: Chain, weights: NearWeights, without: string | null = null): Asked {
  return { match: matchOf(chain), versions: entryVersions(chain.installed), weights, without };
}

/** Bound parameters of `weighed`, in its order. */
export function weightedBind({ match, versions, weights, without }: Asked): unknown[] {
  return [
    ...[match.host, match.link, match.dock, match.family],
    ...[
      versions.system ?? null,
      versions.driver ?? null,
      versions.hostFirmware ?? null,
      versions.dockFirmware ?? null,
    ],
    ...[weights.host, weights.link, weights.dock, weights.family, weights.changed],
    ...[match.key, without],
  ];
}

/**
 * The units of the log that share something with what is asked, each with its factors: the same sum as `factorsOf` of the core, which
 * the tests hold it against. Parameters 1 to 15.
 */
export const weightedUnits = (leavesOut: boolean): string => `weighed AS (
  SELECT u.*, f.*, c.by_versions, f.shared * c.by_versions * f.by_told AS weight
  FROM ${leavesOut ? 'log_units_without($15::uuid)' : 'log_units'} u CROSS JOIN LATERAL (
    SELECT (u.chain_key = $14::text) IS TRUE AS exact,
      CASE WHEN u.chain_key = $14::text THEN 1.0::float8 ELSE
        CASE WHEN u.host = $1::text THEN $9::float8 ELSE 0 END + CASE WHEN u.link = $2::text THEN $10::float8 ELSE 0 END
        + CASE WHEN u.dock = $3::text THEN $11::float8 ELSE 0 END + CASE WHEN u.family = $4::text THEN $12::float8 ELSE 0 END END AS shared,
      (u.v_system <> $5::text) IS TRUE OR (u.v_driver <> $6::text) IS TRUE OR (u.v_host <> $7::text) IS TRUE
        OR (u.v_dock <> $8::text) IS TRUE AS changed,
      (u.v_system = $5::text) IS TRUE OR (u.v_driver = $6::text) IS TRUE OR (u.v_host = $7::text) IS TRUE
        OR (u.v_dock = $8::text) IS TRUE AS met,
      CASE WHEN u.told THEN round(u.confidence::numeric, 3)::float8 ELSE 1 END AS by_told
  ) f CROSS JOIN LATERAL (SELECT CASE WHEN f.changed THEN $13::float8 ELSE 1 END AS by_versions) c
  WHERE ($15::uuid IS NULL) <> ${String(leavesOut)} AND (u.host = $1::text OR u.link = $2::text OR u.dock = $3::text OR u.family = $4::text)
)`;

/**
 * What the log says of a chain and of near ones: counts of exactly this chain, and of near ones how many and their weight. One statement
 * over the units; the entries themselves never travel.
 */
export async function evidenceOf(asked: Asked): Promise<EvidenceSummary> {
  const [r] = await select<
    Counted &
      Record<
        'same_n' | 'same_worked' | 'worked' | 'failed' | 'near_n' | 'near_weight' | 'near_worked',
        number
      >
  >(
    `WITH ${weightedUnits(asked.without !== null)}, e AS (SELECT * FROM weighed WHERE exact), o AS (SELECT * FROM weighed WHERE NOT exact)
     SELECT ${COUNTS},
       count(*) FILTER (WHERE NOT told AND met AND NOT changed)::int AS same_n,
       count(*) FILTER (WHERE NOT told AND met AND NOT changed AND worked)::int AS same_worked,
       coalesce(sum(weight) FILTER (WHERE worked), 0) AS worked, coalesce(sum(weight) FILTER (WHERE NOT worked), 0) AS failed,
       (SELECT count(*)::int FROM o WHERE weight > 0) AS near_n, (SELECT coalesce(sum(weight), 0) FROM o) AS near_weight,
       (SELECT coalesce(sum(weight) FILTER (WHERE worked), 0) FROM o) AS near_worked
     FROM e`,
    weightedBind(asked),
  );
  if (!r) return NO_EVIDENCE;
  const { n, works, care, unreliable, fails, newest } = r;
  return {
    exact: { n, works, care, unreliable, fails, newest },
    same: { n: r.same_n, worked: r.same_worked },
    told: { n: r.told_n, worked: r.told_worked },
    weighted: { worked: r.worked, failed: r.failed },
    near: { n: r.near_n, weight: r.near_weight, worked: r.near_worked },
  };
}
