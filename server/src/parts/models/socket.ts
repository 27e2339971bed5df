import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import {
  instant,
  optional,
  primary,
  provenance,
  references,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A port of a host, so that slots can name it. */
export class SocketModel extends Model<
  InferAttributes<SocketModel>,
  InferCreationAttributes<SocketModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare partId: string;
  declare key: string;
  declare role: CreationOptional<string>;
  declare retiredAt: Date | null;
}

export function defineSocket(sequelize: Sequelize): void {
  SocketModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      partId: references('parts', 'CASCADE'),
      key: text(),
      role: withDefault(text(), 'port'),
      retiredAt: optional(instant()),
    },
    { sequelize, tableName: 'sockets' },
  );
}
