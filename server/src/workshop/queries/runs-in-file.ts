import { literal } from 'sequelize';
import type { RunContext, RunKind, RunSettings, Segment } from '@ruddy/core/runs';
import type { ChannelBody, KeptForecast } from '@ruddy/core/runs/contract';
import type { Bundle } from '@ruddy/core/workshop/contract';
import { select } from '../../platform/db/database';
import { CaptureModel } from '../../runs/models/capture';

/** Titles, as a bundle holds them. */
export function profilesInFile(): Promise<Bundle['profiles']> {
  return select<Bundle['profiles'][number]>(
    'SELECT id, name, kind, note, engine, year, params FROM profiles ORDER BY id',
  );
}

export interface RunInFile {
  id: string;
  setupId: string;
  titleId: string;
  kind: RunKind;
  happenedAt: Date;
  recordedAt: Date;
  seq: number;
  chain: unknown;
  settings: RunSettings;
  context: RunContext;
  result: Bundle['runs'][number]['result'];
  reason: string;
  cutS: number;
  segments: Segment[];
  private: { saw?: string; source?: Bundle['runs'][number]['source'] } | null;
  channels: ChannelBody[] | null;
  forecast: KeptForecast | null;
}

/** Runs with their series, in the order of their setups' records. */
export function runsInFile(): Promise<RunInFile[]> {
  return select<RunInFile>(
    `SELECT r.id, r.setup_id AS "setupId", r.title_id AS "titleId", r.kind, r.happened_at AS "happenedAt", r.recorded_at AS "recordedAt", e.seq,
       r.chain, r.settings, r.context, r.result, r.reason, r.cut_s AS "cutS", r.segments, r.private,
       (SELECT jsonb_agg(jsonb_build_object('channel', c.channel, 't0Ms', c.t0_ms, 'dtMs', c.dt_ms, 'n', c.n, 'sha256', c.sha256) ORDER BY c.channel)
          FROM run_channels c WHERE c.run_id = r.id) AS channels,
       (SELECT jsonb_build_object('madeAt', to_char(f.made_at AT TIME ZONE 'UTC', 'YYYY-MM-DD"T"HH24:MI:SS.MS"Z"'), 'model', f.model,
          'evidence', f.evidence, 'basis', f.basis, 'fps', f.fps) FROM run_forecasts f WHERE f.run_id = r.id) AS forecast
     FROM runs r JOIN events e ON e.id = r.id ORDER BY r.setup_id, e.seq`,
  );
}

/** Values that a run names. */
export function capturesInUse(): Promise<CaptureModel[]> {
  return CaptureModel.findAll({
    where: literal(
      'EXISTS (SELECT 1 FROM run_channels r WHERE r.sha256 = "CaptureModel"."sha256")',
    ),
    order: ['sha256'],
  });
}
