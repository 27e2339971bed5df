import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import {
  integer,
  json,
  optional,
  primary,
  provenance,
  references,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A value of the workshop by its key: house rules, parameters of the fault net, the plan of backups. */
export class SettingModel extends Model<
  InferAttributes<SettingModel>,
  InferCreationAttributes<SettingModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare memberId: string | null;
  declare key: string;
  declare value: unknown;
  declare reason: CreationOptional<string>;
  declare rev: CreationOptional<number>;
}

export function defineSetting(sequelize: Sequelize): void {
  SettingModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      memberId: optional(references('members')),
      key: text(),
      value: json(),
      reason: withDefault(text(), ''),
      rev: withDefault(integer(), 1),
    },
    { sequelize, tableName: 'settings' },
  );
}
