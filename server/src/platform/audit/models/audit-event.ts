import {
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { AuditKind } from '@ruddy/core/base/contract';
import { instant, integer, optional, primary, text, uuid } from '../../db/columns';

/** Who did what, from where, and how it ended. Rows are added, and go by the rule; the database refuses anything else. */
export class AuditEventModel extends Model<
  InferAttributes<AuditEventModel>,
  InferCreationAttributes<AuditEventModel>
> {
  declare id: string;
  declare at: Date;
  declare kind: AuditKind;
  declare requestId: string | null;
  declare actorId: string | null;
  declare actor: string;
  declare address: string;
  declare act: string;
  declare about: string;
  declare status: number;
  declare why: string;
}

export function defineAuditEvent(sequelize: Sequelize): void {
  AuditEventModel.init(
    {
      id: primary(uuid()),
      at: instant(),
      kind: text(),
      requestId: optional(text()),
      actorId: optional(uuid()),
      actor: text(),
      address: text(),
      act: text(),
      about: text(),
      status: integer(),
      why: text(),
    },
    { sequelize, tableName: 'audit_events' },
  );
}
