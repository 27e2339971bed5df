import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { Role } from '@ruddy/core/workshop/contract';
import {
  flag,
  instant,
  integer,
  optional,
  primary,
  text,
  uuid,
  withDefault,
} from '../../../platform/db/columns';

/** A person of the workshop, or the machine itself. */
export class MemberModel extends Model<
  InferAttributes<MemberModel>,
  InferCreationAttributes<MemberModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare name: string;
  declare role: Role;
  declare passwordHash: string | null;
  declare active: CreationOptional<boolean>;
  declare rev: CreationOptional<number>;
}

export function defineMember(sequelize: Sequelize): void {
  MemberModel.init(
    {
      id: primary(uuid()),
      origin: text(),
      createdAt: instant(),
      name: text(),
      role: text(),
      passwordHash: optional(text()),
      active: withDefault(flag(), true),
      rev: withDefault(integer(), 1),
    },
    { sequelize, tableName: 'members' },
  );
}
