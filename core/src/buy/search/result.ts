import { minorDigits, RuleBook } from '../../base';
import { endsInSlot, portName } from '../../chain';
import type { Connector } from '../../parts';
import {
  type Asking,
  type Coverage,
  evaluate,
  type FindingCode,
  rigOfEvaluation,
} from '../../plan';
import { type Banded, eightyBand, type ForecastBasis, frameForecastOf } from '../../runs';
import { type FrontStep, kneeOf, stepsOf, type Stops, stopsAt } from './front';
import type { LeftRow } from './left-out';
import type { Ranking } from './rank';
import type { Combo, RejectReason, Scored } from './types';

/** What a combination is called and made of. */
export interface RowNames {
  readonly port: string;
  readonly path: string;
  readonly dock: string;
  readonly card: string;
  readonly supply: string;
  readonly screen: string;
}
/** The ids of its parts, as a setup takes them. */
export interface RowIds {
  readonly socket: string;
  readonly path: readonly string[];
  readonly dock: string | null;
  readonly card: string;
  readonly supply: string | null;
  readonly screen: string | null;
}
/** A combination to be shown: judged whole, with bands. */
export interface RowView extends Scored {
  readonly names: RowNames;
  readonly ids: RowIds;
  readonly bands: readonly (Banded | null)[];
  readonly basis: ForecastBasis | null;
  /** How many of the areas that apply to it are known. */
  readonly coverage: Coverage;
  /** What its verdict hangs on. */
  readonly because: readonly FindingCode[];
  /** Parts that are not there yet, by name. */
  readonly buys: readonly string[];
  /** Names of parts with the same facts as its card and dock. */
  readonly alike: readonly string[];
  /** What its questions are made from: the page makes them, as what an attribute is called does not go into a worker. */
  readonly asking: Asking;
}

export interface FrontView {
  readonly resolution: string;
  readonly points: readonly RowView[];
  readonly knee: number | null;
  readonly steps: readonly FrontStep[];
  /** Where it stops paying; null when it does not. */
  readonly stops: Stops | null;
}
export interface LeftView extends Omit<LeftRow, 'nearest'> {
  readonly nearest: RowView | null;
  readonly over: number;
}
export interface ScoutResult {
  readonly done: number;
  readonly total: number;
  /** Combinations whose plugs do not meet: never looked at. */
  readonly apart: number;
  /** Plugs of docks that need a cable of which the catalogue holds none. */
  readonly uncabled: readonly Connector[];
  readonly kept: number;
  readonly currency: string;
  readonly fronts: readonly FrontView[];
  readonly ranked: readonly RowView[];
  /** Combinations that keep every limit and were seen to fail: never recommended, shown with why. */
  readonly refuted: readonly RowView[];
  readonly left: readonly LeftView[];
  /** The combination that misses by least, when nothing is kept. */
  readonly nearest: {
    readonly row: RowView;
    readonly over: number;
    readonly admits: RejectReason | null;
  } | null;
}

const SHOWN = 60;

/** Views of combinations, each judged once. */
export class Views {
  readonly #kept = new Map<number, RowView>();
  /** `refined`: frames as Plan tells them in the end, which takes several times as long. */
  constructor(
    readonly ranking: Ranking,
    readonly refined: boolean,
  ) {}

  of(index: number): RowView {
    const known = this.#kept.get(index);
    if (known) return known;
    const made = this.#make(index);
    this.#kept.set(index, made);
    return made;
  }

  #make(index: number): RowView {
    const { input } = this.ranking;
    const scored = this.ranking.at(index);
    const chain = this.ranking.chainAt(scored);
    const e = evaluate({ chain, context: input.context });
    const rig = rigOfEvaluation(chain, e);
    const { names, ids } = named(this.ranking, scored);
    const route = input.routes[scored.route];
    const dock = input.docks[scored.dock];
    const card = input.cards[scored.card];
    const parts = [
      ...(route?.pieces ?? []),
      dock,
      card,
      input.supplies[scored.supply],
      input.screens[scored.screen],
    ];
    const forecasts = input.frames.map((ask) => frameForecastOf(rig, ask, this.refined));
    const bands = forecasts.map((f) => f && eightyBand(f.fps));
    return {
      ...scored,
      names,
      ids,
      fps: bands.map((b) => b?.mid ?? null),
      bands,
      basis: forecasts[0]?.basis ?? null,
      coverage: e.predicted.coverage,
      because: scored.contradicted
        ? ['log/contradiction', ...e.predicted.verdict.because]
        : e.predicted.verdict.because,
      buys: parts.flatMap((p) => (p && !p.owned ? [p.name] : [])),
      alike: [...(dock?.alike ?? []), ...(card?.alike ?? [])],
      asking: {
        predicted: { areas: e.predicted.areas, verdict: e.predicted.verdict },
        toVerify: e.toVerify,
      },
    };
  }
}

