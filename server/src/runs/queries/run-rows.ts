import type { Origin } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import type {
  FrameStats,
  RunContext,
  RunKind,
  RunSettings,
  Segment,
  SensorsSeen,
} from '@ruddy/core/runs';
import type { ChannelBody, RunEntry } from '@ruddy/core/runs/contract';
import { select } from '../../platform/db/database';
import { NOT_RETRACTED } from '../../setups/queries/not-retracted';

/** A run with its series, its statistics and what was said of it later. */
export interface RunRow {
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

const SELECT = `SELECT r.*, s.name AS setup_name, f.stats, f.shown, f.sensors, f.segments AS segment_stats, md5(r.chain::text) AS chain_mark,
    to_char(r.happened_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.US"Z"') AS at_text,
    (SELECT jsonb_agg(jsonb_build_object('channel', c.channel, 't0Ms', c.t0_ms, 'dtMs', c.dt_ms, 'n', c.n, 'sha256', c.sha256) ORDER BY c.channel)
       FROM run_channels c WHERE c.run_id = r.id) AS channels,
    (SELECT jsonb_agg(jsonb_build_object('body', x.body, 'private', x.private) ORDER BY x.seq)
       FROM events x WHERE x.kind = 'run-said' AND x.body ->> 'run' = r.id::text AND ${NOT_RETRACTED.replaceAll('e.id', 'x.id')}) AS said
  FROM runs r JOIN setups s ON s.id = r.setup_id JOIN events e ON e.id = r.id LEFT JOIN run_figures f ON f.run_id = r.id`;

/** One run that is not retracted. */
export async function runRow(id: string): Promise<RunRow | undefined> {
  const [row] = await select<RunRow>(`${SELECT} WHERE r.id = $1 AND ${NOT_RETRACTED}`, [id]);
  return row;
}

/** Runs that are not retracted, newest first, after a place in that order: one more than the limit. */
export function runRows(
  q: RunFilter,
  after: readonly (string | number)[] | null,
): Promise<RunRow[]> {
  return select<RunRow>(
    `${SELECT} WHERE ${NOT_RETRACTED} AND ($1::uuid IS NULL OR r.setup_id = $1) AND ($2::uuid IS NULL OR r.title_id = $2)
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
}
