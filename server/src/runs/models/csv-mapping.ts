import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { CsvMapping } from '@ruddy/core/runs/contract';
import { instant, json, primary, text } from '../../platform/db/columns';

/** How the columns of a kind of file are read. */
export class CsvMappingModel extends Model<
  InferAttributes<CsvMappingModel>,
  InferCreationAttributes<CsvMappingModel>
> {
  declare signature: string;
  declare mapping: CsvMapping['mapping'];
  declare usedAt: Date;
}

export function defineCsvMapping(sequelize: Sequelize): void {
  CsvMappingModel.init(
    {
      signature: primary(text()),
      mapping: json(),
      usedAt: instant(),
    },
    { sequelize, tableName: 'csv_mappings' },
  );
}
