import type { FindingCode } from './codes';
import type { Evaluation } from './types';

/** Something to see to before the first plug goes in. */
export interface PreFlightItem {
  readonly id:
    | 'save'
    | 'key'
    | 'firmware'
    | 'versions'
    | 'way-back'
    | 'boot'
    | 'network'
    | 'charger'
    | 'opening'
    | 'print';
  /** `must`: this chain needs it. `look`: not known whether it does. `usual`: always. */
  readonly state: 'must' | 'look' | 'usual';
  /** The finding it comes from, for its words. */
  readonly code?: FindingCode;
}

/**
 * What to see to before plugging, in order: work saved, the recovery key, firmware, versions noted, a way back, where
 * the system boots, the network, the charger, and the list printed before the picture may go.
 * @param e the evaluation
 * @returns items that apply
 */
export function preFlight(e: Evaluation): PreFlightItem[] {
  const has = (code: FindingCode) => e.findings.some((f) => f.code === code);
  const { settings } = e.predicted.body;
  const list: (PreFlightItem | null)[] = [
    { id: 'save', state: 'usual' },
    settings.encryption === 'yes'
      ? { id: 'key', state: 'must', code: 'preflight/recovery-key' }
      : settings.encryption === 'no'
        ? null
        : { id: 'key', state: 'look' },
    has('software/firmware-first')
      ? { id: 'firmware', state: 'must', code: 'software/firmware-first' }
      : null,
    { id: 'versions', state: 'usual' },
    settings.internalGraphics === 'off'
      ? {
          id: 'way-back',
          state: settings.wayBack === 'yes' ? 'usual' : 'must',
          code: 'preflight/way-back',
        }
      : null,
    has('route/cutting') || has('route/opening')
      ? { id: 'opening', state: 'must', code: 'route/opening' }
      : null,
    has('route/boot') ? { id: 'boot', state: 'must', code: 'route/boot' } : null,
    has('route/network') ? { id: 'network', state: 'must', code: 'route/network' } : null,
    has('path/slot-used') ? { id: 'boot', state: 'look', code: 'path/slot-used' } : null,
    has('charging/none') || has('charging/drains') || has('charging/refused')
      ? { id: 'charger', state: 'must', code: 'charging/none' }
      : null,
    {
      id: 'print',
      state: settings.internalGraphics === 'off' || has('link/all-off') ? 'must' : 'usual',
    },
  ];
  return list.filter((i) => i !== null);
}
