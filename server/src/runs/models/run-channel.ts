import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { CaptureModel } from './capture';
import {
  double,
  integer,
  optional,
  primary,
  references,
  text,
  withDefault,
} from '../../platform/db/columns';

/** One series of values of a run. */
export class RunChannelModel extends Model<
  InferAttributes<RunChannelModel>,
  InferCreationAttributes<RunChannelModel>
> {
  declare runId: string;
  declare channel: string;
  declare t0Ms: CreationOptional<number>;
  declare dtMs: number | null;
  declare n: number;
  declare sha256: string;
  declare capture?: NonAttribute<CaptureModel>;
}

export function defineRunChannel(sequelize: Sequelize): void {
  RunChannelModel.init(
    {
      runId: primary(references('runs', 'CASCADE')),
      channel: primary(text()),
      t0Ms: withDefault(double(), 0),
      dtMs: optional(double()),
      n: integer(),
      sha256: references('captures', 'NO ACTION', 'sha256', DataTypes.TEXT),
    },
    { sequelize, tableName: 'run_channels' },
  );
}
