import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import {
  flag,
  instant,
  integer,
  optional,
  primary,
  provenance,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A release feed and how its last reading went. */
export class FeedModel extends Model<
  InferAttributes<FeedModel>,
  InferCreationAttributes<FeedModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare name: string;
  declare url: string;
  declare near: CreationOptional<boolean>;
  declare everyHours: number | null;
  declare rev: CreationOptional<number>;
  declare etag: CreationOptional<string>;
  declare modified: CreationOptional<string>;
  declare readAt: Date | null;
  declare nextAt: Date | null;
  declare problem: CreationOptional<string>;
  declare unchanged: CreationOptional<boolean>;
}

export function defineFeed(sequelize: Sequelize): void {
  FeedModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      name: text(),
      url: text(),
      near: withDefault(flag(), false),
      everyHours: optional(integer()),
      rev: withDefault(integer(), 1),
      etag: withDefault(text(), ''),
      modified: withDefault(text(), ''),
      readAt: optional(instant()),
      nextAt: optional(instant()),
      problem: withDefault(text(), ''),
      unchanged: withDefault(flag(), false),
    },
    { sequelize, tableName: 'feeds' },
  );
}
