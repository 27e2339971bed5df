import type { Range } from '../base';
import type { AttrPath, Slot } from '../chain';
import type { SourceId } from '../chain';
import type { Area, FindingCode } from './codes';
import type { Severity } from './severity';

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
  /** Which of several the same finding is made of: a cable, a supply, a requirement. */
  readonly about?: string;
}
