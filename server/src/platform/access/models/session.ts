import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { MemberModel } from './member';
import { bytes, instant, primary, references } from '../../../platform/db/columns';

/** A signed-in browser, by the SHA-256 of its token. */
export class SessionModel extends Model<
  InferAttributes<SessionModel>,
  InferCreationAttributes<SessionModel>
> {
  declare tokenHash: Buffer;
  declare memberId: string;
  declare begunAt: Date;
  declare seenAt: Date;
  declare expiresAt: Date;
  declare member?: NonAttribute<MemberModel>;
}

export function defineSession(sequelize: Sequelize): void {
  SessionModel.init(
    {
      tokenHash: primary(bytes()),
      memberId: references('members', 'CASCADE'),
      begunAt: instant(),
      seenAt: instant(),
      expiresAt: instant(),
    },
    { sequelize, tableName: 'sessions' },
  );
}
