import { CONDITIONS, type Cost, type CostLine } from '@ruddy/core/buy';
import { money, moneyShort } from '@ruddy/core/buy/text';
import type { FixRow } from '@ruddy/core/plan/contract';
import { pluralize, day } from '../platform/shared/format';

const NOUNS: Record<string, string> = {
  host: 'Host',
  path: 'Cable',
  dock: 'Dock',
  card: 'Card',
  supplies: 'Supply',
  screens: 'Screen',
  system: 'System',
};

/** The house noun of a place in a plan: `path/0` is a cable. */
export function nounOf(slot: string): string {
  return NOUNS[slot.split('/')[0] ?? ''] ?? slot;
}

/** The end of a fix: what its part costs, that it is here, or that no price is known. */
export function fixPriceWords({ price }: Pick<FixRow, 'price'>): string {
  if (price === null) return '';
  if (price.owned) return ', here already';
  if (price.minor === null || price.currency === null) return ', no price known';
  return `, ${moneyShort({ minor: price.minor, currency: price.currency })}${price.onDate ? ` on ${day(price.onDate)}` : ''}`;
}

/** Where the figure of a line comes from. */
export function lineWords(l: CostLine): string {
  if (l.state === 'owned') {
    const where = l.piece?.usedIn ? `, in use in ${l.piece.usedIn}` : '';
    return `${l.piece?.label ?? ''}, ${l.piece?.how === 'borrowed' ? 'borrowed' : 'ours'}${where}`;
  }
  if (l.state === 'not-priced') return 'no price known';
  if (l.state === 'in-box') return 'in the same box';
  const p = l.price;
  if (!p) return '';
  const said = [
    p.withIds.length > 0 ? 'a box' : 'offered',
    p.condition ? CONDITIONS[p.condition] : '',
    p.source ? `at ${p.source}` : '',
    day(p.onDate),
    l.old ? `${pluralize(l.ageDays ?? 0, 'day')} old` : '',
  ];
  const rate = l.rate
    ? `; 1 ${l.rate.from} is ${Math.round(l.rate.rate * 1e4) / 1e4} ${l.rate.to} of ${day(l.rate.onDate)}`
    : '';
  const apart = l.state === 'apart' ? `; no rate for ${p.currency}, stands apart` : '';
  return said.filter((s) => s !== '').join(', ') + rate + apart;
}

/** The amount of a line as it is offered, in its own currency. */
export function lineAmount(l: CostLine, currency: string): string {
  if (l.state === 'owned') return money({ minor: 0, currency });
  if (l.state === 'not-priced') return '–';
  if (l.state === 'apart' && l.price) return money(l.price);
  return l.minor === null ? '–' : money({ minor: l.minor, currency });
}

/** What a plan costs, in one line: the sum, the money there is, what the sum does not hold. */
export function costWords(c: Cost): string {
  const sum = moneyShort({ minor: c.netMinor, currency: c.currency });
  const apart = c.apart.map((m) => ` and ${moneyShort(m)}`).join('');
  const left =
    c.leftMinor === null
      ? ''
      : c.leftMinor < 0
        ? `, ${moneyShort({ minor: -c.leftMinor, currency: c.currency })} over what there is`
        : `, ${moneyShort({ minor: c.leftMinor, currency: c.currency })} left`;
  const open = c.open.length > 0 ? `; ${c.open.length} without a price` : '';
  return `${sum}${apart}${left}${open}`;
}
