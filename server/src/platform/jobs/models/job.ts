import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Job } from '@ruddy/core/parts/contract';
import {
  flag,
  instant,
  integer,
  json,
  optional,
  primary,
  references,
  text,
  uuid,
  withDefault,
} from '../../../platform/db/columns';

/** Long work and how far it is. */
export class JobModel extends Model<InferAttributes<JobModel>, InferCreationAttributes<JobModel>> {
  declare id: string;
  declare createdAt: Date;
  declare createdBy: string;
  declare kind: Job['kind'];
  declare state: Job['state'];
  declare done: CreationOptional<number>;
  declare total: CreationOptional<number>;
  declare message: CreationOptional<string>;
  declare cancelRequested: CreationOptional<boolean>;
  declare heartbeatAt: Date;
  declare result: Job['result'];
  declare seq: CreationOptional<number>;
}

export function defineJob(sequelize: Sequelize): void {
  JobModel.init(
    {
      id: primary(uuid()),
      createdAt: instant(),
      createdBy: references('members'),
      kind: text(),
      state: text(),
      done: withDefault(integer(), 0),
      total: withDefault(integer(), 0),
      message: withDefault(text(), ''),
      cancelRequested: withDefault(flag(), false),
      heartbeatAt: instant(),
      result: optional(json()),
      seq: withDefault(integer(), 1),
    },
    { sequelize, tableName: 'jobs' },
  );
}
