import type { Range } from '../../base';
import type { Fit, Stage } from './fit';
import type { FrameParams, FrameRig, FrameTerms, Scene } from './model';

/** What a person states of a title nobody has measured: stage times at the reference host and card, at 1920x1080. */
export interface TitleParams {
  readonly cpuMs: number;
  readonly cardMs: number;
  readonly trafficMB: number;
  readonly workingGB: number;
}
/** What is known of a title. */
export interface TitleModel {
  readonly id: string;
  readonly name: string;
  readonly params: TitleParams | null;
  readonly fit: Fit | null;
}
/** The frame that is asked for. */
export interface Asked {
  readonly pixels: number;
  readonly panel: boolean;
  readonly capFps: number | null;
  readonly powerMode: string;
  readonly preset: string;
  readonly rayTracing: boolean;
  /** Of the settings that a fit holds for; null: whichever it was made in. */
  readonly look: string | null;
}
export interface Banded extends Range {
  readonly mid: number;
}
/** How near to a measurement a forecast is: this host and card, one of them reached by its index, or stated start values alone. */
export type Basis = 'measured' | 'near' | 'profile';
export interface Forecast {
  readonly titleId: string;
  readonly title: string;
  readonly ms: Banded;
  readonly fps: Banded;
  readonly tollMs: Banded;
  readonly backMs: Banded;
  readonly terms: FrameTerms;
  /** What the middle was computed of, to draw frames from. */
  readonly model: { readonly params: FrameParams; readonly rig: FrameRig; readonly scene: Scene };
  readonly regime: FrameTerms['regime'];
  readonly basis: Basis;
  /** Parameters that were measured, and those that are only assumed. */
  readonly fitted: readonly string[];
  readonly assumed: readonly string[];
}
/** Why nothing can be said: what would have to be known. */
export interface NoForecast {
  readonly titleId: string;
  readonly title: string;
  readonly missing: readonly ('link' | 'host' | 'card' | 'title' | 'look')[];
}

/** A title on a rig, ready to be computed: its middle, every other set of values that may be true, and the scatter around them. */
export interface Ready {
  readonly main: FrameParams & { host: Stage; card: Stage };
  readonly sets: readonly (FrameParams & { host: Stage; card: Stage })[];
  readonly basis: Basis;
  /** Half-width of the statistical band in ms, from the time at the middle; 0 for start values. */
  readonly half: (ms: number) => number;
}
