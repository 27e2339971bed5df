import type { Chain } from '../../chain';
import { matchOf } from '../../compatibility';
import { forgottenItems } from '../cost/forgotten';
import { Best } from './best';
import { FrameTable } from './frames';
import { Front } from './front';
import { type Joined, joinRow, type Sinks, type Wide } from './join';
import { type CandidatePath, laidOf, type Lanes, layLanes, NO_PIECE } from './lanes';
import { LeftOut } from './left-out';
import { type LinkRow, Partials, type Row } from './partials';
import { BIT, CARE, openAreas, reasonsOf, stateOf, STOPS } from './reasons';
import { LogFlags, SEEN, unprovenBit } from './seen';
import type { Combo, EvidenceProximity, Scored, ScoutInput } from './types';

const ORDER: Record<EvidenceProximity, number> = { here: 0, near: 1, predicted: 2 };
/** How many are kept in order. */
const RANKED = 200;
/** How many of those that were seen to fail. */
const REFUTED = 20;
/**
 * A search over every combination of ways out of the host, docks, cards, supplies and screens. It works in steps, so that whoever runs
 * it can show what is there and stop it; a snapshot may be taken at any time. Verdict and rate of a combination are those that `evaluate` gives
 * for its chain, joined from partial judgements; frames are medians over a few particles, and those of what is shown over all of them.
 */
export class Ranking {
  readonly parts: Partials;
  readonly frames: FrameTable;
  readonly seen: LogFlags;
  readonly fronts: readonly Front[];
  readonly left: LeftOut;
  readonly best: Best;
  readonly refuted: Best;
  readonly total: number;
  /** Pairs of way and dock whose plugs do not meet, in combinations. */
  readonly apart: number;
  /** Plugs of docks that need a cable of which the search holds none. */
  readonly uncabled: Lanes['uncabled'];
  done = 0;
  readonly #lanes: readonly CandidatePath[];
  #lane = 0;
  readonly #repackaged: Int32Array;
  readonly #own: Int32Array;
  readonly #boxes = new Map<number, number>();
  readonly #forgets = new Map<number, number>();
  readonly #sinks: Sinks;
  readonly #wide: Map<object, Map<string | number, unknown>>;
  #pairDock = -1;
  readonly #pair: { bits: Int32Array; minor: Float64Array; over: Float32Array };

