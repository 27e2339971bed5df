import { quantile } from '../../base';
import type { FrameAsk } from '../../runs';
import {
  cellOfAsk,
  cellsOfEvidence,
  type FrameCell,
  type FrameLink,
  type FramePosterior,
  LATENCY_US,
  linkOfRig,
  missingFor,
  modeOfHost,
  posteriorOf,
  type RigFacts,
  rigWith,
  thinned,
  viewCell,
  withCells,
} from '../../runs';
import type { Rate } from './partials';
import type { ScoutInput } from './types';

/** Particles that put cards and rates in order: what is shown is computed with all of them. */
const PARTICLES = 60;

/** Links that nobody ran over share one factor, under this name; the rate is that of each cell. */
const ANY_LINK = 'any link';

/** Of one frame asked for: the posterior with room for every card, and each card's cell without its link; null where too little is known. */
interface AskedFrames {
  readonly posterior: FramePosterior;
  readonly cells: readonly (FrameCell | null)[];
  /** Links that runs were made over. */
  readonly ran: ReadonlySet<string>;
}

/** Stands for the link where it is only asked whether the rest is known. */
const SOME_RATE = { lo: 30, hi: 30 };

/** Frames/s of every card at every rate, computed when first asked for; -1 where nothing can be said. */
export class FrameTable {
  readonly #rigs: readonly RigFacts[];
  readonly #rows: Float64Array[] = [];
  readonly #asks: readonly FrameAsk[];
  readonly #asked: AskedFrames[] = [];
  readonly #links: FrameLink[] = [];
  /** By title: sizes of one title share it. */
  readonly #posteriors = new Map<string, FramePosterior>();

  constructor(input: ScoutInput) {
    this.#asks = input.frames;
    const rates = { down: SOME_RATE, up: SOME_RATE, tunnels: 0 };
    this.#rigs = input.cards.map((c) => rigWith({ ...input.base, card: c.spec }, rates));
  }

  /** The row of one rate and one frame asked for; NaN where it was not computed yet. */
  row(rate: number, ask: number): Float64Array {
    const at = rate * this.#asks.length + ask;
    return (this.#rows[at] ??= new Float64Array(this.#rigs.length).fill(NaN));
  }

  #askedAt(at: number): AskedFrames {
    return (this.#asked[at] ??= this.#prepare(this.#asks[at] as FrameAsk));
  }

  #prepare(ask: FrameAsk): AskedFrames {
    const { title } = ask;
    const cells = this.#rigs.map((rig) => {
      const cell = cellOfAsk(rig, ask);
      const link = { ...cell.link, id: ANY_LINK };
      return missingFor(cell, title).length > 0 ? null : { ...cell, link };
    });
    const known = cells.filter((c) => c !== null);
    const made =
      this.#posteriors.get(title.id) ??
      thinned(posteriorOf({ ...title, titleId: title.id, refined: false }, known[0]), PARTICLES);
    const posterior = withCells(made, known);
    this.#posteriors.set(title.id, posterior);
    return { posterior, cells, ran: new Set(made.space.links.map((l) => l.id)) };
  }

  /** The link of a rate; null where it is not known. */
  #linkAt(rateAt: number, rate: Rate): FrameLink {
    const latencyUs = LATENCY_US.direct + LATENCY_US.tunnel * rate.tunnels;
    return (this.#links[rateAt] ??= linkOfRig({ ...rate, latencyUs }));
  }

  /** Frames/s of a card at a rate: the median over a few particles. */
  compute(rate: Rate, rateAt: number, ask: number, card: number): number {
    const { posterior, cells, ran } = this.#askedAt(ask);
    const cell = cells[card];
    const link = this.#linkAt(rateAt, rate);
    const own = ran.has(link.id) ? link : { ...link, id: ANY_LINK };
    const fps = cell && link.down ? medianFps(posterior, { ...cell, link: own }) : -1;
    this.row(rateAt, ask)[card] = fps;
    return fps;
  }

  /** Has anybody run the title on this host with this card? */
  ran(ask: number, card: number): boolean {
    const { title } = this.#asks[ask] as FrameAsk;
    const { host, card: name } = this.#rigs[card] as RigFacts;
    return title.evidence
      .flatMap(cellsOfEvidence)
      .some((c) => modeOfHost(c.host.id, host) !== null && c.card.id === name);
  }
}

function medianFps(posterior: FramePosterior, cell: FrameCell): number {
  const { ln } = viewCell(posterior, cell);
  return Math.min(1000 / Math.exp(quantile(ln.sort(), 0.5)), cell.capFps ?? Infinity);
}
