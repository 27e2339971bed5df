import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Shown, Supplied } from '@ruddy/core/chain';
import {
  integer,
  json,
  optional,
  primary,
  references,
  text,
  withDefault,
} from '../../platform/db/columns';

/** The slots of a setup that hold parts. */
export type SlotName = 'host' | 'path' | 'dock' | 'card' | 'supply' | 'screen' | 'system' | 'spare';
/** How a slot is filled: what a supply feeds, where a screen hangs, what another card is for. */
export interface SlotDetail {
  feeds?: Supplied['feeds'];
  by?: Shown['by'];
  plug?: Shown['plug'];
  purpose?: string;
}

/** A part in its place in a setup. */
export class SetupSlotModel extends Model<
  InferAttributes<SetupSlotModel>,
  InferCreationAttributes<SetupSlotModel>
> {
  declare setupId: string;
  declare slot: SlotName;
  declare ord: CreationOptional<number>;
  declare partId: string;
  declare socketId: string | null;
  declare detail: CreationOptional<SlotDetail>;
  declare itemId: string | null;
}

export function defineSetupSlot(sequelize: Sequelize): void {
  SetupSlotModel.init(
    {
      setupId: primary(references('setups', 'CASCADE')),
      slot: primary(text()),
      ord: withDefault(primary(integer()), 0),
      partId: references('parts'),
      socketId: optional(references('sockets')),
      detail: withDefault(json(), {}),
      itemId: optional(references('items', 'SET NULL')),
    },
    { sequelize, tableName: 'setup_slots' },
  );
}
