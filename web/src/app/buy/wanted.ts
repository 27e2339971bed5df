import type { Limits, Weights } from '@ruddy/core/buy';
import type { ScoutAsk } from '@ruddy/core/buy/contract';
import type { FieldMeta } from '../platform/kit/meta';

/** Fields of what a set is compared with. */
export const NOW_META: FieldMeta = {
  label: 'Current frame rate',
  input: 'number',
  unit: 'fps',
  min: 1,
  max: 1000,
};
export const CARRIED_META: FieldMeta = { label: 'Must be portable', input: 'flag' };

export const NO_LIMITS: Limits = {
  budgetMinor: null,
  targetFps: null,
  chargeW: null,
  noiseDb: null,
  lengthMm: null,
  noOpening: false,
  portable: false,
  openOnly: false,
  noRepackaged: false,
  proven: false,
  unsure: false,
};
export const USUAL_WEIGHTS: Weights = { frames: 2, money: 1, quiet: 0, small: 0, proven: 1 };

/** A search as it begins. */
export function freshAsk(hostId: string, titleId: string, currency: string): ScoutAsk {
  return {
    hostId,
    setupId: null,
    titleId,
    resolution: '2560x1440',
    panel: false,
    preset: '',
    currency,
    condition: null,
    own: 'free',
    screens: [],
    forgotten: {},
    limits: NO_LIMITS,
    weights: USUAL_WEIGHTS,
    pins: [],
  };
}

export const FLAGS = [
  ['noOpening', 'The host is not opened'],
  ['portable', 'Portable: a port outside, no open board'],
  ['openOnly', "No maker's own port"],
  ['noRepackaged', 'No repackaged driver'],
  ['proven', 'Only what worked here before'],
  ['unsure', 'Also where a deciding fact is not known'],
] as const satisfies readonly (readonly [keyof Limits, string])[];
export const FIGURES = [
  ['targetFps', 'Target frame rate', 'fps'],
  ['chargeW', 'Charges the host with', 'W'],
  ['noiseDb', 'Dock noise at most', 'dB(A)'],
  ['lengthMm', 'Dock length at most', 'mm'],
] as const satisfies readonly (readonly [keyof Limits, string, string])[];
export const WEIGHTS = [
  ['frames', 'Frames'],
  ['money', 'Low price'],
  ['quiet', 'Quiet'],
  ['small', 'Small'],
  ['proven', 'Worked when tried'],
] as const satisfies readonly (readonly [keyof Weights, string])[];

/** How many limits are set beside the money. */
export function limitsSet(l: Limits): number {
  return Object.entries(l).filter(([k, v]) => k !== 'budgetMinor' && v !== null && v !== false)
    .length;
}
