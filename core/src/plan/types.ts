import type { Range } from '../units';
import type { Assumption, HouseRules } from '../house';
import type { AttrPath, Chain, Slot } from '../schema';
import type { Both, Hop, LinkFacts, Pinch, SlotFacts, SourceId, Working } from '../link';
import type { ReadOuts } from './read-outs';
import type { Tally } from '../log';

export type Area = 'link' | 'cable' | 'plan' | 'log';
export type Severity = 'blocks' | 'care' | 'note';

/** Every finding the core can make, with its area and severity. */
export const FINDING_CODES = {
  'link/no-tunnel': { area: 'link', severity: 'blocks' },
  'link/no-pcie': { area: 'link', severity: 'blocks' },
  'link/too-old': { area: 'link', severity: 'blocks' },
  'link/other-family': { area: 'link', severity: 'blocks' },
  'link/plug-mismatch': { area: 'link', severity: 'blocks' },
  'cable/no-data': { area: 'cable', severity: 'blocks' },
  'plan/unchosen': { area: 'plan', severity: 'blocks' },
  'cable/too-long': { area: 'cable', severity: 'care' },
  'cable/beyond-standard': { area: 'cable', severity: 'care' },
  'cable/joined': { area: 'cable', severity: 'care' },
  'cable/direct-long': { area: 'cable', severity: 'care' },
  'dock/firmware-cap': { area: 'link', severity: 'care' },
  'link/pinch': { area: 'link', severity: 'care' },
  'log/contradiction': { area: 'log', severity: 'care' },
  'link/all-off': { area: 'link', severity: 'note' },
  'link/looks-like-video': { area: 'link', severity: 'note' },
  'path/slot-used': { area: 'link', severity: 'note' },
  'link/shared': { area: 'link', severity: 'note' },
  'link/read-out': { area: 'link', severity: 'note' },
  'card/inner-switch': { area: 'link', severity: 'note' },
  'host/look-alike': { area: 'link', severity: 'note' },
  'cable/watts': { area: 'cable', severity: 'note' },
} as const satisfies Record<string, { area: Area; severity: Severity }>;
export type FindingCode = keyof typeof FINDING_CODES;

export type Param = number | string | Range;

export interface Finding {
  readonly code: FindingCode;
  readonly area: Area;
  readonly severity: Severity;
  readonly certainty: 'certain' | 'possible';
  readonly slots: readonly Slot[];
  /** Attributes that are not known and could turn it. */
  readonly hangsOn: readonly AttrPath[];
  readonly params: Readonly<Record<string, Param>>;
  readonly source: SourceId;
}

/** What a check may read: one slot, or the group of slots the link is joined from. */
export type FactKey = keyof Facts;
export interface Facts extends SlotFacts {
  readonly link: LinkFacts;
}

/** What a check hands back; area and severity come from the table of codes. */
export type Draft = Pick<Finding, 'code' | 'slots' | 'params' | 'source'> &
  Partial<Pick<Finding, 'certainty' | 'hangsOn'>> & {
    /** Which piece of the slot, where the same finding can be made of several. */
    readonly about?: string;
  };

/** A check: facts in, findings out. It receives only the facts it declares. */
export interface Check<R extends FactKey = FactKey> {
  readonly id: string;
  readonly codes: readonly FindingCode[];
  readonly reads: readonly R[];
  run(facts: Pick<Facts, R>, rule: (id: keyof HouseRules) => number): Draft[];
}

export interface Context {
  /** ISO date the evaluation is made for. */
  readonly asOf: string;
  readonly house: HouseRules;
  readonly evidence?: Tally;
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
    readonly link: {
      readonly kind: 'tunnel' | 'direct';
      readonly hops: readonly Hop[];
      readonly usable: Both | null;
      readonly pinch: Pinch;
      /** What a system should show of this chain under load. */
      readonly readouts: ReadOuts;
    };
  };
  readonly observed?: { readonly exact: Tally };
  readonly findings: readonly Finding[];
  readonly toVerify: readonly Verify[];
  readonly assumptions: readonly Assumption[];
}

export type { Both, Hop, Pinch, Working };
