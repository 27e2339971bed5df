import { ProfileModel } from './models/profile';
import { type RunFilter, type RunRow, runRow, runRows } from './queries/run-rows';
import type { HouseRules } from '@ruddy/core/base';
import type { Page } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import {
  factsOf,
  type RigFacts,
  rigOf,
  type RunContext,
  type RunSettings,
  type Segment,
} from '@ruddy/core/runs';
import type { ChannelBody, ProfileKind, RunEntry } from '@ruddy/core/runs/contract';
import { runSaid } from '@ruddy/core/workshop/contract';
import { notFound } from '../platform/http/problem';
import { decodeCursor, toPage } from '../platform/db/paging';
import { houseRules } from '../setups/rules';

/** A run with everything said of it since, the newest word last. */
export interface FoldedRun {
  id: string;
  setupId: string;
  titleId: string;
  settings: RunSettings;
  context: RunContext;
  saw: string;
  cutS: number;
  segments: Segment[];
  channels: ChannelBody[];
}

function fold(r: RunRow): FoldedRun {
  let run: FoldedRun = {
    id: r.id,
    setupId: r.setup_id,
    titleId: r.title_id,
    settings: r.settings,
    context: r.context,
    saw: r.private?.saw ?? '',
    cutS: r.cut_s,
    segments: r.segments,
    channels: r.channels ?? [],
  };
  for (const s of r.said ?? []) {
    const { settings, context, titleId, cutS, segments, starts } = runSaid.parse(s.body);
    run = {
      ...run,
      titleId: titleId ?? run.titleId,
      settings: { ...run.settings, ...settings },
      context: { ...run.context, ...context },
      saw: s.private?.saw ?? run.saw,
      cutS: cutS ?? run.cutS,
      segments: segments ?? run.segments,
      channels: run.channels.map((c) => ({ ...c, t0Ms: starts?.[c.channel] ?? c.t0Ms })),
    };
  }
  return run;
}

/** A run that stands, with what was said of it since. */
export async function foldedRun(id: string): Promise<FoldedRun> {
  const row = await runRow(id);
  if (!row) throw notFound('run');
  return fold(row);
}

interface Title {
  id: string;
  name: string;
  kind: ProfileKind;
}

/** Most chains whose rigs are remembered: many runs are of one chain. What is kept is a pure function of its key. */
const MAX_RIGS = 500;
const rigs = new Map<string, RigFacts>();
function rigSeen(mark: string, chain: Chain, context: RunContext, house: HouseRules): RigFacts {
  const { norm, sameProcessor, slotGen, slotLanes } = context;
  const key = [mark, norm, sameProcessor, slotGen, slotLanes, JSON.stringify(house)].join();
  const known = rigs.get(key);
  if (known) return known;
  const rig = rigOf(chain, context, house);
  if (rigs.size >= MAX_RIGS) rigs.delete(rigs.keys().next().value as string);
  rigs.set(key, rig);
  return rig;
}

function toEntry(r: RunRow, titles: ReadonlyMap<string, Title>, house: HouseRules): RunEntry {
  const run = fold(r);
  const title = titles.get(run.titleId);
  return {
    ...run,
    title: title?.name ?? '',
    work: title?.kind ?? 'title',
    kind: r.kind,
    result: r.result,
    reason: r.reason,
    source: r.private?.source ?? null,
    setupName: r.setup_name,
    happenedAt: r.happened_at.toISOString(),
    recordedAt: r.recorded_at.toISOString(),
    origin: r.origin,
    facts: factsOf({
      setupName: r.setup_name,
      chain: r.chain,
      title: title?.name ?? '',
      settings: run.settings,
      context: run.context,
    }),
    rig: rigSeen(r.chain_mark, r.chain, run.context, house),
    stats: r.stats,
    shown: r.shown,
    sensors: r.sensors,
    segmentStats: r.segment_stats ?? [],
  };
}

/** Runs that stand, newest first, a page at a time. */
export async function listRuns(q: RunFilter): Promise<Page<RunEntry>> {
  const after = decodeCursor(q.cursor, 2);
  const rows = await runRows(q, after);
  const titles = await ProfileModel.findAll({ attributes: ['id', 'name', 'kind'] });
  const house = await houseRules();
  const byId = new Map(titles.map((t) => [t.id, t]));
  return toPage(
    rows,
    q.limit,
    (r) => toEntry(r, byId, house),
    (r) => [r.at_text, r.id],
  );
}

/** Those of these runs that stand, up to the most that are counted. */
export async function runsByIds(ids: readonly string[]): Promise<RunEntry[]> {
  if (ids.length === 0) return [];
  return (await listRuns({ ids, limit: MAX_COUNTED })).items;
}

/** Every run that stands of these titles, oldest first, up to the most that are counted. */
export async function runsOfTitles(titleIds: readonly string[]): Promise<RunEntry[]> {
  if (titleIds.length === 0) return [];
  const { items } = await listRuns({ titleIds, limit: MAX_COUNTED });
  return items.reverse();
}
/** Most runs that evidence is made from; the newest count. */
const MAX_COUNTED = 2000;
