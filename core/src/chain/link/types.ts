import type { Range } from '../../base';
import type {
  CardSpec,
  DockSpec,
  HostSpec,
  Installed,
  PieceSpec,
  PortStandard,
  SocketSpec,
  UplinkStandard,
} from '../../parts';
import type { AttrPath, Slot } from '../schema/chain';
import type { Load } from '../schema/loads';

/** How a number came about: a rule, its arguments, the steps below it, and where the rule is from. */
export interface Working {
  readonly rule: WorkingRule;
  readonly args: Readonly<Record<string, number | string | Range>>;
  readonly steps?: readonly Working[];
  readonly source: SourceId;
}
export type WorkingRule =
  'pcie-raw' | 'tunnel-raw' | 'usable' | 'capped' | 'broken' | 'least-of-hops';
export type SourceId =
  | 'pcie-base'
  | 'usb4'
  | 'usb-c-cable'
  | 'oculink'
  | 'house'
  | 'log'
  | 'common-practice'
  | 'kernel-abi'
  | 'display'
  | 'requirement';

/** A quantity: an interval with its unit and its working. */
export interface Q extends Range {
  readonly unit: 'Gb/s';
  readonly working: Working;
}
/** `down` is host to card, `up` is card to host. */
export interface TwoWay<T> {
  readonly down: T;
  readonly up: T;
}
export type Both = TwoWay<Q>;
export type Direction = keyof Both;

/**
 * One thing that holds a hop down: the transport of a tunnel, generation and lanes of the PCIe behind it or of the link itself, what
 * else takes from the tunnel, or a cap on the usable rate. `up` where the way back differs.
 */
export interface Limit {
  readonly attr: AttrPath;
  readonly slot: Slot;
  readonly kind: 'transport' | 'gen' | 'lanes' | 'takes' | 'cap';
  readonly value: Range;
  readonly up?: Range;
  /** Could the person find out more about it? A standard may leave room where nothing is left to learn. */
  readonly open: boolean;
}

export interface HopShape {
  readonly from: Slot;
  readonly to: Slot;
  readonly kind: 'pcie' | 'tunnel';
  readonly limits: readonly Limit[];
  /** Slots this hop needs that are not chosen yet. */
  readonly unchosen: readonly Slot[];
  /** The slot because of which nothing passes, whatever is changed elsewhere; null when something does. */
  readonly brokenBy: Slot | null;
  /** Nothing is known of this hop and it is not taken for the pinch: a built-in controller's first hop. */
  readonly idle: boolean;
}

/** What something else takes from a tunnel, Gb/s each way. */
export interface Take extends TwoWay<Range> {
  readonly attr: AttrPath;
}

export interface Hop extends Omit<HopShape, 'limits' | 'brokenBy' | 'idle'> {
  readonly gen?: Range;
  readonly lanes?: Range;
  /** Of the tunnel to the dock, before anything is taken from it. */
  readonly transport?: Range;
  readonly takes: readonly Take[];
  /** Gb/s after line encoding and after what others take; null when nothing is known of the hop. */
  readonly raw: TwoWay<Range> | null;
  readonly usable: Both | null;
  readonly state: 'ok' | 'broken' | 'unknown';
}

export interface Bottleneck {
  /** Indices of hops that may be the least; one when certain. */
  readonly hops: readonly number[];
  readonly certain: boolean;
  /** The part that sets it, and the attributes that bind there. */
  readonly part: Slot | null;
  readonly setBy: readonly AttrPath[];
  /** What the chain would carry with that part's limits lifted; null when not known. */
  readonly rest: Range | null;
  /** Where numbers are open: the part that may hold the chain down most, with its least share of what the rest can carry then. */
  readonly may?: PossibleBottleneck;
}
export interface PossibleBottleneck {
  readonly part: Slot;
  readonly attrs: readonly AttrPath[];
  /** Gb/s down in the completion in which this part is at its worst and all others at their best, and with this part lifted. */
  readonly usable: number;
  readonly rest: number;
}

/** Slot facts: specs with every choice made, for one world of the choices not known. */
export type KnownSocket = Omit<SocketSpec, 'standard'> & {
  standard: PortStandard;
  tunnels: boolean;
  tb3: boolean;
};
export type KnownDock = Omit<DockSpec, 'uplink'> & { uplink: UplinkStandard; tb3: boolean };
export interface KnownPath {
  readonly pieces: readonly { readonly key: string; readonly spec: PieceSpec }[];
  /** The path ends in a card slot, so no dock is needed. */
  readonly endsInSlot: boolean;
}
export interface SlotFacts {
  readonly host: HostSpec | null;
  readonly socket: KnownSocket | null;
  readonly path: KnownPath | null;
  readonly dock: KnownDock | null;
  readonly card: CardSpec | null;
  readonly loads: readonly Load[];
  readonly installed: Installed;
  /** Payload of a packet on this path, bytes; a world of its own where the standard leaves it open. */
  readonly payload: number;
}

/** The facts of the group socket + path + dock + card. */
export interface LinkFacts {
  readonly kind: 'tunnel' | 'direct';
  readonly shapes: readonly HopShape[];
  readonly hops: readonly Hop[];
  /** Of the whole chain; null when no hop of it is known. */
  readonly usable: Both | null;
  readonly pinch: Bottleneck;
}
