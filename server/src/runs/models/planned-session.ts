import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { SessionEntry } from '@ruddy/core/runs/contract';
import { json, primary, provenance, uuid } from '../../platform/db/columns';

/** A planned session of measuring. */
export class PlannedSessionModel extends Model<
  InferAttributes<PlannedSessionModel>,
  InferCreationAttributes<PlannedSessionModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare body: Omit<SessionEntry, 'id' | 'createdAt' | 'origin'>;
}

export function definePlannedSession(sequelize: Sequelize): void {
  PlannedSessionModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      body: json(),
    },
    { sequelize, tableName: 'sessions_planned' },
  );
}
