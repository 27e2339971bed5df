import type { Range } from '../../base';

/** A stage of one host or card: known to a point, or only that it is no longer than this. */
export interface Stage extends Range {
  readonly mid: number;
}
/** One set of parameters that the runs of a title allow. Stage times in ms. */
export interface FitValues {
  readonly hosts: Readonly<Record<string, Stage>>;
  /** At `atPixels`, so that an exponent that is only assumed turns about what was measured. */
  readonly cards: Readonly<Record<string, Stage & { readonly atPixels: number }>>;
  readonly trafficMB: number;
  /** Of the traffic, what overlaps with drawing and is above `trafficMB`; 0 unless two cards ran behind one link. */
  readonly streamedMB: number;
  readonly trips: number;
  readonly exponent: number;
  readonly kappa: number;
}
export type FitTermKind = 'host' | 'card' | 'traffic' | 'streamed' | 'trips' | 'exponent' | 'kappa';
/** One parameter with how it stands: fitted, only bounded from above, assumed, or not to be told from others with these runs. */
export interface FitTerm {
  readonly kind: FitTermKind;
  /** The host or card it is of; empty for the others. */
  readonly of: string;
  readonly value: number;
  readonly lo: number | null;
  readonly hi: number | null;
  readonly state: 'fitted' | 'bound' | 'assumed' | 'inseparable';
}
export interface FitCell {
  readonly host: string;
  readonly card: string;
  readonly pixels: number;
  readonly panel: boolean;
  readonly downGbps: number;
  readonly upGbps: number;
  readonly latencyUs: number;
  readonly slot: boolean;
  readonly ms: number;
  readonly n: number;
}

/** What the runs of a title say of it, in one look. Stored with the day it was made. */
export interface Fit {
  readonly version: number;
  /** Preset, upscaling, generated frames, ray tracing: what the runs had in common. */
  readonly look: string;
  readonly runs: number;
  readonly cells: number;
  readonly rates: number;
  readonly terms: readonly FitTerm[];
  readonly main: FitValues;
  /** Other sets these runs allow as well: assumed parameters at the ends of their bands, stages that could be the longer one. */
  readonly others: readonly FitValues[];
  /** Fitted parameters in the order of the covariance: `host NAME`, `card NAME`, `traffic`, `trips`, `kappa`, `exponent`. */
  readonly free: readonly string[];
  readonly covariance: readonly (readonly number[])[];
  /** Scatter of one run about the fit as a share, and its degrees of freedom. */
  readonly sd: number;
  readonly df: number;
  readonly residuals: readonly (FitCell & { readonly fittedMs: number })[];
  /** Each cell predicted from all others: root mean square error as a share, and the same of a toll that is one constant. */
  readonly left: {
    readonly n: number;
    readonly of: number;
    readonly rms: number | null;
    readonly constantRms: number | null;
  };
  /** Indices of the hosts and cards it was made with, to reach others from. */
  readonly hostIndex: Readonly<Record<string, number>>;
  readonly cardIndex: Readonly<Record<string, number>>;
  /** Why it is not used; null when it is. */
  readonly refused: 'too-few' | 'worse-than-constant' | 'solver' | null;
}
