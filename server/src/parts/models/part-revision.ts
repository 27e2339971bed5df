import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { MemberModel } from '../../platform/access/models/member';
import type { AnySpec, SourceMap } from '@ruddy/core/parts';
import {
  flag,
  instant,
  integer,
  json,
  primary,
  references,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A part as it was after an edit. */
export class PartRevisionModel extends Model<
  InferAttributes<PartRevisionModel>,
  InferCreationAttributes<PartRevisionModel>
> {
  declare id: string;
  declare partId: string;
  declare rev: number;
  declare spec: AnySpec;
  declare specVersion: number;
  declare at: Date;
  declare by: string;
  declare sources: CreationOptional<SourceMap>;
  declare retired: CreationOptional<boolean>;
  declare author?: NonAttribute<MemberModel>;
}

export function definePartRevision(sequelize: Sequelize): void {
  PartRevisionModel.init(
    {
      id: primary(uuid()),
      partId: references('parts', 'CASCADE'),
      rev: integer(),
      spec: json(),
      specVersion: integer(),
      at: instant(),
      by: references('members'),
      sources: withDefault(json(), {}),
      retired: withDefault(flag(), false),
    },
    { sequelize, tableName: 'part_revisions' },
  );
}
