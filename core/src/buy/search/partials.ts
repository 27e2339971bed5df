import type { Range } from '../../base';
import { cardMeant, type Chain, isAdapter, means, withReleaseCaps } from '../../chain';
import type { CardSpec, DockSpec } from '../../parts';
import {
  type Check,
  CHECKS,
  findings,
  type Grounds,
  groundsOf,
  joinLinks,
  SEARCH_GROUPS,
} from '../../plan';
import { byReads, CARD_READS, type Classes, classesOf, DOCK_READS } from './classes';
import { BIT, reasonMask } from './reasons';
import type { ScoutInput } from './types';

type Group = (typeof SEARCH_GROUPS)[number];
const checksOf = (group: Group): readonly Check[] => CHECKS.filter((c) => c.searchGroup === group);

/** No list of a search is longer than this. */
const MOST = 1_000_000;
/** What "no dock" is among the classes of docks. */
const NO_DOCK = -1;
const ROWS = ['power', 'fit', 'cool', 'software', 'screen'] as const;

/** What one partial judgement says for every class of cards: its bits, and by how much it fails, as a share of what is allowed. */
export interface Row {
  readonly bits: Int32Array;
  readonly over: Float32Array;
}
/** A usable rate as it was found: the frame model needs it whole. */
export interface Rate {
  readonly down: Range | null;
  readonly up: Range | null;
  readonly tunnels: number;
}
export interface LinkRow extends Row {
  /** Place of the rate among `rates`. */
  readonly rate: Int32Array;
}
interface Charge {
  readonly bits: number;
  /** Which of the contracts of this search it is; W, null: not known. */
  readonly key: number;
  readonly contract: Range | null;
}

const beyond = (need: Range, have: Range) => Math.max(0, need.lo / Math.max(1e-9, have.hi) - 1);

function powerOver(g: Grounds): number {
  return Math.max(
    0,
    ...g.body.power.feeders.map((f) => (f.load && f.rated ? beyond(f.load, f.rated) : 0)),
    ...g.body.power.feeders.map((f) =>
      f.plugs && f.plugs.wants > 0 ? f.plugs.short.lo / f.plugs.wants : 0,
    ),
  );
}
function fitOver(g: Grounds): number {
  return Math.max(
    0,
    ...(g.body.fit?.rows ?? []).map((r) =>
      r.need && r.have && r.fits === 'no' ? beyond(r.need, r.have) : 0,
    ),
  );
}

/**
 * The partial judgements of a search: each is made by the checks of `evaluate` over the few attributes they read, once for each class of
 * parts that are alike there, and kept. A chain is the union of its partial findings, so its verdict is theirs joined.
 */
