import type { Slot, SourceId } from '../chain';
import type { FindingCode } from './codes';
import type { Area, Certainty, Param, Severity } from './kind';

/** What the core says about a chain; its words are made from it by `sentence`. */
export interface Finding extends Certainty {
  readonly code: FindingCode;
  readonly area: Area;
  readonly severity: Severity;
  readonly slots: readonly Slot[];
  readonly params: Readonly<Record<string, Param>>;
  readonly source: SourceId;
  /** Which of several the same finding is made of: a cable, a supply, a requirement. */
  readonly about?: string;
}
