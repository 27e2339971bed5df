import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import { bytes, instant, integer, primary, text } from '../../platform/db/columns';

/** Values of a series: float32, little-endian, gzip, by the SHA-256 of what they unpack to. */
export class CaptureModel extends Model<
  InferAttributes<CaptureModel>,
  InferCreationAttributes<CaptureModel>
> {
  declare sha256: string;
  declare n: number;
  declare data: Buffer;
  declare sentAt: Date;
}

export function defineCapture(sequelize: Sequelize): void {
  CaptureModel.init(
    {
      sha256: primary(text()),
      n: integer(),
      data: bytes(),
      sentAt: instant(),
    },
    { sequelize, tableName: 'captures' },
  );
}