export class Partials {
  readonly docks: readonly (DockSpec | null)[];
  readonly rates: Rate[] = [];
  readonly cardLink: Classes<CardSpec>;
  readonly cardPower: Classes<CardSpec>;
  readonly cardFit: Classes<CardSpec>;
  readonly cardCool: Classes<CardSpec>;
  readonly cardScreen: Classes<CardSpec>;
  readonly cardSoft: Classes<CardSpec>;
  readonly #dock: Record<keyof typeof DOCK_READS, Classes<DockSpec>>;
  readonly #dockSoft: Classes<DockSpec>;
  readonly #routeSoft: Int32Array;
  readonly #rateAt = new Map<string, number>();
  readonly #rows = Object.fromEntries(ROWS.map((r) => [r, new Map()])) as Record<
    (typeof ROWS)[number],
    Map<number, Row>
  >;
  readonly #links = new Map<number, LinkRow>();
  readonly #charges = new Map<number, Charge>();
  readonly #bits = { route: new Map<number, number>(), mount: new Map<number, number>() };
  readonly #contracts = new Map<string, number>();
  #repackagedBits: Int32Array | null = null;
  #ownBits: Int32Array | null = null;
  readonly #checks = Object.fromEntries(
    SEARCH_GROUPS.map((g) => [g, checksOf(g)]),
  ) as unknown as Record<Group, readonly Check[]>;

  /** The last place of `docks` is "no dock", for paths that end in a card slot. */
  constructor(readonly input: ScoutInput) {
    const { requirements = [], releases = [] } = input.context;
    const capped = input.docks.map(
      (d) => withReleaseCaps({ ...input.base, dock: d.spec }, releases).dock as DockSpec,
    );
    this.docks = [...capped, null];
    const cards = input.cards.map((c) => c.spec);
    const reads = <K extends keyof typeof CARD_READS>(k: K) =>
      byReads<CardSpec>(cards, CARD_READS[k]);
    this.cardLink = reads('link');
    this.cardPower = reads('power');
    this.cardFit = reads('fit');
    this.cardCool = reads('cool');
    this.cardScreen = reads('screen');
    const subject = (spec: { maker: string; model: string; variant: string }) =>
      [...requirements, ...releases].map((r) => (means(r, spec) ? 1 : 0)).join('');
    this.cardSoft = classesOf(
      cards,
      (c) =>
        subject(c) +
        requirements
          .map((r) => (cardMeant(r.andCard, { ...input.base, card: c }) ? 1 : 0))
          .join(''),
    );
    this.#dock = Object.fromEntries(
      Object.entries(DOCK_READS).map(([k, keys]) => [k, byReads<DockSpec>(capped, keys)]),
    ) as Record<keyof typeof DOCK_READS, Classes<DockSpec>>;
    this.#dockSoft = classesOf(capped, subject);
    const adapters = input.routes.map((r) =>
      r.pieces.map((p) => (isAdapter(p.spec) ? subject(p.spec) : '')).join(),
    );
    this.#routeSoft = Int32Array.from(adapters, (a) => adapters.indexOf(a));
  }

  /** The base chain with a way out of the host. */
  routed(route: number): Chain {
    const r = this.input.routes[route];
    const path = r?.pieces.map((p, i) => ({ key: 'abcdef'.charAt(i), spec: p.spec })) ?? null;
    return { ...this.input.base, socket: r?.socket ?? null, path };
  }

  #judge(group: Group, chain: Chain): { bits: number; g: Grounds } {
    const g = groundsOf(chain, this.input.context);
    return { bits: reasonMask(findings(this.#checks[group], g), this.input.limits.unsure), g };
  }

  /** Numbers make quicker keys than words: a place among ways, classes and supplies. */
  #keep<T>(kept: Map<number, T>, a: number, b: number, make: () => T): T {
    const key = a * MOST + b + 1;
    const known = kept.get(key);
    if (known !== undefined) return known;
    const made = make();
    kept.set(key, made);
    return made;
  }

  #row(
    group: Group,
    chain: Chain,
    cards: readonly CardSpec[],
    over: (g: Grounds) => number = () => 0,
  ): Row {
    const bits = new Int32Array(cards.length);
    const by = new Float32Array(cards.length);
    cards.forEach((card, i) => {
      const made = this.#judge(group, { ...chain, card });
      bits[i] = made.bits;
      by[i] = over(made.g);
    });
    return { bits, over: by };
  }

  #class(kind: keyof typeof DOCK_READS, dock: number): { at: number; spec: DockSpec | null } {
    const c = this.#dock[kind];
    const at = c.of[dock];
    return at === undefined ? { at: NO_DOCK, spec: null } : { at, spec: c.first[at] as DockSpec };
  }

  link(route: number, dock: number): LinkRow {
    const { at, spec } = this.#class('link', dock);
    return this.#keep(this.#links, route, at, () => {
      const cards = this.cardLink.first;
      const rate: number[] = [];
      const row = this.#row('link', { ...this.routed(route), dock: spec }, cards, (g) => {
        rate.push(this.#rateOf(g));
        return 0;
      });
      return { ...row, rate: Int32Array.from(rate) };
    });
  }

  #rateOf(g: Grounds): number {
    const { hops, usable } = joinLinks(g.links());
    const tunnels = hops.filter((h) => h.kind === 'tunnel').length;
    const bare = (r: Range | undefined) => (r ? { lo: r.lo, hi: r.hi } : null);
    const rate: Rate = { down: bare(usable?.down), up: bare(usable?.up), tunnels };
    const key = JSON.stringify(rate);
    const known = this.#rateAt.get(key);
    if (known !== undefined) return known;
    this.#rateAt.set(key, this.rates.length);
    return this.rates.push(rate) - 1;
  }

  /** What hangs on the way out alone. */
  route(route: number, dock: number): number {
    const spec = this.docks[dock] ?? null;
    return this.#keep(
      this.#bits.route,
      route,
      Number(spec !== null),
      () => this.#judge('route', { ...this.routed(route), dock: spec }).bits,
    );
  }

  charge(route: number, dock: number): Charge {
    const { at, spec } = this.#class('charge', dock);
    return this.#keep(this.#charges, route, at, () => {
      const { bits, g } = this.#judge('charge', { ...this.routed(route), dock: spec });
      const { contract, drawn } = g.body.charging;
      const word = JSON.stringify([contract, drawn]);
      const key = this.#contracts.get(word) ?? this.#contracts.size;
      this.#contracts.set(word, key);
      return { bits, key, contract };
    });
  }

  power(route: number, dock: number, supply: number): Row {
    const { at, spec } = this.#class('power', dock);
    const key = this.charge(route, dock).key * (this.input.supplies.length + 1) + supply + 1;
    return this.#keep(this.#rows.power, key, at, () =>
      this.#row(
        'power',
        { ...this.routed(route), dock: spec, supplies: this.supplies(supply) },
        this.cardPower.first,
        powerOver,
      ),
    );
  }

  /** The supply of its own, feeding dock and card; none for -1. */
  supplies(supply: number): Chain['supplies'] {
    const s = this.input.supplies[supply];
    return s ? [{ key: 'a', feeds: 'both', spec: s.spec }] : [];
  }

  mount(dock: number, supply: number): number {
    const { at, spec } = this.#class('mount', dock);
    // How a dock holds a card and what supply it takes do not hang on the card, but without one nothing is held.
    const card = this.cardFit.first[0] ?? null;
    return this.#keep(
      this.#bits.mount,
      supply + 1,
      at,
      () =>
        this.#judge('mount', {
          ...this.input.base,
          dock: spec,
          card,
          supplies: this.supplies(supply),
        }).bits,
    );
  }

  fit(dock: number): Row {
    const { at, spec } = this.#class('fit', dock);
    return this.#keep(this.#rows.fit, 0, at, () =>
      this.#row('fit', { ...this.input.base, dock: spec }, this.cardFit.first, fitOver),
    );
  }

  cool(dock: number): Row {
    const { at, spec } = this.#class('cool', dock);
    return this.#keep(this.#rows.cool, 0, at, () =>
      this.#row('cool', { ...this.input.base, dock: spec }, this.cardCool.first),
    );
  }

  /** Requirements and releases; a repackaged driver is a reason of its own. */
  software(route: number, dock: number): Row {
    const at = this.#dockSoft.of[dock] ?? NO_DOCK;
    return this.#keep(this.#rows.software, this.#routeSoft[route] as number, at, () => {
      const chain = { ...this.routed(route), dock: this.#dockSoft.first[at] ?? null };
      return this.#row('software', chain, this.cardSoft.first);
    });
  }

  /** Which classes of cards would need a repackaged driver on this host. */
  repackaged(): Int32Array {
    return (this.#repackagedBits ??= Int32Array.from(this.cardSoft.first, (card) => {
      const held = groundsOf({ ...this.input.base, card }, this.input.context).body.held;
      const wants = held.some((h) => h.requirement.needs === 'repackaged');
      return wants || this.input.base.settings.driverKind === 'repackaged' ? BIT.repackaged : 0;
    }));
  }

  picture(screen: number): Chain['picture'] {
    const s = this.input.screens[screen];
    return s ? [{ key: 'a', by: 'card', plug: s.plug, screen: s.spec }] : this.input.base.picture;
  }

  screen(screen: number): Row {
    return this.#keep(this.#rows.screen, 0, screen, () =>
      this.#row(
        'screen',
        { ...this.input.base, picture: this.picture(screen) },
        this.cardScreen.first,
      ),
    );
  }

  /** What a card brings with it wherever it stands. */
  own(): Int32Array {
    if (this.#ownBits) return this.#ownBits;
    const specs = this.input.cards.map((c) => c.spec);
    const classes = byReads<CardSpec>(specs, CARD_READS.own);
    const bits = classes.first.map((card) => this.#judge('own', { ...this.input.base, card }).bits);
    return (this.#ownBits = Int32Array.from(classes.of, (k) => bits[k] as number));
  }
}
