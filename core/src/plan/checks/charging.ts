import type { Range } from '../../base';
import { capital, figure, hoursText, maybe } from '../../base/text';
import type { ChargeFacts } from '../../chain';
import { defineCheck } from '../check';
import { certainIf, type Doubt, type JoinedParams, kind } from '../kind';

type Least = NonNullable<ChargeFacts['least']>;
/** Watts, hours; a figure that is not known is left out. */
interface Drain {
  contract?: Range;
  draw?: Range;
  least?: Least;
  hours?: Range;
  refuses?: 'may';
}

const LEAST: Readonly<Record<Least, string>> = {
  dock: 'the dock',
  cable: 'the cable',
  host: 'the host port',
};

function drainReason(p: JoinedParams<Drain>, c: Doubt): string {
  if (!p.contract || !p.draw || (c.certainty === 'possible' && p.refuses)) return c.notKnown;
  const empty = p.hours ? `: empty after ${hoursText(p.hours)}` : '';
  const by = capital(LEAST[p.least ?? 'dock']);
  return `Charges with ${figure(p.contract)} W while the host takes ${figure(p.draw)} W${empty}. ${by} sets it.`;
}

/** Does the dock keep the host going, or does the battery empty while it works? */
export const charging = defineCheck({
  id: 'charging',
  reads: ['charging', 'box'],
  searchGroup: 'charge',
  findings: {
    'charging/drains': kind<Drain>(
      'care',
      (p, c) => ({
        what: maybe(c, 'The host drains while it works', 'The host may drain while it works'),
        why: drainReason(p, c),
        todo: "Bring the host's own charger.",
      }),
      { cause: 'charge-contract' },
    ),
    'charging/refused': kind<{ minimum: Range; least: Least }>(
      'care',
      ({ minimum, least }) => ({
        what: 'The host refuses so weak a charger',
        why: `It takes nothing below ${figure(minimum)} W; ${LEAST[least]} gives less.`,
        todo: "Bring the host's own charger.",
      }),
      { cause: 'charge-contract' },
    ),
    'charging/none': kind<{ by: string }>('note', () => ({
      what: 'Nothing charges the host on this route',
      why: 'The link carries no power, or the dock gives none.',
      todo: "Bring the host's own charger, or a second USB-C cable where the dock has such a port.",
    })),
  },
  run({ charging: c, box }) {
    if (!box || !c.hasBattery || c.by === 'charger') return [];
    const common = { slots: ['dock', 'host'] as const, source: 'usb-c-cable' as const };
    if (c.refused && c.minimum) {
      const params = { minimum: c.minimum, least: c.least ?? 'dock' };
      return [{ ...common, code: 'charging/refused', params }];
    }
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
          ...(c.mayRefuse && { refuses: 'may' as const }),
        },
      },
    ];
  },
});
