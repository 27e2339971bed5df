import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { bytes, instant, primary, references } from '../../../platform/db/columns';

/** A browser that a member has signed in with, by the SHA-256 of its token. */
export class KnownBrowserModel extends Model<
  InferAttributes<KnownBrowserModel>,
  InferCreationAttributes<KnownBrowserModel>
> {
  declare tokenHash: Buffer;
  declare memberId: string;
  declare seenAt: Date;
}

export function defineKnownBrowser(sequelize: Sequelize): void {
  KnownBrowserModel.init(
    {
      tokenHash: primary(bytes()),
      memberId: primary(references('members', 'CASCADE')),
      seenAt: instant(),
    },
    { sequelize, tableName: 'known_browsers' },
  );
}
