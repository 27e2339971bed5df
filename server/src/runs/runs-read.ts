import { select } from '../platform/db/database';
import type { HouseRules } from '@ruddy/core/base';
import type { Origin, Page } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import {
  factsOf,
  type FrameStats,
  type RigFacts,
  rigOf,
  type RunContext,
  type RunKind,
  type RunSettings,
  type Segment,
  type SensorsSeen,
} from '@ruddy/core/runs';
import type { ChannelBody, ProfileKind, RunEntry } from '@ruddy/core/runs/contract';
import { runSaid } from '@ruddy/core/workshop/contract';
import { notFound } from '../platform/http/problem';
import { STANDS } from '../setups/events';
import { decodeCursor, toPage } from '../platform/db/paging';
import { houseRules } from '../setups/rules';

interface Row {
  id: string;
  setup_id: string;
  setup_name: string;
  title_id: string;
  kind: RunKind;
  happened_at: Date;
  at_text: string;
  recorded_at: Date;
  chain: Chain;
  settings: RunSettings;
  context: RunContext;
  result: RunEntry['result'];
  reason: string;
  cut_s: number;
  segments: Segment[];
  private: { saw?: string; source?: RunEntry['source'] } | null;
  origin: Origin;
  stats: FrameStats | null;
  shown: FrameStats | null;
  sensors: SensorsSeen | null;
  chain_mark: string;
  segment_stats: (FrameStats | null)[] | null;
  channels: ChannelBody[] | null;
  said: { body: unknown; private: { saw?: string } | null }[] | null;
}

export interface RunFilter {
  setupId?: string;
  titleId?: string;
  titleIds?: readonly string[];
  ids?: readonly string[];
  cursor?: string;
  limit: number;
}

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

function fold(r: Row): FoldedRun {
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

const SELECT = `SELECT r.*, s.name AS setup_name, f.stats, f.shown, f.sensors, f.segments AS segment_stats, md5(r.chain::text) AS chain_mark,
    to_char(r.happened_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') AS at_text,
    (SELECT jsonb_agg(jsonb_build_object('channel', c.channel, 't0Ms', c.t0_ms, 'dtMs', c.dt_ms, 'n', c.n, 'sha256', c.sha256) ORDER BY c.channel)
       FROM run_channels c WHERE c.run_id = r.id) AS channels,
    (SELECT jsonb_agg(jsonb_build_object('body', x.body, 'private', x.private) ORDER BY x.seq)
       FROM events x WHERE x.kind = 'run-said' AND x.body ->> 'run' = r.id::text AND ${STANDS.replaceAll('e.id', 'x.id')}) AS said
  FROM runs r JOIN setups s ON s.id = r.setup_id JOIN events e ON e.id = r.id LEFT JOIN run_figures f ON f.run_id = r.id`;

/** A run that stands, with what was said of it since. */
export async function foldedRun(id: string): Promise<FoldedRun> {
  const [row] = await select<Row>(`${SELECT} WHERE r.id = $1 AND ${STANDS}`, [id]);
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

function toEntry(r: Row, titles: ReadonlyMap<string, Title>, house: HouseRules): RunEntry {
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
  const rows = await select<Row>(
    `${SELECT} WHERE ${STANDS} AND ($1::uuid IS NULL OR r.setup_id = $1) AND ($2::uuid IS NULL OR r.title_id = $2)
       AND ($3::uuid[] IS NULL OR r.id = ANY ($3)) AND ($7::uuid[] IS NULL OR r.title_id = ANY ($7)) AND ($4::timestamptz IS NULL OR (r.happened_at, r.id) < ($4, $5::uuid))
     ORDER BY r.happened_at DESC, r.id DESC LIMIT $6`,
    [
      q.setupId ?? null,
      q.titleId ?? null,
      q.ids ? [...q.ids] : null,
      after?.[0] ?? null,
      after?.[1] ?? null,
      q.limit + 1,
      q.titleIds ? [...q.titleIds] : null,
    ],
  );
  const titles = await select<Title>('SELECT id, name, kind FROM profiles');
  const house = await houseRules();
  const byId = new Map(titles.map((t) => [t.id, t]));
  return toPage(
    rows,
    q.limit,
    (r) => toEntry(r, byId, house),
    (r) => [r.at_text, r.id],
  );
}

/** Every run that stands of these titles, oldest first, up to the most that are counted. */
export async function runsOfTitles(titleIds: readonly string[]): Promise<RunEntry[]> {
  if (titleIds.length === 0) return [];
  const { items } = await listRuns({ titleIds, limit: MAX_COUNTED });
  return items.reverse();
}
/** Runs that calibrations, tolls and predictions are made from at most; the newest count. */
const MAX_COUNTED = 2000;
