import { QueryTypes, type Sequelize, type Transaction } from 'sequelize';
import { runSaid, type ChannelBody, type Origin, type Page, type RunEntry } from '@ruddy/core/api';
import type { FrameStats } from '@ruddy/core/frames';
import { factsOf } from '@ruddy/core/runs';
import type { Chain, RunContext, RunKind, RunSettings, Segment } from '@ruddy/core/schema';
import { notFound } from '../http/problem';
import { STANDS } from './events';
import { decodeCursor, toPage } from './paging';

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
  segment_stats: (FrameStats | null)[] | null;
  channels: ChannelBody[] | null;
  said: { body: unknown; private: { saw?: string } | null }[] | null;
}

export interface RunFilter {
  setupId?: string;
  titleId?: string;
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
    ...{ id: r.id, setupId: r.setup_id, titleId: r.title_id, settings: r.settings, context: r.context },
    ...{ saw: r.private?.saw ?? '', cutS: r.cut_s, segments: r.segments, channels: r.channels ?? [] },
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

const SELECT = `SELECT r.*, s.name AS setup_name, f.stats, f.shown, f.segments AS segment_stats,
    to_char(r.happened_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') AS at_text,
    (SELECT jsonb_agg(jsonb_build_object('channel', c.channel, 't0Ms', c.t0_ms, 'dtMs', c.dt_ms, 'n', c.n, 'sha256', c.sha256) ORDER BY c.channel)
       FROM run_channels c WHERE c.run_id = r.id) AS channels,
    (SELECT jsonb_agg(jsonb_build_object('body', x.body, 'private', x.private) ORDER BY x.seq)
       FROM events x WHERE x.kind = 'run-said' AND x.body ->> 'run' = r.id::text AND ${STANDS.replaceAll('e.id', 'x.id')}) AS said
  FROM runs r JOIN setups s ON s.id = r.setup_id JOIN events e ON e.id = r.id LEFT JOIN run_figures f ON f.run_id = r.id`;

/** A run that stands, with what was said of it since. */
export async function foldedRun(db: Sequelize, id: string, transaction: Transaction): Promise<FoldedRun> {
  const [row] = await db.query<Row>(`${SELECT} WHERE r.id = $1 AND ${STANDS}`, {
    type: QueryTypes.SELECT,
    bind: [id],
    transaction,
  });
  if (!row) throw notFound('run');
  return fold(row);
}

function toEntry(r: Row, titles: ReadonlyMap<string, { name: string; kind: 'title' | 'work' }>): RunEntry {
  const run = fold(r);
  const title = titles.get(run.titleId);
  return {
    ...run,
    title: title?.name ?? '',
    work: title?.kind ?? 'title',
    ...{ kind: r.kind, result: r.result, reason: r.reason, source: r.private?.source ?? null, setupName: r.setup_name },
    ...{ happenedAt: r.happened_at.toISOString(), recordedAt: r.recorded_at.toISOString(), origin: r.origin },
    facts: factsOf({ chain: r.chain, title: title?.name ?? '', settings: run.settings, context: run.context }),
    ...{ stats: r.stats, shown: r.shown, segmentStats: r.segment_stats ?? [] },
  };
}

/** Runs that stand, newest first, a page at a time. */
export async function listRuns(db: Sequelize, q: RunFilter): Promise<Page<RunEntry>> {
  const after = decodeCursor(q.cursor, 2);
  const rows = await db.query<Row>(
    `${SELECT} WHERE ${STANDS} AND ($1::uuid IS NULL OR r.setup_id = $1) AND ($2::uuid IS NULL OR r.title_id = $2)
       AND ($3::uuid[] IS NULL OR r.id = ANY ($3)) AND ($4::timestamptz IS NULL OR (r.happened_at, r.id) < ($4, $5::uuid))
     ORDER BY r.happened_at DESC, r.id DESC LIMIT $6`,
    {
      type: QueryTypes.SELECT,
      bind: [
        q.setupId ?? null,
        q.titleId ?? null,
        q.ids ? [...q.ids] : null,
        after?.[0] ?? null,
        after?.[1] ?? null,
        q.limit + 1,
      ],
    },
  );
  const titles = await db.query<{ id: string; name: string; kind: 'title' | 'work' }>('SELECT id, name, kind FROM profiles', {
    type: QueryTypes.SELECT,
  });
  const byId = new Map(titles.map((t) => [t.id, t]));
  return toPage(
    rows,
    q.limit,
    (r) => toEntry(r, byId),
    (r) => [r.at_text, r.id],
  );
}
