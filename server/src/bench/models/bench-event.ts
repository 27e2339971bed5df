import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { BenchEvent } from '@ruddy/core/bench/contract';
import {
  bigint,
  integer,
  json,
  optional,
  primary,
  references,
  text,
  uuid,
} from '../../platform/db/columns';

/** What was done at a bench and what came about. */
export class BenchEventModel extends Model<
  InferAttributes<BenchEventModel>,
  InferCreationAttributes<BenchEventModel>
> {
  declare benchId: string;
  declare seq: number;
  declare benchMs: number;
  declare kind: BenchEvent['kind'];
  declare body: object;
  declare actId: string | null;
}

export function defineBenchEvent(sequelize: Sequelize): void {
  BenchEventModel.init(
    {
      benchId: primary(references('benches', 'CASCADE')),
      seq: primary(integer()),
      benchMs: bigint(),
      kind: text(),
      body: json(),
      actId: optional(uuid()),
    },
    { sequelize, tableName: 'bench_events' },
  );
}
