import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { bytes, instant, optional, primary, references } from '../../../platform/db/columns';

/** A code that stands in once for a one-time code, by its SHA-256. */
export class RecoveryCodeModel extends Model<
  InferAttributes<RecoveryCodeModel>,
  InferCreationAttributes<RecoveryCodeModel>
> {
  declare codeHash: Buffer;
  declare memberId: string;
  declare usedAt: Date | null;
}

export function defineRecoveryCode(sequelize: Sequelize): void {
  RecoveryCodeModel.init(
    {
      codeHash: primary(bytes()),
      memberId: references('members', 'CASCADE'),
      usedAt: optional(instant()),
    },
    { sequelize, tableName: 'recovery_codes' },
  );
}
