import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { SoftwareRole } from '@ruddy/core/parts';
import type { Origin } from '@ruddy/core/base/contract';
import { day, json, primary, provenance, references, text, uuid } from '../../platform/db/columns';

export interface FactWords {
  gbps: number | null;
  role: SoftwareRole | null;
  words: string;
}

/** What was measured on a piece, installed on it, or found wrong with it. */
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

export function defineItemFact(sequelize: Sequelize): void {
  ItemFactModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      itemId: references('items', 'CASCADE'),
      kind: text(),
      body: json(),
      happenedOn: day(),
    },
    { sequelize, tableName: 'item_facts' },
  );
}
