import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Outcome } from '@ruddy/core/base';
import type { OutcomeEntry } from '@ruddy/core/compatibility/contract';
import {
  day,
  flag,
  generated,
  integer,
  json,
  primary,
  real,
  references,
  text,
  uuid,
} from '../../platform/db/columns';

/** The newest outcome of a setup under one set of versions: what counts once. Written by triggers of `log_entries`. */
export class LogUnitModel extends Model<
  InferAttributes<LogUnitModel>,
  InferCreationAttributes<LogUnitModel>
> {
  declare entryId: string;
  declare unit: string;
  declare chainKey: string;
  declare versions: OutcomeEntry['versions'];
  declare host: string;
  declare link: string;
  declare dock: string;
  declare card: string;
  declare family: string;
  declare outcome: Outcome;
  declare told: boolean;
  declare confidence: number;
  declare happenedOn: string;
  declare seq: number;
  declare worked: CreationOptional<boolean>;
  declare vSystem: CreationOptional<string>;
  declare vDriver: CreationOptional<string>;
  declare vHost: CreationOptional<string>;
  declare vDock: CreationOptional<string>;
}

export function defineLogUnit(sequelize: Sequelize): void {
  LogUnitModel.init(
    {
      entryId: primary(references('log_entries', 'CASCADE')),
      unit: uuid(),
      chainKey: text(),
      versions: json(),
      host: text(),
      link: text(),
      dock: text(),
      card: text(),
      family: text(),
      outcome: text(),
      told: flag(),
      confidence: real(),
      happenedOn: day(),
      seq: integer(),
      worked: generated(flag()),
      vSystem: generated(text()),
      vDriver: generated(text()),
      vHost: generated(text()),
      vDock: generated(text()),
    },
    { sequelize, tableName: 'log_units' },
  );
}
