import type { FrameAsk } from '../../plan';
import {
  LATENCY_US,
  middleRig,
  middleTerms,
  type Ready,
  readyOf,
  type RigFacts,
  rigWith,
} from '../../runs';
import type { Rate } from './partials';
import type { ScoutInput } from './types';

/** Frames/s of every card at every rate, computed when first asked for; -1 where nothing can be said. */
export class FrameTable {
  readonly #ready: (Ready | null | undefined)[][];
  readonly #rigs: RigFacts[];
  readonly #rows: Float64Array[] = [];
  readonly #asks: readonly FrameAsk[];

  constructor(input: ScoutInput) {
    this.#asks = input.frames;
    const nothing = { down: null, up: null, tunnels: 0 };
    this.#rigs = input.cards.map((c) => rigWith({ ...input.base, card: c.spec }, nothing));
    this.#ready = input.frames.map(() => []);
  }

  /** The row of one rate and one frame asked for; NaN where it was not computed yet. */
  row(rate: number, ask: number): Float64Array {
    const at = rate * this.#asks.length + ask;
    return (this.#rows[at] ??= new Float64Array(this.#rigs.length).fill(NaN));
  }

  #readyAt(ask: number, card: number): Ready | null {
    const list = this.#ready[ask] as (Ready | null | undefined)[];
    const known = list[card];
    if (known !== undefined) return known;
    const { model, asked } = this.#asks[ask] as FrameAsk;
    const ready = readyOf(model, this.#rigs[card] as RigFacts, asked);
    return (list[card] = 'length' in ready ? null : ready);
  }

  /** Frames/s of a card at a rate: the middle of what `evaluate` forecasts. */
  compute(rate: Rate, rateAt: number, ask: number, card: number): number {
    const { asked } = this.#asks[ask] as FrameAsk;
    const ready = this.#readyAt(ask, card);
    // The rig with the rates of this link; names and indices are those of host and card.
    const rig = this.#rigs[card] as RigFacts;
    const latencyUs = LATENCY_US.direct + LATENCY_US.tunnel * rate.tunnels;
    const middle = middleRig({ ...rig, down: rate.down, up: rate.up, latencyUs });
    const scene = { pixels: asked.pixels, panel: asked.panel, capFps: asked.capFps };
    const fps = ready && middle ? 1000 / middleTerms(ready, middle, scene).ms : -1;
    this.row(rateAt, ask)[card] = fps;
    return fps;
  }

  /** How near the frames of a card are to a measurement. */
  basis(ask: number, card: number): Ready['basis'] | null {
    return this.#readyAt(ask, card)?.basis ?? null;
  }
}
