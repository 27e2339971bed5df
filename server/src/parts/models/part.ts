import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { AnySpec, PartKind, SourceMap } from '@ruddy/core/parts';
import {
  generated,
  instant,
  integer,
  json,
  optional,
  primary,
  provenance,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A part of the catalogue with its attributes. */
export class PartModel extends Model<
  InferAttributes<PartModel>,
  InferCreationAttributes<PartModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare kind: PartKind;
  declare spec: AnySpec;
  declare specVersion: CreationOptional<number>;
  declare sources: CreationOptional<SourceMap>;
  declare rev: CreationOptional<number>;
  declare retiredAt: Date | null;
  declare maker: CreationOptional<string>;
  declare model: CreationOptional<string>;
  declare variant: CreationOptional<string>;
  declare search: CreationOptional<string>;
}

export function definePart(sequelize: Sequelize): void {
  PartModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      kind: text(),
      spec: json(),
      specVersion: withDefault(integer(), 1),
      sources: withDefault(json(), {}),
      rev: withDefault(integer(), 1),
      retiredAt: optional(instant()),
      maker: generated(text()),
      model: generated(text()),
      variant: generated(text()),
      search: generated(text()),
    },
    { sequelize, tableName: 'parts' },
  );
}
