import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type * as z from 'zod';
import type { claimBody } from '@ruddy/core/compatibility/contract';
import {
  instant,
  json,
  optional,
  primary,
  provenance,
  text,
  uuid,
} from '../../platform/db/columns';

/** A stated claim that the log can test. */
export class ClaimModel extends Model<
  InferAttributes<ClaimModel>,
  InferCreationAttributes<ClaimModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare body: Omit<z.output<typeof claimBody>, 'id'>;
  declare contentHash: string;
  declare withdrawnAt: Date | null;
  declare private: object | null;
}

export function defineClaim(sequelize: Sequelize): void {
  ClaimModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      body: json(),
      contentHash: text(),
      withdrawnAt: optional(instant()),
      private: optional(json()),
    },
    { sequelize, tableName: 'claims' },
  );
}
