import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { PriceKind } from '@ruddy/core/buy';
import type { Condition } from '@ruddy/core/setups';
import {
  bigint,
  day,
  instant,
  optional,
  primary,
  provenance,
  real,
  references,
  text,
  uuid,
  uuids,
  withDefault,
} from '../../platform/db/columns';

/** A price of a part or a piece. Amounts are in the smallest unit of their currency. */
export class PriceModel extends Model<
  InferAttributes<PriceModel>,
  InferCreationAttributes<PriceModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare partId: string;
  declare itemId: string | null;
  declare kind: PriceKind;
  declare minor: number;
  declare currency: string;
  declare condition: Condition | null;
  declare onDate: string;
  declare source: string;
  declare note: string;
  declare withIds: CreationOptional<string[]>;
  declare beforeMinor: number | null;
  declare discountPercent: number | null;
  declare withdrawnAt: Date | null;
}

export function definePrice(sequelize: Sequelize): void {
  PriceModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      partId: references('parts', 'CASCADE'),
      itemId: optional(references('items', 'SET NULL')),
      kind: text(),
      minor: bigint(),
      currency: text(),
      condition: optional(text()),
      onDate: day(),
      source: text(),
      note: text(),
      withIds: withDefault(uuids(), []),
      beforeMinor: optional(bigint()),
      discountPercent: optional(real()),
      withdrawnAt: optional(instant()),
    },
    { sequelize, tableName: 'prices' },
  );
}
