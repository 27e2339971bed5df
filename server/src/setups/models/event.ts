import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import {
  instant,
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

/** A fact of the record of a setup. Facts are appended and never changed. */
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
  declare bodyVersion: CreationOptional<number>;
  declare happenedAt: Date;
  declare recordedAt: Date;
  declare corrects: string | null;
  declare private: object | null;
}

export function defineEvent(sequelize: Sequelize): void {
  EventModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      setupId: references('setups', 'CASCADE'),
      seq: integer(),
      kind: text(),
      body: json(),
      bodyVersion: withDefault(integer(), 1),
      happenedAt: instant(),
      recordedAt: instant(),
      corrects: optional(references('events')),
      private: optional(json()),
    },
    { sequelize, tableName: 'events' },
  );
}
