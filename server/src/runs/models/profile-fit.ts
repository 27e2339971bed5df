import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { Fit } from '@ruddy/core/runs';
import { instant, json, primary, provenance, references, uuid } from '../../platform/db/columns';

/** A calibration of a title, as it was made. */
export class ProfileFitModel extends Model<
  InferAttributes<ProfileFitModel>,
  InferCreationAttributes<ProfileFitModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare profileId: string;
  declare madeAt: Date;
  declare fit: Fit;
}

export function defineProfileFit(sequelize: Sequelize): void {
  ProfileFitModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      profileId: references('profiles', 'CASCADE'),
      madeAt: instant(),
      fit: json(),
    },
    { sequelize, tableName: 'profile_fits' },
  );
}
