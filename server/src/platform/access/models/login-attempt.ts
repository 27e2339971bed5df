import {
  type CreationOptional,
  DataTypes,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { bigint, integer, optional, primary, withDefault } from '../../../platform/db/columns';

/** Counts of wrong passwords; the rate limiter writes them. */
export class LoginAttemptModel extends Model<
  InferAttributes<LoginAttemptModel>,
  InferCreationAttributes<LoginAttemptModel>
> {
  declare key: string;
  declare points: CreationOptional<number>;
  declare expire: number | null;
}

export function defineLoginAttempt(sequelize: Sequelize): void {
  LoginAttemptModel.init(
    {
      key: primary({ type: DataTypes.STRING, allowNull: false }),
      points: withDefault(integer(), 0),
      expire: optional(bigint()),
    },
    { sequelize, tableName: 'sign_in_tries' },
  );
}
