import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type * as z from 'zod';
import type { titleNoteBody } from '@ruddy/core/compatibility/contract';
import {
  instant,
  json,
  optional,
  primary,
  provenance,
  references,
  text,
  uuid,
} from '../../platform/db/columns';

/** A stated property of a title. */
export class TitleNoteModel extends Model<
  InferAttributes<TitleNoteModel>,
  InferCreationAttributes<TitleNoteModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare titleId: string;
  declare body: Omit<z.output<typeof titleNoteBody>, 'id' | 'titleId'>;
  declare contentHash: string;
  declare withdrawnAt: Date | null;
  declare private: object | null;
}

export function defineTitleNote(sequelize: Sequelize): void {
  TitleNoteModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      titleId: references('profiles', 'CASCADE'),
      body: json(),
      contentHash: text(),
      withdrawnAt: optional(instant()),
      private: optional(json()),
    },
    { sequelize, tableName: 'title_notes' },
  );
}
