import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { SearchEntry } from '@ruddy/core/buy/contract';
import {
  integer,
  json,
  primary,
  provenance,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A search over combinations that is kept. */
export class SearchModel extends Model<
  InferAttributes<SearchModel>,
  InferCreationAttributes<SearchModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare name: string;
  declare ask: SearchEntry['ask'];
  declare rev: CreationOptional<number>;
}

export function defineSearch(sequelize: Sequelize): void {
  SearchModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      name: text(),
      ask: json(),
      rev: withDefault(integer(), 1),
    },
    { sequelize, tableName: 'searches' },
  );
}
