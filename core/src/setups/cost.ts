export type Condition = 'new' | 'used' | 'refurbished';

/** What a plan may need beside its parts and people forget. */
export const FORGOTTEN = {
  cable: 'A cable from host to dock',
  supply: 'A supply for dock and card',
  screen: 'A screen',
  'display-cable': 'A cable from card to screen',
  input: 'Keyboard and mouse',
  'dummy-plug': 'A dummy plug, where the card draws only for a screen it sees',
} as const;
export type ForgottenCode = keyof typeof FORGOTTEN;
export const FORGOTTEN_CODES = Object.keys(FORGOTTEN) as ForgottenCode[];

/** What a person says of the money of a plan; amounts in minor units of `currency`. */
export interface CostSettings {
  readonly currency: string;
  readonly budgetMinor: number | null;
  /** Only offers in this condition count; null: any. */
  readonly condition: Condition | null;
  readonly shippingMinor: number | null;
  readonly discountPercent: number | null;
  readonly discountMinor: number | null;
  readonly forgotten: Partial<Record<ForgottenCode, { have: boolean; minor: number | null }>>;
  readonly extras: readonly { what: string; minor: number }[];
  /** What is sold to pay for it. */
  readonly sells: readonly { what: string; minor: number }[];
}

export const NO_COST: CostSettings = {
  currency: 'EUR',
  budgetMinor: null,
  condition: null,
  shippingMinor: null,
  discountPercent: null,
  discountMinor: null,
  forgotten: {},
  extras: [],
  sells: [],
};
