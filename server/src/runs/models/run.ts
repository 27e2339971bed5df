import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { Origin } from '@ruddy/core/base/contract';
import type { Chain } from '@ruddy/core/chain';
import type { RunContext, RunKind, RunSettings, Segment } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import {
  double,
  instant,
  json,
  optional,
  primary,
  provenance,
  references,
  text,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** Never in a share file: what a person saw, and the file the run came from. */
export interface RunPrivate {
  saw?: string;
  source?: RunEntry['source'];
}

/** A benchmark or capture with the chain as it was. */
export class RunModel extends Model<InferAttributes<RunModel>, InferCreationAttributes<RunModel>> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare setupId: string;
  declare titleId: string;
  declare kind: RunKind;
  declare happenedAt: Date;
  declare recordedAt: Date;
  declare chain: Chain;
  declare settings: RunSettings;
  declare context: RunContext;
  declare result: RunEntry['result'];
  declare reason: CreationOptional<string>;
  declare cutS: CreationOptional<number>;
  declare segments: CreationOptional<Segment[]>;
  declare program: CreationOptional<string>;
  declare private: RunPrivate | null;
}

export function defineRun(sequelize: Sequelize): void {
  RunModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      setupId: references('setups', 'CASCADE'),
      titleId: references('profiles'),
      kind: text(),
      happenedAt: instant(),
      recordedAt: instant(),
      chain: json(),
      settings: json(),
      context: json(),
      result: optional(json()),
      reason: withDefault(text(), ''),
      cutS: withDefault(double(), 0),
      segments: withDefault(json(), []),
      program: withDefault(text(), ''),
      private: optional(json()),
    },
    { sequelize, tableName: 'runs' },
  );
}
