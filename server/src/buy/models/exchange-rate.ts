import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import {
  day,
  double,
  instant,
  optional,
  primary,
  provenance,
  text,
  uuid,
} from '../../platform/db/columns';

/** An exchange rate on a day. */
export class RateModel extends Model<
  InferAttributes<RateModel>,
  InferCreationAttributes<RateModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare fromCur: string;
  declare toCur: string;
  declare rate: number;
  declare onDate: string;
  declare source: string;
  declare withdrawnAt: Date | null;
}

export function defineRate(sequelize: Sequelize): void {
  RateModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      fromCur: text(),
      toCur: text(),
      rate: double(),
      onDate: day(),
      source: text(),
      withdrawnAt: optional(instant()),
    },
    { sequelize, tableName: 'exchange_rates' },
  );
}
