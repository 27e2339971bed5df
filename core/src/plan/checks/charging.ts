import type { Check } from '../types';

/** Does the dock keep the host going, or does the battery empty while it works? */
export const charging: Check<'charging' | 'box'> = {
  id: 'charging',
  codes: ['charging/drains', 'charging/refused', 'charging/none'],
  reads: ['charging', 'box'],
  run({ charging: c, box }) {
    if (!box || !c.hasBattery || c.by === 'charger') return [];
    const common = { slots: ['dock', 'host'] as const, source: 'usb-c-cable' as const };
    if (c.refused && c.minimum)
      return [{ ...common, code: 'charging/refused', params: { minimum: c.minimum, least: c.least ?? 'dock' } }];
    if (c.contract?.hi === 0) return [{ ...common, code: 'charging/none', params: { by: c.by ?? 'none' } }];
    if (!c.contract || !c.net || !c.drawW || c.net.lo >= 0) return [];
    return [
      {
        ...common,
        code: 'charging/drains',
        certainty: c.net.hi < 0 ? 'certain' : 'possible',
        hangsOn: c.net.hi < 0 ? [] : c.open,
        params: { contract: c.contract, draw: c.drawW, least: c.least ?? 'dock', ...(c.hours && { hours: c.hours }) },
      },
    ];
  },
};
