import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Bands, ForecastBasis } from '@ruddy/core/runs';
import { instant, integer, json, primary, references, text } from '../../platform/db/columns';

/** The forecast of a run from what was known before it, as it was when the run was stored. */
export class RunForecastModel extends Model<
  InferAttributes<RunForecastModel>,
  InferCreationAttributes<RunForecastModel>
> {
  declare runId: string;
  declare madeAt: Date;
  declare model: string;
  declare evidence: number;
  declare basis: ForecastBasis;
  declare fps: Bands;
}

export function defineRunForecast(sequelize: Sequelize): void {
  RunForecastModel.init(
    {
      runId: primary(references('runs', 'CASCADE')),
      madeAt: instant(),
      model: text(),
      evidence: integer(),
      basis: text(),
      fps: json(),
    },
    { sequelize, tableName: 'run_forecasts' },
  );
}