function named(r: Ranking, c: Combo): { names: RowNames; ids: RowIds } {
  const { routes, docks, cards, supplies, screens, base } = r.input;
  const route = routes[c.route];
  const socket = base.host?.sockets.find((s) => s.key === route?.socket);
  const slot = endsInSlot(r.parts.routed(c.route).path);
  const dock = docks[c.dock];
  const card = cards[c.card];
  const supply = supplies[c.supply];
  const screen = screens[c.screen];
  return {
    names: {
      port: socket ? portName(socket) : '',
      path: route?.pieces.map((p) => p.name).join(' + ') || 'no separate cable',
      dock: dock?.name ?? (slot ? 'no dock' : ''),
      card: card?.name ?? '',
      supply: supply?.name ?? '',
      screen: screen?.name ?? '',
    },
    ids: {
      socket: route?.socket ?? '',
      path: route?.pieces.map((p) => p.id) ?? [],
      dock: dock?.id ?? null,
      card: card?.id ?? '',
      supply: supply?.id ?? null,
      screen: screen?.id ?? null,
    },
  };
}

/**
 * Intermediate or final result of a search. What is displayed gets a complete evaluation.
 *
 * @param ranking state of the search
 * @param views evaluates and names a combination
 * @returns fronts, order, counts of rejections and the nearest miss
 */
export function resultOf(ranking: Ranking, views: Views): ScoutResult {
  const { input, left } = ranking;
  const rule = new RuleBook(input.context.house).get('scout.stopsPer100');
  const unit = 10 ** minorDigits(input.currency);
  const nearest = left.nearest();
  const only = nearest && nearest.n === 1 ? (ranking.at(nearest.index).fails[0] ?? null) : null;
  return {
    done: ranking.done,
    total: ranking.total,
    apart: ranking.apart,
    uncabled: ranking.uncabled,
    kept: ranking.done - left.total(),
    currency: input.currency,
    fronts: ranking.fronts.map((front, k) => {
      const points = front.points();
      const steps = stepsOf(points, unit);
      return {
        resolution: input.frames[k]?.resolution ?? '',
        points: points.map((p) => views.of(p.index)),
        knee: kneeOf(points),
        steps,
        stops: stopsAt(points, unit, rule),
      };
    }),
    ranked: ranking.best
      .list()
      .slice(0, SHOWN)
      .map((b) => views.of(b.index)),
    refuted: ranking.refuted.list().map((b) => views.of(b.index)),
    left: left.rows().map(({ nearest: miss, ...row }) => ({
      ...row,
      nearest: miss && views.of(miss.index),
      over: miss?.over ?? 0,
    })),
    nearest: nearest && { row: views.of(nearest.index), over: nearest.over, admits: only },
  };
}

/** A cheaper card on the same path, as fast within a share, for one frame asked for. */
export interface Equal {
  readonly resolution: string;
  readonly row: RowView;
  readonly savesMinor: number;
}

/**
 * Cheapest card whose frame rate on the same path lies within a share of the chosen one's. Cards over a limit do not count.
 *
 * @param ranking state of the search
 * @param views evaluates and names a combination
 * @param chosen the chosen combination
 * @param percent greatest difference, %
 * @returns one card for each resolution; none where the chosen card is the cheapest
 */
export function cheapestEqual(
  ranking: Ranking,
  views: Views,
  chosen: Combo,
  percent: number,
): Equal[] {
  const own = ranking.at(ranking.indexAt(chosen));
  const others = ranking.input.cards.map((_, card) =>
    ranking.at(ranking.indexAt({ ...chosen, card })),
  );
  const kept = others.filter((o) => o.fails.every((f) => own.fails.includes(f)));
  return ranking.input.frames.flatMap((f, k): Equal[] => {
    const wanted = own.fps[k];
    if (wanted === null || wanted === undefined) return [];
    const least = kept
      .filter((o) => (o.fps[k] ?? 0) >= wanted * (1 - percent / 100) && o.minor < own.minor)
      .sort((a, b) => a.minor - b.minor || a.index - b.index)[0];
    return least
      ? [
          {
            resolution: f.resolution,
            row: views.of(least.index),
            savesMinor: own.minor - least.minor,
          },
        ]
      : [];
  });
}

/**
 * Combination of parts by their ids.
 *
 * @param ranking state of the search
 * @param ids ids of the parts
 * @returns the combination; null when a part is not in the search
 */
export function comboOf(ranking: Ranking, ids: RowIds): Combo | null {
  const { routes, docks, cards, supplies, screens } = ranking.input;
  const at = (list: readonly { readonly id: string }[], id: string | null) =>
    id === null ? -1 : list.findIndex((x) => x.id === id);
  const route = routes.findIndex(
    (r) => r.socket === ids.socket && r.pieces.map((p) => p.id).join() === ids.path.join(),
  );
  const combo = {
    route,
    dock: ids.dock === null ? docks.length : at(docks, ids.dock),
    card: at(cards, ids.card),
    supply: at(supplies, ids.supply),
    screen: at(screens, ids.screen),
  };
  const lost =
    (ids.supply !== null && combo.supply < 0) || (ids.screen !== null && combo.screen < 0);
  return combo.route < 0 || combo.dock < 0 || combo.card < 0 || lost ? null : combo;
}
