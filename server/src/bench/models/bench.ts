import {
  type CreationOptional,
  fn,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import {
  bigint,
  instant,
  integer,
  json,
  optional,
  primary,
  provenance,
  real,
  references,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A simulated bench and where its clock stands. */
export class BenchModel extends Model<
  InferAttributes<BenchModel>,
  InferCreationAttributes<BenchModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare name: string;
  declare seed: number;
  declare chain: Chain;
  declare setupId: string | null;
  declare speed: CreationOptional<number>;
  declare baseMs: CreationOptional<number>;
  declare baseAt: CreationOptional<Date>;
  declare nextSeq: CreationOptional<number>;
  declare lines: CreationOptional<number>;
  declare reads: CreationOptional<number>;
}

export function defineBench(sequelize: Sequelize): void {
  BenchModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      name: text(),
      seed: integer(),
      chain: json(),
      setupId: optional(references('setups', 'SET NULL')),
      speed: withDefault(real(), 1),
      baseMs: withDefault(bigint(), 0),
      baseAt: withDefault(instant(), fn('now')),
      nextSeq: withDefault(integer(), 1),
      lines: withDefault(integer(), 0),
      reads: withDefault(integer(), 0),
    },
    { sequelize, tableName: 'benches' },
  );
}
