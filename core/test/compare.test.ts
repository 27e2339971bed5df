import { describe, expect, it } from 'vitest';
import { costOf, type Price } from '../src/buy';
import { type ComparedPlan, compareRows, compareSentence } from '../src/buy/text';
import type { Chain } from '../src/chain';
import { NO_COST } from '../src/setups';
import { cable, card, judge, tunnelChain } from './make';

const chain = (over: Partial<Chain> = {}): Chain => ({ ...tunnelChain(), ...over });
function plan(name: string, c: Chain, cardMinor: number | null, currency = 'EUR'): ComparedPlan {
  const price: Price = {
    partId: 'c',
    kind: 'offer',
    minor: cardMinor ?? 0,
    currency: 'EUR',
    condition: null,
    onDate: '2026-11-01',
    source: '',
    withIds: [],
  };
  const cost = costOf({
    parts: [{ slot: 'card', id: 'c', kind: 'card', name: 'C-1' }],
    chain: c,
    prices: cardMinor === null ? [] : [price],
    pieces: [],
    named: {},
    allInOne: [],
    names: new Map(),
    rates: [],
    settings: {
      ...NO_COST,
      currency,
      forgotten: Object.fromEntries(
        ['screen', 'input', 'display-cable'].map((k) => [k, { have: true, minor: null }]),
      ),
    },
    asOf: '2026-11-20',
    oldDays: 60,
  });
  return { name, chain: c, evaluation: judge(c), cost };
}

describe('PL-22 plans side by side', () => {
  const a = plan('Desk', chain(), 50_000);
  const short = plan(
    'Loan',
    chain({ path: [{ key: 'a', spec: cable({ model: 'K-9', markedGbps: 20 }) }] }),
    38_000,
  );

  it('equal plans differ in nothing', () => {
    const rows = compareRows([a, { ...a, name: 'Desk copy' }]);
    expect(rows.length).toBeGreaterThan(15);
    expect(rows.filter((r) => !r.same)).toEqual([]);
    expect(compareSentence([a, { ...a, name: 'Desk copy' }])).toMatch(
      /^Desk copy against Desk: .*Gb\/s as well, the same money/,
    );
  });

  it('another cable changes the part, the rate and the money only', () => {
    const differ = compareRows([a, short]).filter((r) => !r.same);
    expect(differ.map((r) => r.label)).toEqual(
      expect.arrayContaining(['Cable', 'To the card, Gb/s usable', 'To pay']),
    );
    expect(differ.map((r) => r.label)).not.toContain('Card');
    expect(differ.find((r) => r.label === 'To pay')?.cells).toEqual(['€500.00', '€380.00']);
    expect(compareSentence([a, short])).toMatch(
      /^Loan against Desk: .* Gb\/s instead of .*, €120 less\.$/,
    );
    expect(compareSentence([short, a])).toContain('€120 more');
  });

  it('a finding only one of them has stands as a line', () => {
    const wide = plan(
      'Long',
      chain({ path: [{ key: 'a', spec: cable({ lengthMm: 2500 }) }] }),
      50_000,
    );
    const rows = compareRows([a, wide]).filter((r) => r.group === 'Findings' && !r.same);
    expect(rows.length).toBeGreaterThan(0);
    expect(rows[0]?.cells[0]).toBe('no');
  });

  it('sums in other currencies or with gaps are not compared silently', () => {
    expect(compareSentence([a, plan('Other', chain(), 38_000, 'GBP')])).not.toMatch(/less|more/);
    expect(
      compareSentence([a, plan('Gap', chain({ card: card({ model: 'C-2' }) }), null)]),
    ).toContain('as far as prices are known');
  });

  it('one plan, and three', () => {
    expect(compareSentence([a])).toBe('Nothing to compare yet: 2 plans are needed.');
    expect(compareSentence([a, short, a])).toMatch(
      /^3 plans beside Desk: \d+ of \d+ lines differ\.$/,
    );
  });
});
