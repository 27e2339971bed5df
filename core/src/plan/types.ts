import type { Assumption, HouseRules } from '../base';
import type { AttrPath, Both, Chain, Hop, Bottleneck, Working } from '../chain';
import type { ReleaseSpec, RequirementSpec } from '../parts';
import type { AreaVerdict, Coverage } from './areas';
import type { StaticFacts } from './body';
import type { Budget } from './budgets';
import type { FindingCode } from './codes';
import type { Finding } from './finding';
import type { EvidenceSummary, Expectation } from './evidence/evidence';
import type { ReadOuts } from './read-outs';

export interface Context {
  /** ISO date the evaluation is made for. */
  readonly asOf: string;
  readonly house: HouseRules;
  /** What the log says of this chain and of near ones, gathered by whoever has the log. */
  readonly evidence?: EvidenceSummary;
  /** Requirements and releases that match parts of the chain; the caller leaves out the others. */
  readonly requirements?: readonly RequirementSpec[];
  readonly releases?: readonly ReleaseSpec[];
}
export interface EvaluateInput {
  readonly chain: Chain;
  readonly context: Context;
}

export type VerdictState = 'works' | 'care' | 'blocked' | 'unknown';

export interface Verify {
  readonly path: AttrPath;
  readonly decides: boolean;
}

export interface Evaluation {
  /** Version of the rules, stored with every stored result. */
  readonly core: string;
  readonly asOf: string;
  readonly predicted: {
    readonly verdict: {
      readonly state: VerdictState;
      readonly because: readonly FindingCode[];
      readonly wouldDecide: readonly AttrPath[];
    };
    /** The chain area by area, and how many of the areas that apply are known. */
    readonly areas: readonly AreaVerdict[];
    readonly coverage: Coverage;
    readonly link: {
      readonly kind: 'tunnel' | 'direct';
      readonly hops: readonly Hop[];
      readonly usable: Both | null;
      readonly pinch: Bottleneck;
      /** What a system should show of this chain under load. */
      readonly readouts: ReadOuts;
    };
    readonly budgets: readonly Budget[];
    /** What the budgets are made of: supplies with their plugs, charging, room, air, pictures, requirements. */
    readonly body: StaticFacts;
  };
  readonly observed?: EvidenceSummary & { readonly expected: Expectation };
  readonly findings: readonly Finding[];
  readonly toVerify: readonly Verify[];
  readonly assumptions: readonly Assumption[];
}

export type { Both, Hop, Bottleneck, Working };
