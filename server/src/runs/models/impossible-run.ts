import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { instant, primary, references, text } from '../../platform/db/columns';

/** A run that somebody says cannot be made on a setup: it is advised no more. */
export class ImpossibleRunModel extends Model<
  InferAttributes<ImpossibleRunModel>,
  InferCreationAttributes<ImpossibleRunModel>
> {
  declare setupId: string;
  /** Id of an experiment of the frame model. */
  declare experiment: string;
  declare createdAt: Date;
  declare createdBy: string;
}

export function defineImpossibleRun(sequelize: Sequelize): void {
  ImpossibleRunModel.init(
    {
      setupId: primary(references('setups', 'CASCADE')),
      experiment: primary(text()),
      createdAt: instant(),
      createdBy: references('members'),
    },
    { sequelize, tableName: 'impossible_runs' },
  );
}
