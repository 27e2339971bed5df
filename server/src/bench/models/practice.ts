import {
  type CreationOptional,
  type InferAttributes,
  type InferCreationAttributes,
  Model,
  type Sequelize,
} from 'sequelize';
import type { CauseId, SymptomId } from '@ruddy/core/base';
import type { Origin } from '@ruddy/core/base/contract';
import type { FaultMap, leftAt, Path, PracticeStep } from '@ruddy/core/bench';
import type { Chain } from '@ruddy/core/chain';
import type { InjectedFault } from '@ruddy/simbench';
import {
  integer,
  json,
  optional,
  primary,
  provenance,
  text,
  texts,
  uuid,
  withDefault,
} from '../../platform/db/columns';

/** A fault hidden on a bench for practice, and the tests made to find it. */
export class PracticeModel extends Model<
  InferAttributes<PracticeModel>,
  InferCreationAttributes<PracticeModel>
> {
  declare id: string;
  declare origin: Origin;
  declare createdAt: Date;
  declare createdBy: string;
  declare caseNo: number | null;
  declare name: string;
  declare chain: Chain;
  declare seed: number;
  declare faults: FaultMap;
  declare orderUsed: InjectedFault['order'];
  declare symptoms: SymptomId[];
  declare steps: CreationOptional<PracticeStep[]>;
  declare named: CauseId | null;
  declare ended: { best: Path; left: ReturnType<typeof leftAt> } | null;
}

export function definePractice(sequelize: Sequelize): void {
  PracticeModel.init(
    {
      id: primary(uuid()),
      ...provenance(),
      caseNo: optional(integer()),
      name: text(),
      chain: json(),
      seed: integer(),
      faults: json(),
      orderUsed: text(),
      symptoms: texts(),
      steps: withDefault(json(), []),
      named: optional(text()),
      ended: optional(json()),
    },
    { sequelize, tableName: 'practices' },
  );
}