  /**
   * `before`: an earlier search over the same parts and frames with other limits or weights; its results are reused.
   */
  constructor(
    readonly input: ScoutInput,
    before: Ranking | null = null,
  ) {
    const same = before !== null && before.input.limits.unsure === input.limits.unsure;
    this.parts = same ? before.parts : new Partials(input);
    this.frames = same ? before.frames : new FrameTable(input);
    this.#wide = same ? before.#wide : new Map<object, Map<string | number, unknown>>();
    this.seen = new LogFlags(input, (r, d, card) => ({
      ...this.parts.routed(r),
      dock: this.parts.docks[d] ?? null,
      card,
    }));
    this.fronts = input.frames.map(() => new Front((a, b) => this.#better(a, b)));
    this.left = new LeftOut();
    this.best = new Best(RANKED, input.cards.length);
    this.refuted = new Best(REFUTED, input.cards.length);
    this.#sinks = { fronts: this.fronts, left: this.left, best: this.best, refuted: this.refuted };
    const { lanes, apart, uncabled } = layLanes(this.parts);
    this.uncabled = uncabled;
    this.#lanes = lanes;
    const width = input.cards.length * this.#screens;
    this.total = lanes.length * width;
    this.apart = apart * width;
    this.#repackaged = input.limits.noRepackaged
      ? this.parts.repackaged()
      : new Int32Array(this.parts.cardSoft.first.length);
    this.#own = this.parts.own();
    const at = (list: readonly { id: string }[], id: string) => list.findIndex((x) => x.id === id);
    for (const b of input.boxes) {
      const d = at(input.docks, b.dockId);
      const c = at(input.cards, b.cardId);
      if (d >= 0 && c >= 0) this.#boxes.set(d * input.cards.length + c, b.minor);
    }
    const n = input.cards.length;
    this.#pair = { bits: new Int32Array(n), minor: new Float64Array(n), over: new Float32Array(n) };
  }

  get #screens(): number {
    return Math.max(1, this.input.screens.length);
  }

  /** Work until the clock says so. True when all is done. */
  step(until: number, clock: () => number): boolean {
    while (this.#lane < this.#lanes.length) {
      const lane = this.#lanes[this.#lane] as CandidatePath;
      this.#pairs(lane.dock);
      this.#run(lane);
      this.#lane += 1;
      if (this.#lanes[this.#lane]?.dock !== lane.dock)
        for (const list of [this.best, this.refuted]) list.close();
      if (clock() >= until) break;
    }
    return this.#lane >= this.#lanes.length;
  }

  /** What a dock and each card are together: room, air, price. */
  #pairs(dock: number): void {
    if (this.#pairDock === dock) return;
    this.#pairDock = dock;
    const { cards } = this.input;
    const fit = this.parts.fit(dock);
    const cool = this.parts.cool(dock);
    const card = this.parts.cardFit.of;
    const choice = this.input.docks[dock];
    const dockMinor = choice ? choice.minor : 0;
    const soldered = choice?.spec.form === 'all-in-one';
    for (let c = 0; c < cards.length; c++) {
      const own = cards[c] as (typeof cards)[number];
      const box = this.#boxes.get(dock * cards.length + c);
      const single = dockMinor === null || own.minor === null ? null : dockMinor + own.minor;
      const minor =
        box !== undefined && !choice?.owned && !own.owned && (single === null || box < single)
          ? box
          : single;
      const kind = card[c] as number;
      this.#pair.bits[c] =
        (fit.bits[kind] as number) |
        (cool.bits[this.parts.cardCool.of[c] as number] as number) |
        (this.#own[c] as number) |
        (this.#repackaged[this.parts.cardSoft.of[c] as number] as number) |
        (minor === null ? BIT['no-price'] : 0) |
        // An all-in-one has its own card: it goes with the one it is sold with.
        (soldered && box === undefined ? BIT.soldered : 0);
      this.#pair.minor[c] = minor ?? 0;
      this.#pair.over[c] = fit.over[kind] as number;
    }
  }

  /** Commonly forgotten items that this combination needs, as far as a price is known. Independent of the card. */
  #forgotten(route: number, dock: number, supply: number, screen: number): number {
    const wants = this.parts.docks[dock]?.supply === 'separate';
    const key = ((route * 2 + Number(wants)) * 2 + Number(supply < 0)) * this.#screens + screen + 1;
    const known = this.#forgets.get(key);
    if (known !== undefined) return known;
    const items = forgottenItems(this.chainAt({ route, dock, supply, screen, card: 0 }));
    const minor = items.reduce((sum, code) => sum + (this.input.forgotten[code] ?? 0), 0);
    this.#forgets.set(key, minor);
    return minor;
  }

  #keep<T>(from: object, key: string | number, make: () => T): T {
    let all = this.#wide.get(from);
    if (!all) this.#wide.set(from, (all = new Map<string | number, unknown>()));
    let known = all.get(key) as T | undefined;
    if (known === undefined) all.set(key, (known = make()));
    return known;
  }

  /** A row by classes of cards as one by cards. */
  #spread(row: Row, of: Int32Array, also: (card: number) => number = () => 0): Wide {
    return this.#keep(row, 'cards', () => ({
      bits: Int32Array.from(of, (k, c) => (row.bits[k] as number) | also(c)),
      over: Float32Array.from(of, (k) => row.over[k] as number),
    }));
  }

  /** Frames/s of every card over a link: all for the first resolution, for the others those that were displayed. */
  #framesOver(link: LinkRow): Float64Array[] {
    const { of } = this.parts.cardLink;
    return this.#keep(link, 'frames', () =>
      this.input.frames.map((_, k) =>
        k === 0
          ? Float64Array.from(of, (at, c) => this.#frame(link.rate[at] as number, k, c))
          : new Float64Array(of.length).fill(NaN),
      ),
    );
  }

  #run(lane: CandidatePath): void {
    const { input, parts } = this;
    const laid = laidOf(parts, lane);
    const link = parts.link(lane.route, lane.dock);
    const soft = parts.software(lane.route, lane.dock);
    const fps = this.#framesOver(link);
    const noFrames = (c: number) => ((fps[0]?.[c] ?? -1) < 0 ? BIT['no-frames'] : 0);
    const wideLink = this.#spread(link, parts.cardLink.of, noFrames);
    const power = this.#spread(parts.power(lane.route, lane.dock, lane.supply), parts.cardPower.of);
    const seen = this.seen.row(lane.route, lane.dock);
    for (let p = 0; p < this.#screens; p++) {
      const shown = input.screens[p];
      const at = shown ? p : NO_PIECE;
      const row: Joined = {
        bits: laid.bits | (shown && shown.minor === null ? BIT['no-price'] : 0),
        minor:
          laid.minor +
          (shown?.minor ?? 0) +
          this.#forgotten(lane.route, lane.dock, lane.supply, at),
        over: laid.over,
        wish: laid.wish,
        first: this.#indexOf(lane, p),
        pair: this.#pair,
        link: wideLink,
        power,
        rest: this.#rest(soft, at),
        fps,
        frame: (k, c) => this.#frame(link.rate[parts.cardLink.of[c] as number] as number, k, c),
        seen,
      };
      joinRow(row, input.limits, input.weights, this.#sinks);
      this.done += input.cards.length;
    }
  }

  /** Software and picture of every card together: both hang on few things. */
  #rest(soft: Row, screen: number): Int32Array {
    return this.#keep(soft, screen, () => {
      const { bits } = this.#spread(this.parts.screen(screen), this.parts.cardScreen.of);
      return Int32Array.from(
        this.parts.cardSoft.of,
        (k, c) => (soft.bits[k] as number) | (bits[c] as number),
      );
    });
  }

  #frame(rate: number, ask: number, card: number): number {
    const known = this.frames.row(rate, ask)[card] as number;
    if (known === known) return known;
    return this.frames.compute(
      this.parts.rates[rate] as Partials['rates'][number],
      rate,
      ask,
      card,
    );
  }

  #indexOf(lane: CandidatePath, screen: number): number {
    const { routes, supplies, cards } = this.input;
    const row = (lane.dock * routes.length + lane.route) * (supplies.length + 1) + lane.supply + 1;
    return (row * this.#screens + screen) * cards.length;
  }

  /** The places of a combination from its number. */
  comboAt(index: number): Combo {
    const { routes, supplies, cards, screens } = this.input;
    const card = index % cards.length;
    const screen = Math.floor(index / cards.length) % this.#screens;
    const row = Math.floor(index / cards.length / this.#screens);
    const supply = (row % (supplies.length + 1)) - 1;
    const way = Math.floor(row / (supplies.length + 1));
    const dock = Math.floor(way / routes.length);
    const route = way % routes.length;
    return { route, dock, card, supply, screen: screens.length > 0 ? screen : NO_PIECE };
  }

  indexAt(c: Combo): number {
    return this.#indexOf(c, Math.max(0, c.screen)) + c.card;
  }

  /** The whole chain of a combination, as `evaluate` takes it. */
  chainAt(c: Combo): Chain {
    return {
      ...this.parts.routed(c.route),
      dock: this.input.docks[c.dock]?.spec ?? null,
      card: this.input.cards[c.card]?.spec ?? null,
      supplies: this.parts.supplies(c.supply),
      picture: this.parts.picture(c.screen),
    };
  }

  #better(a: number, b: number): boolean {
    const x = this.gradeAt(a);
    const y = this.gradeAt(b);
    return ORDER[x] - ORDER[y] < 0 || (x === y && a < b);
  }

  gradeAt(index: number): EvidenceProximity {
    const combo = this.comboAt(index);
    return this.seen.grade(matchOf(this.chainAt(combo)), this.frames.ran(0, combo.card));
  }

  /** One combination with all that came out, whether it was kept or left out. */
  at(index: number): Scored {
    const combo = this.comboAt(index);
    const { limits: l } = this.input;
    const { parts } = this;
    this.#pairs(combo.dock);
    const laid = laidOf(parts, combo);
    const of = (row: Row, classes: { readonly of: Int32Array }) =>
      row.bits[classes.of[combo.card] as number] as number;
    const link = parts.link(combo.route, combo.dock);
    const shown = this.input.screens[combo.screen];
    const chain = this.chainAt(combo);
    const minor =
      laid.minor +
      (shown?.minor ?? 0) +
      this.#forgotten(combo.route, combo.dock, combo.supply, combo.screen) +
      (this.#pair.minor[combo.card] as number);
    const rate = link.rate[parts.cardLink.of[combo.card] as number] as number;
    const fps = this.input.frames.map((_, k) => this.#frame(rate, k, combo.card));
    const seen = this.seen.row(combo.route, combo.dock)?.[combo.card] ?? 0;
    const main = fps[0] ?? -1;
    const bits =
      laid.bits |
      (shown && shown.minor === null ? BIT['no-price'] : 0) |
      (this.#pair.bits[combo.card] as number) |
      of(link, parts.cardLink) |
      of(parts.power(combo.route, combo.dock, combo.supply), parts.cardPower) |
      of(parts.software(combo.route, combo.dock), parts.cardSoft) |
      of(parts.screen(combo.screen), parts.cardScreen) |
      (minor > (l.budgetMinor ?? Infinity) ? BIT.budget : 0) |
      (main < 0 ? BIT['no-frames'] : main < (l.targetFps ?? 0) ? BIT.target : 0) |
      (seen & SEEN.against ? CARE : 0) |
      (l.proven ? unprovenBit(seen) : 0);
    const entry = this.seen.of(matchOf(chain));
    const failed = entry ? entry.tally.unreliable + entry.tally.fails : 0;
    return {
      ...combo,
      index,
      minor,
      fps: fps.map((f) => (f < 0 ? null : f)),
      state: stateOf(bits),
      open: openAreas(bits),
      usable: parts.rates[rate]?.down ?? null,
      grade: this.gradeAt(index),
      contradicted:
        seen & SEEN.against && entry && !(bits & STOPS) ? { failed, n: entry.tally.n } : null,
      fails: reasonsOf(bits),
    };
  }
}
