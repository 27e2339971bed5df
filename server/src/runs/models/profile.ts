import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { ProfileEntry, ProfileKind } from '@ruddy/core/runs/contract';
import {
  integer,
  json,
  optional,
  primary,
  provenance,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A title or a kind of work that runs are made with. */
export class ProfileModel extends Model<
  InferAttributes<ProfileModel>,
  InferCreationAttributes<ProfileModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare name: string;
  declare kind: ProfileKind;
  declare note: CreationOptional<string>;
  declare rev: CreationOptional<number>;
  declare params: ProfileEntry['params'];
  declare year: number | null;
  declare engine: CreationOptional<string>;
}

export function defineProfile(sequelize: Sequelize): void {
  ProfileModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      name: text(),
      kind: text(),
      note: withDefault(text(), ''),
      rev: withDefault(integer(), 1),
      params: optional(json()),
      year: optional(integer()),
      engine: withDefault(text(), ''),
    },
    { sequelize, tableName: 'profiles' },
  );
}
