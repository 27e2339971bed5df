import type { SetupFields } from '@ruddy/core/setups';
import {
  DataTypes,
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { Shown, Supplied } from '@ruddy/core/chain';
import type { AnySpec, PartKind, SourceMap } from '@ruddy/core/parts';
import type { SetupState } from '@ruddy/core/setups/contract';
import { defineCatalogue } from './models-catalogue';

export class PartModel extends Model<
  InferAttributes<PartModel>,
  InferCreationAttributes<PartModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare kind: PartKind;
  declare spec: AnySpec;
  declare specVersion: CreationOptional<number>;
  declare sources: CreationOptional<SourceMap>;
  declare rev: CreationOptional<number>;
  declare retiredAt: CreationOptional<Date | null>;
}

export class PartRevisionModel extends Model<
  InferAttributes<PartRevisionModel>,
  InferCreationAttributes<PartRevisionModel>
> {
  declare id: string;
  declare partId: string;
  declare rev: number;
  declare spec: AnySpec;
  declare specVersion: number;
  declare sources: SourceMap;
  declare retired: boolean;
  declare at: Date;
  declare by: string;
}

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
  declare retiredAt: CreationOptional<Date | null>;
}

export interface SetupDetails extends Partial<SetupFields> {
  /** True when the path was chosen to be "no separate cable": an empty path is not the same as none chosen. */
  noCable?: boolean;
}

/** The slots of a setup that hold parts. */
export type SlotName = 'host' | 'path' | 'dock' | 'card' | 'supply' | 'screen' | 'system' | 'spare';
/** How a slot is filled: what a supply feeds, where a screen hangs, what another card is for. */
export interface SlotDetail {
  feeds?: Supplied['feeds'];
  by?: Shown['by'];
  plug?: Shown['plug'];
  purpose?: string;
}

export class SetupModel extends Model<
  InferAttributes<SetupModel>,
  InferCreationAttributes<SetupModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare name: string;
  declare state: SetupState;
  declare clonedFrom: string | null;
  declare rev: CreationOptional<number>;
  declare nextSeq: CreationOptional<number>;
  declare details: SetupDetails;
  declare savedAt: Date;
}

export class SetupSlotModel extends Model<
  InferAttributes<SetupSlotModel>,
  InferCreationAttributes<SetupSlotModel>
> {
  declare setupId: string;
  declare slot: SlotName;
  declare ord: number;
  declare partId: string;
  declare socketId: string | null;
  declare itemId: CreationOptional<string | null>;
  declare detail: CreationOptional<SlotDetail>;
}

export class SetupRevisionModel extends Model<
  InferAttributes<SetupRevisionModel>,
  InferCreationAttributes<SetupRevisionModel>
> {
  declare id: string;
  declare setupId: string;
  declare rev: number;
  declare snapshot: object;
  declare editSession: string | null;
  declare at: Date;
  declare by: string;
}

export class EventModel extends Model<
  InferAttributes<EventModel>,
  InferCreationAttributes<EventModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare setupId: string;
  declare seq: number;
  declare kind: string;
  declare body: object;
  declare happenedAt: Date;
  declare recordedAt: Date;
  declare corrects: string | null;
  declare private: CreationOptional<object | null>;
}

export class LogEntryModel extends Model<
  InferAttributes<LogEntryModel>,
  InferCreationAttributes<LogEntryModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  /** Null for an entry that came from a file: its setup is not here. */
  declare setupId: string | null;
  /** The setup it was of, here or elsewhere: what counts once. */
  declare unit: string;
  declare seq: number;
  declare cameFrom: CreationOptional<string>;
  declare chainKey: string | null;
  declare chain: object;
  declare versions: object;
  declare outcome: string;
  declare symptoms: string[];
  declare fixes: string[];
  declare provenance: string;
  declare confidence: number;
  declare happenedOn: string;
  declare orderUsed: CreationOptional<string | null>;
  declare recordedAt: Date;
  declare supersedes: string | null;
  declare contentHash: string;
  declare private: object | null;
}

