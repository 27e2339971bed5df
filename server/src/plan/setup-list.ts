import { slotRows } from '../setups/queries/slot-rows';
import { hitsOf, lastOutcomes, setupPage } from './queries/setup-page';
import { Op } from 'sequelize';
import type * as z from 'zod';
import type { Page } from '@ruddy/core/base/contract';
import { type Chain, chainNames, linkName, partName } from '@ruddy/core/chain';
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
import { chainOf } from '../setups/chain';
import { groundsFor } from './context';
import { tallies } from './queries/evidence';
import { decodeCursor, toPage } from '../platform/db/paging';
import { toSetup } from '../setups/setup-store';

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
      chain: { host, link: linkName(chain), dock, card },
      glance: summarizeEvaluation(evaluation),
      last: last.get(row.id) ?? null,
    };
    return { row, chain, evaluation, list };
  });
}

/** A page of setups in the asked order, each with the summary of its evaluation. */
export async function listSetups(
  s: Services,
  q: z.output<typeof setupQuery>,
): Promise<Page<SetupRow>> {
  const after = decodeCursor(q.cursor, 2);
  const ids = await setupPage(q, after);
  const models = await SetupModel.findAll({ where: { id: { [Op.in]: ids.map((r) => r.id) } } });
  const judged = new Map((await judge(s, models)).map((j) => [j.row.id, j.list]));
  return toPage(
    ids,
    q.limit,
    (r) => judged.get(r.id) as SetupRow,
    (r) => [r.sort, r.id],
  );
}

const URGENCY = { blocked: 0, unknown: 1, care: 2, works: 3 } as const;

/** Counts by verdict over all active setups, and the most urgent one. */
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
  const rows = await hitsOf(q, limit);
  return rows.map((r) => ({
    id: r.id,
    kind: r.kind,
    name: r.spec ? partName(r.spec) : r.name,
    detail: r.spec ? r.kind : `setup, ${r.state ?? ''}`,
  }));
}
