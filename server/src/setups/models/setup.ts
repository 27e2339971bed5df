import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { SetupFields } from '@ruddy/core/setups';
import type { SetupState } from '@ruddy/core/setups/contract';
import {
  instant,
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

export interface SetupDetails extends Partial<SetupFields> {
  /** True when the path was chosen to be "no separate cable": an empty path is not the same as none chosen. */
  noCable?: boolean;
}

/** A setup; its parts are its slots. */
export class SetupModel extends Model<
  InferAttributes<SetupModel>,
  InferCreationAttributes<SetupModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare name: string;
  declare state: SetupState;
  declare clonedFrom: string | null;
  declare rev: CreationOptional<number>;
  declare nextSeq: CreationOptional<number>;
  declare details: CreationOptional<SetupDetails>;
  declare savedAt: Date;
}

export function defineSetup(sequelize: Sequelize): void {
  SetupModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      name: text(),
      state: text(),
      clonedFrom: optional(references('setups', 'SET NULL')),
      rev: withDefault(integer(), 1),
      nextSeq: withDefault(integer(), 0),
      details: withDefault(json(), {}),
      savedAt: instant(),
    },
    { sequelize, tableName: 'setups' },
  );
}
