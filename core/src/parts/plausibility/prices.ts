import { percentOf } from '../../base';
import type { ValueQuestion } from './types';

interface Discounted {
  readonly minor: number;
  readonly beforeMinor: number | null;
  readonly discountPercent: number | null;
}

/**
 * A price that is not the list price less the percentage: within half a percent of the list price is rounding.
 * @param p price, list price and percentage
 * @returns questions; none where nothing is odd
 */
export function discountQuestions(p: Discounted): ValueQuestion[] {
  if (p.beforeMinor === null || p.discountPercent === null || p.beforeMinor === 0) return [];
  const would = p.beforeMinor - percentOf(p.beforeMinor, p.discountPercent);
  if (Math.abs(would - p.minor) <= Math.max(1, p.beforeMinor / 200)) return [];
  return [
    {
      path: 'minor',
      code: 'discount-off',
      params: {
        said: p.discountPercent,
        would: Math.round((1 - p.minor / p.beforeMinor) * 1000) / 10,
      },
    },
  ];
}

/**
 * A part offered alone for more than a box that holds it and others: the box may be meant.
 * @param minor price of the part in smallest units
 * @param boxesMinor prices of boxes that hold it, in the same currency
 * @returns questions; none where nothing is odd
 */
export function boxQuestions(minor: number, boxesMinor: readonly number[]): ValueQuestion[] {
  const cheapest = Math.min(...boxesMinor);
  return boxesMinor.length > 0 && minor > cheapest
    ? [
        {
          path: 'minor',
          code: 'alone-above-box',
          params: { more: Math.round((minor / cheapest - 1) * 1000) / 10 },
        },
      ]
    : [];
}
