import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type NonAttribute,
  type Sequelize,
} from 'sequelize';
import type { MemberModel } from './member';
import { bytes, instant, primary, references, text, uuid } from '../../../platform/db/columns';

/** A signed-in browser, by the SHA-256 of its token. */
export class SessionModel extends Model<
  InferAttributes<SessionModel>,
  InferCreationAttributes<SessionModel>
> {
  declare tokenHash: Buffer;
  /** Names it where its token is not shown. */
  declare id: string;
  declare memberId: string;
  declare begunAt: Date;
  declare seenAt: Date;
  declare expiresAt: Date;
  /** When the password was last given in it. */
  declare confirmedAt: Date;
  declare address: string;
  declare browser: string;
  declare member?: NonAttribute<MemberModel>;
}

export function defineSession(sequelize: Sequelize): void {
  SessionModel.init(
    {
      tokenHash: primary(bytes()),
      id: uuid(),
      memberId: references('members', 'CASCADE'),
      begunAt: instant(),
      seenAt: instant(),
      expiresAt: instant(),
      confirmedAt: instant(),
      address: text(),
      browser: text(),
    },
    { sequelize, tableName: 'sessions' },
  );
}
