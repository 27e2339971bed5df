import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
  convert,
  currencies,
  type ExchangeRate,
  isCurrency,
  minorDigits,
  percentOf,
  rateOn,
  toMinor,
} from '../src/base';
import { bestOffer, type CostInput, costOf, type CostPart, type Price } from '../src/buy';
import { money, moneyShort } from '../src/buy/text';
import { chainSchema } from '../src/chain';
import { NO_COST } from '../src/setups';

const EMPTY = chainSchema.parse({ host: null, socket: null, path: [], dock: null, card: null });
const part = (slot: string, id = slot): CostPart => ({ slot, id, kind: 'card', name: id });
let n = 0;
const price = (partId: string, minor: number, over: Partial<Price> = {}): Price => ({
  partId,
  minor,
  currency: 'EUR',
  kind: 'offer',
  condition: null,
  onDate: '2026-11-01',
  source: `shop ${++n}`,
  withIds: [],
  ...over,
});
const input = (over: Partial<CostInput>): CostInput => ({
  parts: [],
  chain: EMPTY,
  prices: [],
  pieces: [],
  named: {},
  allInOne: [],
  names: new Map(),
  rates: [],
  settings: NO_COST,
  asOf: '2026-11-20',
  oldDays: 60,
  ...over,
});
const GBP: ExchangeRate = {
  from: 'GBP',
  to: 'EUR',
  rate: 1.18,
  onDate: '2026-10-30',
  source: 'bank page',
};

describe('PL-19 money', () => {
  // ISO 4217, table A.1: minor units of these currencies.
  it.each([
    ['EUR', 2],
    ['GBP', 2],
    ['JPY', 0],
    ['KWD', 3],
    ['CLP', 0],
  ])('%s has %i digits after the point', (code, digits) => {
    expect(minorDigits(code)).toBe(digits);
  });

  it('knows currencies by their code and nothing else', () => {
    expect([isCurrency('EUR'), isCurrency('eur'), isCurrency('EURO'), isCurrency('QQQ')]).toEqual([
      true,
      false,
      false,
      false,
    ]);
    expect(currencies().length).toBeGreaterThan(150);
  });

  it('takes an amount with no more digits than the currency has', () => {
    expect([
      toMinor(38.5, 'EUR'),
      toMinor(0.1 + 0.2, 'EUR'),
      toMinor(38.555, 'EUR'),
      toMinor(5400, 'JPY'),
      toMinor(0.5, 'JPY'),
    ]).toEqual([3850, 30, null, 5400, null]);
  });

  it('converts at a dated rate, halves away from zero', () => {
    expect(convert({ minor: 6400, currency: 'GBP' }, GBP)).toEqual({
      minor: 7552,
      currency: 'EUR',
    });
    const yen: ExchangeRate = {
      from: 'JPY',
      to: 'EUR',
      rate: 0.00605,
      onDate: '2026-11-01',
      source: '',
    };
    expect(convert({ minor: 96_800, currency: 'JPY' }, yen).minor).toBe(58_564);
    expect(
      convert({ minor: 1, currency: 'EUR' }, { ...GBP, from: 'EUR', to: 'GBP', rate: 0.5 }).minor,
    ).toBe(1);
    expect([percentOf(1250, 10), percentOf(5, 10), percentOf(-5, 10)]).toEqual([125, 1, -1]);
  });

  it('takes the newest rate known on the day, and turns one over', () => {
    const older = { ...GBP, rate: 1.16, onDate: '2026-04-30' };
    expect(rateOn([older, GBP], 'GBP', 'EUR', '2026-11-20')?.rate).toBe(1.18);
    expect(rateOn([older, GBP], 'GBP', 'EUR', '2026-10-01')?.rate).toBe(1.16);
    expect(rateOn([GBP], 'EUR', 'GBP', '2026-11-20')?.rate).toBeCloseTo(0.8475, 4);
    expect(rateOn([GBP], 'GBP', 'EUR', '2026-10-29')).toBeNull();
    expect(rateOn([GBP], 'GBP', 'USD', '2026-11-20')).toBeNull();
  });

  it('says amounts with all their digits, or short', () => {
    expect([
      money({ minor: 3800, currency: 'EUR' }),
      moneyShort({ minor: 3800, currency: 'EUR' }),
      moneyShort({ minor: 3850, currency: 'EUR' }),
    ]).toEqual(['€38.00', '€38', '€38.50']);
  });
});

