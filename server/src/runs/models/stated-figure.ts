import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { StatedFigureKept } from '@ruddy/core/runs/contract';
import { json, optional, primary, provenance, references, uuid } from '../../platform/db/columns';

/** A figure that somebody states of a title, with the rig it is of. */
export class StatedFigureModel extends Model<
  InferAttributes<StatedFigureModel>,
  InferCreationAttributes<StatedFigureModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare titleId: string;
  /** Null once the setup it was stated with is gone. */
  declare setupId: string | null;
  declare body: StatedFigureKept;
}

export function defineStatedFigure(sequelize: Sequelize): void {
  StatedFigureModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      titleId: references('profiles', 'CASCADE'),
      setupId: optional(references('setups', 'SET NULL')),
      body: json(),
    },
    { sequelize, tableName: 'stated_figures' },
  );
}
