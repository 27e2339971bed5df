import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Outcome } from '@ruddy/core/base';
import type { Origin } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import type { OutcomeEntry } from '@ruddy/core/compatibility/contract';
import {
  day,
  generated,
  instant,
  integer,
  json,
  optional,
  primary,
  provenance,
  real,
  references,
  text,
  texts,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** An outcome of a chain: what the log tells from. */
export class LogEntryModel extends Model<
  InferAttributes<LogEntryModel>,
  InferCreationAttributes<LogEntryModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare setupId: string | null;
  declare chainKey: string | null;
  declare chain: Chain;
  declare versions: OutcomeEntry['versions'];
  declare outcome: Outcome;
  declare symptoms: string[];
  declare fixes: string[];
  declare provenance: OutcomeEntry['provenance'];
  declare confidence: number;
  declare happenedOn: string;
  declare recordedAt: Date;
  declare supersedes: string | null;
  declare contentHash: string;
  declare private: { note?: string } | null;
  declare orderUsed: OutcomeEntry['order'];
  declare unit: string;
  declare seq: CreationOptional<number>;
  declare cameFrom: CreationOptional<string>;
  declare host: CreationOptional<string>;
  declare link: CreationOptional<string>;
  declare dock: CreationOptional<string>;
  declare card: CreationOptional<string>;
  declare family: CreationOptional<string>;
  declare controllers: CreationOptional<string>;
  declare systemName: CreationOptional<string>;
  declare symptomWords: CreationOptional<string>;
  declare fixWords: CreationOptional<string>;
  declare words: CreationOptional<string>;
}

export function defineLogEntry(sequelize: Sequelize): void {
  LogEntryModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      setupId: optional(references('setups', 'CASCADE')),
      chainKey: optional(text()),
      chain: json(),
      versions: json(),
      outcome: text(),
      symptoms: texts(),
      fixes: texts(),
      provenance: text(),
      confidence: real(),
      happenedOn: day(),
      recordedAt: instant(),
      supersedes: optional(references('log_entries')),
      contentHash: text(),
      private: optional(json()),
      orderUsed: optional(text()),
      unit: uuid(),
      seq: withDefault(integer(), 0),
      cameFrom: withDefault(text(), ''),
      host: generated(text()),
      link: generated(text()),
      dock: generated(text()),
      card: generated(text()),
      family: generated(text()),
      controllers: generated(text()),
      systemName: generated(text()),
      symptomWords: generated(text()),
      fixWords: generated(text()),
      words: generated(text()),
    },
    { sequelize, tableName: 'log_entries' },
  );
}
