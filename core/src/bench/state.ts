import type { RouterReading, SpanReading } from '../bring-up';
import type { Act } from './acts';
import type { FaultId } from './faults';
import type { HostPower, LinkState, LogCode } from './ids';

/** What a bench shows at one moment of its time: what eyes and fingers find, and what its link has trained to. */
export interface BenchState {
  readonly ms: number;
  readonly host: HostPower;
  readonly mains: boolean;
  /** The switch of the dock; its lamp may stay dark all the same. */
  readonly dockOn: boolean;
  readonly dockLamp: boolean;
  readonly cardIn: boolean;
  readonly plugsIn: boolean;
  readonly screenIn: boolean;
  readonly picture: boolean;
  readonly plugged: string | null;
  readonly driverIn: boolean;
  readonly approval: 'none' | 'once' | 'always';
  readonly security: 'none' | 'user' | 'secure' | 'dponly' | 'usbonly' | 'nopcie';
  readonly load: boolean;
  readonly traffic: boolean;
  readonly stage: LinkState;
  /** Bench time at which this stage began, ms. */
  readonly since: number;
  /** Bench time of the contact at the plug, ms; null while there is none. */
  readonly contact: number | null;
  readonly kind: 'tunnel' | 'direct' | null;
  readonly router: RouterReading | null;
  readonly hostSpan: SpanReading | null;
  readonly cardSpan: SpanReading | null;
  /** What the whole link carries now, Gb/s; null while no card is reached. */
  readonly usable: { readonly down: number; readonly up: number } | null;
  /** Times the link went down since the bench was made. */
  readonly downs: number;
  /** Corrected errors counted along the card's span. */
  readonly corrected: number;
}

/** A line of the log: what happened, with its figures. */
export interface LogLine {
  readonly ms: number;
  readonly code: LogCode;
  readonly params: Readonly<Record<string, string | number>>;
}

/** Faults that sit in a bench, with their strength from 0 to 1. */
export type FaultMap = Readonly<Partial<Record<FaultId, number>>>;

export type { Act };