describe('PL-19 which offer counts', () => {
  const rules = {
    condition: null,
    currency: 'EUR',
    rates: [GBP],
    asOf: '2026-11-20',
    oldDays: 60,
  } as const;

  it('takes the cheapest recent price, an old one only without them', () => {
    const young = [
      price('c', 50_000),
      price('c', 47_000),
      price('c', 30_000, { onDate: '2026-01-01' }),
    ];
    expect(bestOffer(young, rules)?.minor).toBe(47_000);
    expect(bestOffer([price('c', 30_000, { onDate: '2026-01-01' })], rules)?.minor).toBe(30_000);
  });

  it('of one source only the newest price', () => {
    const list = [
      price('c', 40_000, { source: 'a', onDate: '2026-10-10' }),
      price('c', 45_000, { source: 'A', onDate: '2026-11-10' }),
    ];
    expect(bestOffer(list, rules)?.minor).toBe(45_000);
  });

  it('prices count in the wanted condition, not early, not when paid', () => {
    const list = [
      price('c', 30_000, { condition: 'used' }),
      price('c', 47_000, { condition: 'new' }),
    ];
    expect(bestOffer(list, { ...rules, condition: 'new' })?.minor).toBe(47_000);
    expect(bestOffer([...list, price('c', 46_000)], { ...rules, condition: 'new' })?.minor).toBe(
      46_000,
    );
    expect(bestOffer([price('c', 1, { onDate: '2026-11-21' })], rules)).toBeNull();
    expect(bestOffer([price('c', 1, { kind: 'paid' })], rules)).toBeNull();
  });

  it('compares across currencies at the dated rate', () => {
    expect(
      bestOffer([price('c', 40_000), price('c', 33_000, { currency: 'GBP' })], rules)?.currency,
    ).toBe('GBP');
    expect(
      bestOffer([price('c', 40_000), price('c', 1, { currency: 'JPY' })], rules)?.currency,
    ).toBe('EUR');
  });
});

