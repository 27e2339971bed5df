import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { MemberModel } from '../../platform/access/models/member';
import type { ItemCondition } from '../../parts/models/item';
import type { Origin } from '@ruddy/core/base/contract';
import type { Back, LoanRow } from '@ruddy/core/workshop/contract';
import {
  day,
  flag,
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

/** A piece lent to a member, or waited for. */
export class LoanModel extends Model<
  InferAttributes<LoanModel>,
  InferCreationAttributes<LoanModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare itemId: string;
  declare memberId: string;
  declare setupId: string | null;
  declare askedOn: string;
  declare fromOn: string | null;
  declare dueOn: string | null;
  declare conditionOut: ItemCondition | null;
  declare along: CreationOptional<string[]>;
  declare note: CreationOptional<string>;
  declare checked: LoanRow['checked'];
  declare returnedOn: string | null;
  declare back: Back | null;
  declare withdrawn: CreationOptional<boolean>;
  declare rev: CreationOptional<number>;
  declare member?: NonAttribute<MemberModel>;
}

export function defineLoan(sequelize: Sequelize): void {
  LoanModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      itemId: references('items', 'CASCADE'),
      memberId: references('members'),
      setupId: optional(references('setups', 'SET NULL')),
      askedOn: day(),
      fromOn: optional(day()),
      dueOn: optional(day()),
      conditionOut: optional(text()),
      along: withDefault(json(), []),
      note: withDefault(text(), ''),
      checked: optional(json()),
      returnedOn: optional(day()),
      back: optional(json()),
      withdrawn: withDefault(flag(), false),
      rev: withDefault(integer(), 1),
    },
    { sequelize, tableName: 'loans' },
  );
}
