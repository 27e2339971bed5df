import type { Check } from '../types';
import { certainIf } from './certainty';

/** Does the dock keep the host going, or does the battery empty while it works? */
export const charging: Check<'charging' | 'box'> = {
  id: 'charging',
  codes: ['charging/drains', 'charging/refused', 'charging/none'],
  reads: ['charging', 'box'],
  run({ charging: c, box }) {
    if (!box || !c.hasBattery || c.by === 'charger') return [];
    const common = { slots: ['dock', 'host'] as const, source: 'usb-c-cable' as const };
    if (c.refused && c.minimum)
      return [
        {
          ...common,
          code: 'charging/refused',
          params: { minimum: c.minimum, least: c.least ?? 'dock' },
        },
      ];
    if (c.span.hi === 0)
      return [{ ...common, code: 'charging/none', params: { by: c.by ?? 'none' } }];
    if (c.drawW && c.span.lo >= c.drawW.hi) return [];
    const certain = c.drawW !== null && c.span.hi < c.drawW.lo;
    return [
      {
        ...common,
        code: 'charging/drains',
        ...certainIf(certain, c.open),
        params: {
          // Where the contract is not known, what it can be at most already tells.
          ...((c.contract ?? certain) && { contract: c.contract ?? c.span }),
          ...(c.drawW && { draw: c.drawW }),
          ...(c.least && { least: c.least }),
          ...(c.contract && c.hours && { hours: c.hours }),
          ...(c.mayRefuse && { refuses: 'may' }),
        },
      },
    ];
  },
};
