import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  literal,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { SetupModel } from './setup';
import type { MemberModel } from '../../platform/access/models/member';
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
  declare author?: NonAttribute<MemberModel>;
  declare setup?: NonAttribute<SetupModel>;
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
    {
      sequelize,
      tableName: 'events',
      scopes: {
        notRetracted: {
          where: literal(
            `NOT EXISTS (SELECT 1 FROM events c WHERE c.corrects = "EventModel"."id" AND c.kind = 'struck')`,
          ),
        },
      },
    },
  );
}
