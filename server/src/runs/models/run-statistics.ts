import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { FrameStats, SensorsSeen } from '@ruddy/core/runs';
import {
  integer,
  json,
  optional,
  primary,
  references,
  withDefault,
} from '../../platform/db/columns';

/** What a run shows, computed from its frames by the rules of `version`. */
export class RunStatisticsModel extends Model<
  InferAttributes<RunStatisticsModel>,
  InferCreationAttributes<RunStatisticsModel>
> {
  declare runId: string;
  declare version: number;
  declare stats: FrameStats;
  declare shown: FrameStats | null;
  declare segments: CreationOptional<(FrameStats | null)[]>;
  declare sensors: SensorsSeen | null;
}

export function defineRunStatistics(sequelize: Sequelize): void {
  RunStatisticsModel.init(
    {
      runId: primary(references('runs', 'CASCADE')),
      version: integer(),
      stats: json(),
      shown: optional(json()),
      segments: withDefault(json(), []),
      sensors: optional(json()),
    },
    { sequelize, tableName: 'run_figures' },
  );
}
