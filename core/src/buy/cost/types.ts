import type { ExchangeRate, Money } from '../../base';
import type { Chain } from '../../chain';
import type { PartKind } from '../../parts';
import type { Condition, CostSettings, ForgottenCode } from '../../setups';

export type PriceKind = 'offer' | 'paid' | 'shipping' | 'resale';

/** A price seen or paid on a day. `withIds` are the other parts in the same box. */
export interface Price extends Money {
  readonly partId: string;
  readonly kind: PriceKind;
  readonly condition: Condition | null;
  readonly onDate: string;
  readonly source: string;
  readonly withIds: readonly string[];
}

/** A part of the plan, with what is known of its money. */
export interface CostPart {
  /** Where it stands: `dock`, `path/0`. */
  readonly slot: string;
  readonly id: string;
  readonly kind: PartKind;
  readonly name: string;
}

/** A piece that is there already: it costs nothing. `usedIn` names another live setup that has it. */
export interface OwnedPiece {
  readonly id: string;
  readonly partId: string;
  readonly label: string;
  readonly how: 'own' | 'borrowed';
  readonly usedIn: string | null;
}

/**
 * How a part of a setup is paid: already owned, by an offer, in the box of another part, in a currency without a
 * rate, or unknown.
 */
export type LineState = 'owned' | 'priced' | 'in-box' | 'apart' | 'not-priced';

export interface CostLine {
  readonly part: CostPart;
  readonly state: LineState;
  readonly piece: OwnedPiece | null;
  /** The offer that counts; for `in-box` the one of the box. */
  readonly price: Price | null;
  /** In the plan's currency, shipping by the same source left out; null when not known or apart. */
  readonly minor: number | null;
  readonly rate: ExchangeRate | null;
  readonly shipping: Money | null;
  readonly ageDays: number | null;
  readonly old: boolean;
}

export interface ForgottenLine {
  readonly code: ForgottenCode;
  readonly have: boolean;
  readonly minor: number | null;
}

/** What a dock costs by itself when it is sold with a card: the box less the card. */
export interface ImpliedDock {
  readonly name: string;
  readonly box: Price;
  readonly without: readonly { name: string; minor: number }[];
  readonly minor: number;
  readonly currency: string;
}

/** An all-in-one against the same money spent on parts: dock, card and supply of the plan. */
export interface AllInOne {
  readonly id: string;
  readonly name: string;
  readonly price: Price;
  readonly minor: number;
  /** What it costs more than the parts; negative: less. Null when a part has no price. */
  readonly moreMinor: number | null;
}

export interface Cost {
  readonly currency: string;
  readonly lines: readonly CostLine[];
  readonly forgotten: readonly ForgottenLine[];
  readonly partsMinor: number;
  readonly extrasMinor: number;
  readonly shippingMinor: number;
  readonly discountMinor: number;
  readonly totalMinor: number;
  readonly sellsMinor: number;
  readonly netMinor: number;
  /** Sums in other currencies for which no dated rate is known: never added in. */
  readonly apart: readonly Money[];
  /** What the total does not hold, in words a person reads: names of parts, forgotten items. */
  readonly open: readonly string[];
  readonly leftMinor: number | null;
  /** What the parts bought now may bring when they are sold again. */
  readonly resaleMinor: number;
  readonly implied: readonly ImpliedDock[];
  readonly partsSumMinor: number | null;
  readonly allInOne: readonly AllInOne[];
}

export interface CostInput {
  readonly parts: readonly CostPart[];
  readonly chain: Chain;
  readonly prices: readonly Price[];
  readonly pieces: readonly OwnedPiece[];
  /** Which very piece stands where, by slot. */
  readonly named: Readonly<Record<string, string>>;
  /** All-in-one docks of the catalogue, to compare with. */
  readonly allInOne: readonly CostPart[];
  /** Names of parts that stand in boxes or all-in-ones but not in the plan, by id. */
  readonly names: ReadonlyMap<string, string>;
  readonly rates: readonly ExchangeRate[];
  readonly settings: CostSettings;
  readonly asOf: string;
  readonly oldDays: number;
}
