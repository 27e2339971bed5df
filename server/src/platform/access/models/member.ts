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
  bigint,
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
  /** Secret of the one-time codes; the one that waits for its first code; step of the last code used. */
  declare codeSecret: CreationOptional<string | null>;
  declare codePending: CreationOptional<string | null>;
  declare codeStep: CreationOptional<number | null>;
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
      codeSecret: optional(text()),
      codePending: optional(text()),
      codeStep: optional(bigint()),
      rev: withDefault(integer(), 1),
    },
    { sequelize, tableName: 'members' },
  );
}