describe('PL-19 what a plan costs', () => {
  it('a worked example: parts, discount, shipping, extras, sold, left', () => {
    // 249 + 469 = 718; less 5 % (35.90) and 10: 672.10; shipping 6.90 + 4; cable 12.50: 695.50; sold 90: 605.50; of 650: 44.50 left.
    const c = costOf(
      input({
        parts: [part('dock'), part('card')],
        prices: [
          price('dock', 24_900, { source: 'counter' }),
          price('dock', 690, { source: 'counter', kind: 'shipping' }),
          price('card', 46_900),
        ],
        settings: {
          ...NO_COST,
          budgetMinor: 65_000,
          discountPercent: 5,
          discountMinor: 1000,
          shippingMinor: 400,
          extras: [{ what: 'cable', minor: 1250 }],
          sells: [{ what: 'old card', minor: 9000 }],
        },
      }),
    );
    expect([
      c.partsMinor,
      c.discountMinor,
      c.shippingMinor,
      c.extrasMinor,
      c.totalMinor,
      c.netMinor,
      c.leftMinor,
    ]).toEqual([71_800, 4590, 1090, 1250, 69_550, 60_550, 4450]);
  });

  it('a piece at hand is free, and each part needs its own', () => {
    const piece = (id: string, usedIn: string | null = null) => ({
      id,
      partId: 'k',
      label: id,
      how: 'own' as const,
      usedIn,
    });
    const parts = [part('path/0', 'k'), part('path/1', 'k')];
    const prices = [price('k', 3800)];
    const one = costOf(input({ parts, prices, pieces: [piece('a')] }));
    expect([one.lines.map((l) => l.state), one.totalMinor]).toEqual([['owned', 'priced'], 3800]);
    const two = costOf(
      input({
        parts,
        prices,
        pieces: [piece('a', 'Meridian bench'), piece('b')],
        named: { 'path/1': 'b' },
      }),
    );
    expect(two.lines.map((l) => l.piece?.id)).toEqual(['a', 'b']);
    const spare = costOf(
      input({
        parts: [part('path/0', 'k')],
        prices,
        pieces: [piece('a', 'Meridian bench'), piece('b')],
      }),
    );
    expect(spare.lines[0]?.piece?.id).toBe('b');
  });

  it('currencies stand apart without a dated rate, and are added with one', () => {
    const parts = [part('dock'), part('card')];
    const prices = [price('dock', 6400, { currency: 'GBP' }), price('card', 10_000)];
    const apart = costOf(input({ parts, prices }));
    expect([apart.totalMinor, apart.apart]).toEqual([10_000, [{ currency: 'GBP', minor: 6400 }]]);
    const added = costOf(input({ parts, prices, rates: [GBP] }));
    expect([added.totalMinor, added.apart, added.lines[0]?.rate?.onDate]).toEqual([
      17_552,
      [],
      '2026-10-30',
    ]);
    const early = costOf(input({ parts, prices, rates: [{ ...GBP, onDate: '2026-11-21' }] }));
    expect(early.apart).toHaveLength(1);
  });

  it('what has no price is named, and not counted as nothing', () => {
    const c = costOf(input({ parts: [part('card', 'C-20')] }));
    expect([c.totalMinor, c.open]).toEqual([0, ['C-20', 'A screen']]);
  });

  it('a box counts when all is wanted and it is not dearer', () => {
    const parts = [part('dock'), part('card')];
    const single = [price('dock', 24_900), price('card', 46_900)];
    const box = (minor: number) => price('dock', minor, { withIds: ['card'] });
    const cheap = costOf(input({ parts, prices: [...single, box(65_900)] }));
    expect([cheap.totalMinor, cheap.lines.map((l) => l.state)]).toEqual([
      65_900,
      ['priced', 'in-box'],
    ]);
    const dear = costOf(input({ parts, prices: [...single, box(75_000)] }));
    expect(dear.totalMinor).toBe(71_800);
    const alone = costOf(input({ parts: [part('dock')], prices: [...single, box(20_000)] }));
    expect(alone.totalMinor).toBe(24_900);
  });

  it('the dock by itself is the box less the card', () => {
    const c = costOf(
      input({
        parts: [part('dock')],
        prices: [price('dock', 65_900, { withIds: ['card'] }), price('card', 46_900)],
        names: new Map([['card', 'C-20']]),
      }),
    );
    expect(c.implied).toMatchObject([
      { minor: 19_000, without: [{ name: 'C-20', minor: 46_900 }] },
    ]);
    expect(
      costOf(
        input({ parts: [part('dock')], prices: [price('dock', 65_900, { withIds: ['card'] })] }),
      ).implied,
    ).toEqual([]);
  });

  it('all-in-ones are compared with dock, card and supply, cheapest first', () => {
    const parts = [part('dock'), part('card'), part('host')];
    const prices = [
      price('dock', 24_900),
      price('card', 46_900),
      price('host', 99_900),
      price('one', 64_900),
      price('two', 79_900),
    ];
    const allInOne = [part('', 'two'), part('', 'one')];
    const c = costOf(input({ parts, prices, allInOne }));
    expect([c.partsSumMinor, c.allInOne.map((a) => [a.name, a.moreMinor])]).toEqual([
      71_800,
      [
        ['one', -6900],
        ['two', 8100],
      ],
    ]);
    expect(
      costOf(input({ parts, prices: prices.slice(1), allInOne })).allInOne[0]?.moreMinor,
    ).toBeNull();
  });

  it('never adds amounts of two currencies, whatever the prices', () => {
    const code = fc.constantFrom('EUR', 'GBP', 'JPY', 'USD');
    const any = fc.array(fc.record({ minor: fc.nat(1e9), currency: code }), { maxLength: 6 });
    fc.assert(
      fc.property(any, code, (list, currency) => {
        const parts = list.map((_, i) => part(`path/${i}`, `k${i}`));
        const prices = list.map((m, i) => price(`k${i}`, m.minor, { currency: m.currency }));
        const c = costOf(input({ parts, prices, settings: { ...NO_COST, currency } }));
        const of = (cur: string) =>
          list.filter((m) => m.currency === cur).reduce((a, m) => a + m.minor, 0);
        expect(c.totalMinor).toBe(of(currency));
        for (const m of c.apart) expect(m.minor).toBe(of(m.currency));
        expect(c.apart.every((m) => m.currency !== currency)).toBe(true);
      }),
    );
  });
});
