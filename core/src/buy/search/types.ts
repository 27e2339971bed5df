import type { Range } from '../../base';
import type { Chain, VIDEO_PLUGS } from '../../chain';
import type { MatchKey } from '../../compatibility';
import type { CardSpec, DockSpec, PieceSpec, ScreenSpec, SupplySpec } from '../../parts';
import type { Context, Tally, VerdictState } from '../../plan';
import type { FrameAsk } from '../../runs';
import type { ForgottenCode } from '../../setups';

/** A part that may be taken, with its price. Amounts in minor units of the currency of the search; 0 for a piece that is there. */
export interface Choice<S> {
  readonly id: string;
  readonly name: string;
  readonly spec: S;
  /** Price with its shipping; null when none is known. */
  readonly minor: number | null;
  readonly owned: boolean;
  /** Resale value, minor units; null when not noted. */
  readonly resaleMinor: number | null;
  /** Names of parts with the same facts that it stands for. */
  readonly alike: readonly string[];
}
/** A way out of the host: a port or slot of it, and what goes into it. */
export interface RouteChoice {
  readonly socket: string;
  readonly pieces: readonly Choice<PieceSpec>[];
}
export interface ScreenChoice extends Choice<ScreenSpec> {
  readonly plug: keyof typeof VIDEO_PLUGS;
}
/** A dock and a card sold together. */
export interface BoxChoice {
  readonly dockId: string;
  readonly cardId: string;
  readonly minor: number;
}

/** What has to hold; null and false: it does not matter. */
export interface Limits {
  readonly budgetMinor: number | null;
  readonly targetFps: number | null;
  /** Charges the host with at least this, W. */
  readonly chargeW: number | null;
  /** Dock no louder than this, dB(A). */
  readonly noiseDb: number | null;
  /** Room inside the dock no longer than this, mm: how big it is. */
  readonly lengthMm: number | null;
  readonly noOpening: boolean;
  readonly portable: boolean;
  readonly openOnly: boolean;
  readonly noRepackaged: boolean;
  readonly proven: boolean;
  /** Also where something that decides is not known. */
  readonly unsure: boolean;
}
/** How much each wish counts in the order, 0 to 3. */
export interface Weights {
  readonly frames: number;
  readonly money: number;
  readonly quiet: number;
  readonly small: number;
  readonly proven: number;
}

/** What the log has seen of one chain key. */
export interface SeenKey {
  readonly key: string;
  readonly tally: Tally;
}
/** An entry that may be near: what it is found by. */
export type NearUnit = Omit<MatchKey, 'key'>;

/** All that a ranking needs: plain data, the same for a worker and a server. */
export interface ScoutInput {
  /** Host, system, settings, loads, uses and installed versions; the slots to be filled are empty. */
  readonly base: Chain;
  readonly context: Pick<Context, 'asOf' | 'house' | 'requirements' | 'releases'>;
  readonly currency: string;
  readonly routes: readonly RouteChoice[];
  readonly docks: readonly Choice<DockSpec>[];
  readonly cards: readonly Choice<CardSpec>[];
  readonly supplies: readonly Choice<SupplySpec>[];
  /** Screens to choose from; empty: the picture is left as it is. */
  readonly screens: readonly ScreenChoice[];
  readonly boxes: readonly BoxChoice[];
  /** The frames asked for: the first decides, the others are shown beside it. */
  readonly frames: readonly FrameAsk[];
  readonly forgotten: Partial<Record<ForgottenCode, number>>;
  readonly seen: readonly SeenKey[];
  readonly near: readonly NearUnit[];
  readonly limits: Limits;
  readonly weights: Weights;
}

/** How near to something measured a recommendation is. */
export type EvidenceProximity = 'here' | 'near' | 'predicted';

/** One combination by its places in the input; -1: none of it. */
export interface Combo {
  readonly route: number;
  readonly dock: number;
  readonly card: number;
  readonly supply: number;
  readonly screen: number;
}
/** A combination with what came out. */
export interface Scored extends Combo {
  readonly index: number;
  readonly minor: number;
  /** Middle frames/s of each frame asked for; null where nothing can be said. */
  readonly fps: readonly (number | null)[];
  readonly state: VerdictState;
  /** How many of its areas are open. */
  readonly open: number;
  readonly usable: Range | null;
  readonly grade: EvidenceProximity;
  /** Seen to fail though it should work. */
  readonly contradicted: { readonly failed: number; readonly n: number } | null;
  /** Limits it does not keep. */
  readonly fails: readonly RejectReason[];
}

/** Why a combination is left out, in the order it is told. */
export const REJECT_REASONS = [
  'link',
  'power',
  'fit',
  'software',
  'unsure',
  'no-frames',
  'no-price',
  'budget',
  'target',
  'charging',
  'noise',
  'size',
  'opening',
  'portable',
  'own-port',
  'repackaged',
  'unproven',
  'soldered',
] as const;
export type RejectReason = (typeof REJECT_REASONS)[number];
