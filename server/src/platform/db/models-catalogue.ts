import {
  DataTypes,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { PriceKind } from '@ruddy/core/buy';
import type { Differs } from '@ruddy/core/parts';
import type { Job } from '@ruddy/core/parts/contract';
import type { Condition } from '@ruddy/core/setups';

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
  declare condition: 'new' | 'used' | 'worn' | 'faulty' | null;
  declare acquiredOn: string | null;
  declare boughtFrom: string;
  declare claim: string;
  declare note: string;
  /** What is known of this piece only and not of its part. */
  declare differs: CreationOptional<Differs>;
  /** Never in a share file: the serial number. */
  declare private: { serial?: string };
  declare rev: CreationOptional<number>;
}

export interface FactWords {
  gbps: number | null;
  role: string | null;
  words: string;
}

export class ItemFactModel extends Model<
  InferAttributes<ItemFactModel>,
  InferCreationAttributes<ItemFactModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare itemId: string;
  declare kind: 'measured' | 'version' | 'fault';
  declare body: FactWords;
  declare happenedOn: string;
}

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
  /** Smallest units of the currency. The driver hands back a bigint as text: reads go through SQL that casts it. */
  declare minor: number;
  declare currency: string;
  declare condition: Condition | null;
  declare onDate: string;
  declare source: string;
  declare note: string;
  declare withIds: string[];
  declare beforeMinor: number | null;
  declare discountPercent: number | null;
  declare withdrawnAt: CreationOptional<Date | null>;
}

export class RateModel extends Model<
  InferAttributes<RateModel>,
  InferCreationAttributes<RateModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare fromCur: string;
  declare toCur: string;
  declare rate: number;
  declare onDate: string;
  declare source: string;
  declare withdrawnAt: CreationOptional<Date | null>;
}

export class JobModel extends Model<InferAttributes<JobModel>, InferCreationAttributes<JobModel>> {
  declare id: string;
  declare createdAt: Date;
  declare createdBy: string;
  declare kind: Job['kind'];
  declare state: Job['state'];
  declare done: CreationOptional<number>;
  declare total: CreationOptional<number>;
  declare message: CreationOptional<string>;
  declare cancelRequested: CreationOptional<boolean>;
  declare heartbeatAt: Date;
  declare result: Job['result'];
}

const id = () => ({ type: DataTypes.UUID, primaryKey: true });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });
const day = () => ({ type: DataTypes.DATEONLY, allowNull: false });
const made = () => ({ createdAt: date(), createdBy: uuid() });

/** Bind the models of pieces, prices, rates and long work. */
export function defineCatalogue(sequelize: Sequelize): void {
  ItemModel.init(
    {
      id: id(),
      origin: text(),
      ...made(),
      partId: uuid(),
      label: text(),
      how: text(),
      owner: text(),
      condition: DataTypes.TEXT,
      acquiredOn: DataTypes.DATEONLY,
      boughtFrom: text(),
      claim: text(),
      note: text(),
      differs: DataTypes.JSONB,
      private: json(),
      rev: DataTypes.INTEGER,
    },
    { sequelize, tableName: 'items' },
  );
  ItemFactModel.init(
    {
      id: id(),
      origin: text(),
      ...made(),
      itemId: uuid(),
      kind: text(),
      body: json(),
      happenedOn: day(),
    },
    { sequelize, tableName: 'item_facts' },
  );
  PriceModel.init(
    {
      id: id(),
      origin: text(),
      ...made(),
      partId: uuid(),
      itemId: DataTypes.UUID,
      kind: text(),
      minor: { type: DataTypes.BIGINT, allowNull: false },
      currency: text(),
      condition: DataTypes.TEXT,
      onDate: day(),
      source: text(),
      note: text(),
      withIds: { type: DataTypes.ARRAY(DataTypes.UUID), allowNull: false },
      beforeMinor: DataTypes.BIGINT,
      discountPercent: DataTypes.REAL,
      withdrawnAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'prices' },
  );
  RateModel.init(
    {
      id: id(),
      origin: text(),
      ...made(),
      fromCur: text(),
      toCur: text(),
      rate: { type: DataTypes.DOUBLE, allowNull: false },
      onDate: day(),
      source: text(),
      withdrawnAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'exchange_rates' },
  );
  JobModel.init(
    {
      id: id(),
      ...made(),
      kind: text(),
      state: text(),
      done: DataTypes.INTEGER,
      total: DataTypes.INTEGER,
      message: DataTypes.TEXT,
      cancelRequested: DataTypes.BOOLEAN,
      heartbeatAt: date(),
      result: DataTypes.JSONB,
    },
    { sequelize, tableName: 'jobs' },
  );
}
