import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { MemberModel } from '../../platform/access/models/member';
import {
  instant,
  integer,
  json,
  optional,
  primary,
  references,
  uuid,
} from '../../platform/db/columns';

/** A setup as it was after an edit. */
export class SetupRevisionModel extends Model<
  InferAttributes<SetupRevisionModel>,
  InferCreationAttributes<SetupRevisionModel>
> {
  declare id: string;
  declare setupId: string;
  declare rev: number;
  declare snapshot: object;
  declare editSession: string | null;
  declare at: Date;
  declare by: string;
  declare author?: NonAttribute<MemberModel>;
}

export function defineSetupRevision(sequelize: Sequelize): void {
  SetupRevisionModel.init(
    {
      id: primary(uuid()),
      setupId: references('setups', 'CASCADE'),
      rev: integer(),
      snapshot: json(),
      editSession: optional(uuid()),
      at: instant(),
      by: references('members'),
    },
    { sequelize, tableName: 'setup_revisions' },
  );
}
