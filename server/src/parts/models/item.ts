import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { PartModel } from './part';
import type { Origin } from '@ruddy/core/base/contract';
import type { Differs } from '@ruddy/core/parts';
import {
  day,
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

export type ItemCondition = 'new' | 'used' | 'worn' | 'faulty';

/** A piece of a part that the workshop owns or borrows. */
export class ItemModel extends Model<
  InferAttributes<ItemModel>,
  InferCreationAttributes<ItemModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare partId: string;
  declare label: string;
  declare how: 'own' | 'borrowed' | 'gone';
  declare owner: string;
  declare condition: ItemCondition | null;
  declare acquiredOn: string | null;
  declare boughtFrom: string;
  declare claim: string;
  declare note: string;
  declare private: CreationOptional<{ serial?: string }>;
  declare rev: CreationOptional<number>;
  declare differs: CreationOptional<Differs>;
  declare part?: NonAttribute<PartModel>;
}

export function defineItem(sequelize: Sequelize): void {
  ItemModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      partId: references('parts', 'CASCADE'),
      label: text(),
      how: text(),
      owner: text(),
      condition: optional(text()),
      acquiredOn: optional(day()),
      boughtFrom: text(),
      claim: text(),
      note: text(),
      private: withDefault(json(), {}),
      rev: withDefault(integer(), 1),
      differs: withDefault(json(), {}),
    },
    { sequelize, tableName: 'items' },
  );
}
