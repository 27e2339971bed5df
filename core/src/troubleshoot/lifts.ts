import type { CauseId } from '../base';
import type { Evaluation, FindingCode } from '../plan';
import type { PriorMultiplier } from './chain-net';

/** Which cause a finding of the plan makes likelier. */
const SAYS: Readonly<Partial<Record<FindingCode, CauseId>>> = {
  'link/no-tunnel': 'look-alike-port',
  'host/look-alike': 'look-alike-port',
  'cable/no-data': 'cable-charges',
  'cable/watts': 'cable-charges',
  'cable/too-long': 'cable-class',
  'cable/beyond-standard': 'cable-class',
  'cable/joined': 'cable-class',
  'cable/direct-long': 'direct-cable',
  'software/security': 'no-tunnelling',
  'software/approval': 'not-approved',
  'software/refused': 'mobile-chip',
  'card/name-trap': 'mobile-chip',
  'software/unmet': 'driver-range',
  'software/withdrawn': 'driver-range',
  'software/driver-class': 'driver-range',
  'software/firmware-first': 'dock-firmware',
  'dock/firmware-cap': 'dock-firmware',
  'power/plugs-short': 'power-cables',
  'power/over': 'supply',
  'power/tight': 'supply',
  'power/peak': 'supply',
  'charging/drains': 'charge-contract',
  'charging/refused': 'charge-contract',
  'fit/too-big': 'too-big',
  'cooling/hot': 'heat',
  'cooling/lid': 'heat',
  'screen/no-plug': 'screen-input',
  'screen/too-much': 'screen-input',
  'screen/panel': 'panel-return',
  'link/shared': 'shared-link',
  'software/many-chips': 'both-graphics',
};
/** How much likelier. Judgement, no published source: a note is a hint, what blocks or needs care is more. */
const TIMES = { blocks: 5, care: 4, note: 2 } as const;

/** What somebody said of the screen makes likelier, before any part is known. */
export function priorMultipliersOfEntered(
  said: { readonly screen: 'card' | 'panel' | 'hub' | null } | null,
): PriorMultiplier[] {
  if (said?.screen === 'panel') return [{ cause: 'panel-return', times: 3, code: 'said' }];
  return said?.screen === 'hub' ? [{ cause: 'screen-input', times: 2, code: 'said' }] : [];
}

/** Causes that the plan of a chain already speaks of, with the finding; the strongest finding counts once for each cause. */
export function priorMultipliers(evaluation: Evaluation): PriorMultiplier[] {
  const all = evaluation.findings.flatMap((f): PriorMultiplier[] => {
    const cause = SAYS[f.code];
    return cause ? [{ cause, times: TIMES[f.severity], code: f.code }] : [];
  });
  const best = new Map<CauseId, PriorMultiplier>();
  for (const l of all) if ((best.get(l.cause)?.times ?? 0) < l.times) best.set(l.cause, l);
  return [...best.values()];
}
