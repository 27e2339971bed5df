/**
 * A house rule: a number in the core that a workshop may see differently, with its unit, limits, the reason for the default and
 * where it comes from.
 */
export interface Rule {
  readonly label: string;
  readonly unit: string;
  readonly default: number;
  readonly min: number;
  readonly max: number;
  readonly whole?: true;
  readonly reason: string;
  readonly source: string;
}

export const COMMON = 'common practice, no published source';
export const HOUSE = 'house rule';
export const ESTIMATE = 'house estimate';
