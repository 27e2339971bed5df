import { select } from '../platform/db/database';
import { Op } from 'sequelize';
import type * as z from 'zod';
import type { Outcome } from '@ruddy/core/base';
import type { Page } from '@ruddy/core/base/contract';
import { type Chain, chainNames, partName } from '@ruddy/core/chain';
import { chainKey } from '@ruddy/core/compatibility';
import { evaluate, type Evaluation, NO_EVIDENCE } from '@ruddy/core/plan';
import type {
  EvaluationSummary,
  SearchHit,
  setupQuery,
  SetupRow,
  Summary,
} from '@ruddy/core/plan/contract';
import { summarizeEvaluation } from '@ruddy/core/plan/text';
import { SetupModel } from '../setups/models/setup';
import type { Services } from '../platform/http/route';
import { chainOf, slotRows } from '../setups/chain';
import { groundsFor } from './context';
import { tallies } from './evidence';
import { decodeCursor, likePattern, toPage } from '../platform/db/paging';
import { toSetup } from '../setups/setup-store';
import { bestToll, tollRows } from '../runs/tolls';

async function judge(
  s: Services,
  setups: readonly SetupModel[],
): Promise<{ row: SetupModel; chain: Chain; evaluation: Evaluation; list: SetupRow }[]> {
  const ids = setups.map((r) => r.id);
  const slots = await slotRows(ids);
  const chains = setups.map((r) => chainOf(slots.get(r.id) ?? [], r.details));
  const grounds = await groundsFor(s, chains);
  const keys = chains.map((c) => chainKey(c));
  const evidence = await tallies([...new Set(keys.filter((k) => k !== null))]);
  const last = await lastOutcomes(ids);
  return setups.map((row, i) => {
    const chain = chains[i] as Chain;
    const evaluation = evaluate({
      chain,
      context: { ...grounds, evidence: evidence.get(keys[i] ?? '') ?? NO_EVIDENCE },
    });
    const { host, dock, card } = chainNames(chain);
    const list = {
      ...toSetup(row, slots.get(row.id) ?? []),
      chain: { host, dock, card },
      glance: summarizeEvaluation(evaluation),
      last: last.get(row.id) ?? null,
      toll: null,
    };
    return { row, chain, evaluation, list };
  });
}

async function lastOutcomes(
  ids: readonly string[],
): Promise<Map<string, { outcome: Outcome; on: string }>> {
  const rows = await select<{ setup_id: string; outcome: Outcome; on: string }>(
    `SELECT DISTINCT ON (e.setup_id) e.setup_id, outcome, happened_on::text AS on FROM log_entries e JOIN events v ON v.id = e.id
     WHERE e.setup_id = ANY($1::uuid[]) AND NOT EXISTS (SELECT 1 FROM log_entries c WHERE c.supersedes = e.id)
     ORDER BY e.setup_id, happened_on DESC, v.seq DESC`,
    [ids],
  );
  return new Map(rows.map(({ setup_id, ...r }) => [setup_id, r]));
}

/** A page of setups by name, each with its judgement at a glance. */
export async function listSetups(
  s: Services,
  q: z.output<typeof setupQuery>,
): Promise<Page<SetupRow>> {
  const after = decodeCursor(q.cursor, 2);
  const ids = await select<{ id: string; sort: string }>(
    `SELECT id, lower(name) AS sort FROM setups
     WHERE ($1::text IS NULL OR name ILIKE $1) AND ($2::text IS NULL OR state = $2) AND (state <> 'retired' OR $3 OR $2 = 'retired')
       AND ($4::text IS NULL OR (lower(name), id) > ($4, $5::uuid))
     ORDER BY lower(name), id LIMIT $6`,
    [
      q.q ? likePattern(q.q) : null,
      q.state ?? null,
      q.retired,
      after?.[0] ?? null,
      after?.[1] ?? null,
      q.limit + 1,
    ],
  );
  const models = await SetupModel.findAll({ where: { id: { [Op.in]: ids.map((r) => r.id) } } });
  const tolls = await tollRows(models.map((m) => m.id));
  const judged = new Map(
    (await judge(s, models)).map((j) => [
      j.row.id,
      { ...j.list, toll: bestToll(tolls.get(j.row.id) ?? []) },
    ]),
  );
  return toPage(
    ids,
    q.limit,
    (r) => judged.get(r.id) as SetupRow,
    (r) => [r.sort, r.id],
  );
}

const URGENCY = { blocked: 0, unknown: 1, care: 2, works: 3 } as const;

/** Counts by verdict over all setups in use, and the one that needs someone first. */
export async function summarise(s: Services): Promise<Summary> {
  const models = await SetupModel.findAll({
    where: { state: { [Op.ne]: 'retired' } },
    order: [['name', 'ASC']],
  });
  const judged = (await judge(s, models)).map((j) => j.list);
  const count = (v: EvaluationSummary['verdict']) =>
    judged.filter((r) => r.glance.verdict === v).length;
  // Live before building before planned: a chain in use that will not work matters most.
  const states = { live: 0, building: 1, planned: 2, retired: 3 } as const;
  const first = [...judged]
    .filter((r) => r.glance.verdict !== 'works')
    .sort(
      (a, b) =>
        states[a.state] - states[b.state] || URGENCY[a.glance.verdict] - URGENCY[b.glance.verdict],
    )[0];
  return {
    n: judged.length,
    own: judged.filter((r) => r.origin !== 'demo').length,
    demo: judged.filter((r) => r.origin === 'demo').length,
    works: count('works'),
    care: count('care'),
    blocked: count('blocked'),
    unknown: count('unknown'),
    first: first ? { id: first.id, name: first.name, sentence: first.glance.sentence } : null,
  };
}

/** Setups and parts whose name holds the words, setups first. */
export async function search(q: string, limit: number): Promise<SearchHit[]> {
  const rows = await select<{
    id: string;
    kind: SearchHit['kind'];
    name: string;
    spec: { maker: string; model: string; variant: string } | null;
    state: string | null;
  }>(
    `(SELECT id, 'setup' AS kind, name, NULL::jsonb AS spec, state FROM setups WHERE name ILIKE $1 ORDER BY lower(name) LIMIT $2)
     UNION ALL
     (SELECT id, kind, model AS name, spec, NULL AS state FROM parts WHERE search ILIKE $1 AND retired_at IS NULL ORDER BY search LIMIT $2)`,
    [likePattern(q), limit],
  );
  return rows.map((r) => ({
    id: r.id,
    kind: r.kind,
    name: r.spec ? partName(r.spec) : r.name,
    detail: r.spec ? r.kind : `setup, ${r.state ?? ''}`,
  }));
}