// Sequelize writes into the definitions it is given, so every attribute gets its own.
const id = () => ({ type: DataTypes.UUID, primaryKey: true });
const uuid = () => ({ type: DataTypes.UUID, allowNull: false });
const text = () => ({ type: DataTypes.TEXT, allowNull: false });
const json = () => ({ type: DataTypes.JSONB, allowNull: false });
const date = () => ({ type: DataTypes.DATE, allowNull: false });
const whole = () => ({ type: DataTypes.INTEGER });
const made = () => ({ origin: text(), createdAt: date(), createdBy: uuid() });
const words = () => ({
  type: DataTypes.ARRAY(DataTypes.TEXT),
  allowNull: false,
});

/** Bind the models to a pool. The migrations are the only place that shapes the tables. */
export function defineModels(sequelize: Sequelize): void {
  defineCatalogue(sequelize);
  PartModel.init(
    {
      id: id(),
      ...made(),
      kind: text(),
      spec: json(),
      specVersion: whole(),
      sources: { type: DataTypes.JSONB, defaultValue: {} },
      rev: whole(),
      retiredAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'parts' },
  );
  PartRevisionModel.init(
    {
      id: id(),
      partId: uuid(),
      rev: whole(),
      spec: json(),
      specVersion: whole(),
      sources: json(),
      retired: { type: DataTypes.BOOLEAN, allowNull: false },
      at: date(),
      by: uuid(),
    },
    { sequelize, tableName: 'part_revisions' },
  );
  SocketModel.init(
    {
      id: id(),
      ...made(),
      partId: uuid(),
      key: text(),
      retiredAt: DataTypes.DATE,
    },
    { sequelize, tableName: 'sockets' },
  );
  SetupModel.init(
    {
      id: id(),
      ...made(),
      name: text(),
      state: text(),
      clonedFrom: DataTypes.UUID,
      rev: whole(),
      nextSeq: whole(),
      details: json(),
      savedAt: date(),
    },
    { sequelize, tableName: 'setups' },
  );
  SetupSlotModel.init(
    {
      setupId: { ...uuid(), primaryKey: true },
      slot: { ...text(), primaryKey: true },
      ord: { ...whole(), primaryKey: true },
      partId: uuid(),
      socketId: DataTypes.UUID,
      itemId: DataTypes.UUID,
      detail: json(),
    },
    { sequelize, tableName: 'setup_slots' },
  );
  SetupRevisionModel.init(
    {
      id: id(),
      setupId: uuid(),
      rev: whole(),
      snapshot: json(),
      editSession: DataTypes.UUID,
      at: date(),
      by: uuid(),
    },
    { sequelize, tableName: 'setup_revisions' },
  );
  EventModel.init(
    {
      id: id(),
      ...made(),
      setupId: uuid(),
      seq: whole(),
      kind: text(),
      body: json(),
      happenedAt: date(),
      recordedAt: date(),
      corrects: DataTypes.UUID,
      private: DataTypes.JSONB,
    },
    { sequelize, tableName: 'events' },
  );
  LogEntryModel.init(
    {
      id: id(),
      ...made(),
      setupId: DataTypes.UUID,
      unit: uuid(),
      seq: { ...whole(), allowNull: false },
      cameFrom: { ...text(), defaultValue: '' },
      chainKey: DataTypes.TEXT,
      chain: json(),
      versions: json(),
      outcome: text(),
      symptoms: words(),
      fixes: words(),
      provenance: text(),
      confidence: DataTypes.FLOAT,
      happenedOn: DataTypes.DATEONLY,
      orderUsed: DataTypes.TEXT,
      recordedAt: date(),
      supersedes: DataTypes.UUID,
      contentHash: text(),
      private: DataTypes.JSONB,
    },
    { sequelize, tableName: 'log_entries' },
  );
}
