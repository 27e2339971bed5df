import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { ImportRow, RowOutcome } from '@ruddy/core/parts/contract';
import { integer, json, primary, references, text } from '../../../platform/db/columns';

/** What became of one row of an imported file. */
export class JobRowModel extends Model<
  InferAttributes<JobRowModel>,
  InferCreationAttributes<JobRowModel>
> {
  declare jobId: string;
  declare row: number;
  declare fate: RowOutcome;
  declare part: string;
  declare notes: ImportRow['notes'];
}

export function defineJobRow(sequelize: Sequelize): void {
  JobRowModel.init(
    {
      jobId: primary(references('jobs', 'CASCADE')),
      row: primary(integer()),
      fate: text(),
      part: text(),
      notes: json(),
    },
    { sequelize, tableName: 'job_rows' },
  );
}
