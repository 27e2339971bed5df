import type { CauseId, SymptomId } from '../../base';
import type { CautionId } from '../../bring-up';
import type { ChainCondition } from '../chain-facts';

/** Where a cause sits on the strip: a bank, a pier, or elsewhere. */
export const PLACES = ['system', 'port', 'cable', 'dock', 'card', 'screen', 'elsewhere'] as const;
export type Place = (typeof PLACES)[number];

/** 0 none, 1 with care, 2 can lock out or brick, 3 a matter of trust. */
export type Risk = 0 | 1 | 2 | 3;

/** What is done about a cause once it is the likeliest. */
export interface CauseFix {
  readonly minutes: number;
  readonly risk: Risk;
  /** How often it helps where this is the cause. */
  readonly cures: number;
  readonly cautions: readonly CautionId[];
}

export interface CauseDef {
  readonly at: Place;
  /** Relative weight before anything is seen. */
  readonly w: number;
  readonly on: ChainCondition;
  /** It belongs to one title or program; others run well on the same chain. */
  readonly perTitle?: true;
  readonly fix: CauseFix;
}

/** P(seen given cause) by cause. */
export type Likelihoods = Readonly<Partial<Record<CauseId, number>>>;

export interface SymptomDef {
  readonly given: Likelihoods;
  /** On a chain that is surely direct PCIe these stand instead. */
  readonly direct?: Likelihoods;
}

export interface TestDef {
  readonly minutes: number;
  readonly risk: 0 | 1;
  readonly on: ChainCondition;
  /** P(positive) for any cause not named. */
  readonly q: number;
  readonly given: Likelihoods;
  readonly cautions?: readonly CautionId[];
  /** A positive answer is this symptom, looked at more closely: only one of the two counts. */
  readonly same?: SymptomId;
  /** Positive when it is cured: with two faults at once it stays as it was. */
  readonly cures?: true;
  /** It reads the card at work: not possible while none is there. */
  readonly needsCard?: true;
  /** It makes sense only when one of these was seen. */
  readonly after?: readonly SymptomId[];
}
