import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { NO_COST_SAID } from '@ruddy/core/setups';
import type { CostSaid } from '@ruddy/core/setups/contract';
import { readAmount } from '../platform/shared/amount';
import { AmountField } from './amount-field';
import { CostSaidFields } from './cost-said';
import { fixPriceWords, lineWords, nounOf } from './cost-words';

describe('PL-19 amounts as typed', () => {
  it.each([
    ['38', 'EUR', 3800],
    ['38,5', 'EUR', 3850],
    ['38.05', 'EUR', 3805],
    ['', 'EUR', null],
    ['5400', 'JPY', 5400],
  ])('"%s" %s', (text, currency, minor) => {
    expect(readAmount(text, currency)).toEqual({ ok: true, minor });
  });

  it.each([
    ['1,200', 'EUR', 'could mean two numbers'],
    ['38.555', 'EUR', 'could mean two numbers'],
    ['38.5555', 'EUR', 'more digits than EUR has'],
    ['0.5', 'JPY', 'more digits than JPY has'],
    ['-3', 'EUR', 'below 0'],
    ['cheap', 'EUR', 'not a number'],
    ['3', 'QQQ', 'not a currency'],
  ])('"%s" %s is refused', (text, currency, words) => {
    const r = readAmount(text, currency);
    expect(r.ok ? '' : r.why).toContain(words);
  });

  it('a field keeps what is no amount and says why', async () => {
    const fixture = TestBed.createComponent(AmountField);
    fixture.componentRef.setInput('label', 'Shipping');
    fixture.componentRef.setInput('currency', 'EUR');
    fixture.componentRef.setInput('minor', 400);
    const out: (number | null)[] = [];
    fixture.componentInstance.changed.subscribe((m) => out.push(m));
    await fixture.whenStable();
    const box = (fixture.nativeElement as HTMLElement).querySelector('input')!;
    expect(box.value).toBe('4');
    const type = async (text: string) => {
      box.value = text;
      box.dispatchEvent(new Event('change'));
      await fixture.whenStable();
    };
    await type('much');
    expect([out, box.value, box.getAttribute('aria-invalid')]).toEqual([[], 'much', 'true']);
    await type('6,90');
    await type('');
    expect([out, box.getAttribute('aria-invalid')]).toEqual([[690, null], 'false']);
  });
});

describe('PL-19 what is said of the money', () => {
  let fixture: ComponentFixture<CostSaidFields>;
  const out: Partial<CostSaid>[] = [];
  beforeEach(async () => {
    out.length = 0;
    fixture = TestBed.createComponent(CostSaidFields);
    fixture.componentRef.setInput('said', {
      ...NO_COST_SAID,
      sells: [{ what: 'old card', minor: 9000 }],
    });
    fixture.componentInstance.changed.subscribe((c) => out.push(c));
    await fixture.whenStable();
  });

  it('valid currencies count; a discount lies from 0 to 100', () => {
    const c = fixture.componentInstance;
    c.currency('gbp');
    c.currency('pounds');
    expect([out.map((o) => o.currency), c.oddCurrency()]).toEqual([
      ['GBP'],
      '"pounds" is not a currency like EUR',
    ]);
    c.discount('120');
    c.discount('7,5');
    c.discount('');
    expect([out.slice(1), c.oddPercent()]).toEqual([
      [{ discountPercent: 7.5 }, { discountPercent: null }],
      null,
    ]);
  });

  it('lines are added whole or not at all, and taken out', async () => {
    const c = fixture.componentInstance;
    const box = (fixture.nativeElement as HTMLElement).querySelector<HTMLInputElement>(
      'input[aria-label="something to sell"]',
    )!;
    box.value = 'old dock';
    c.add('sells', box);
    await fixture.whenStable();
    expect([out, c.problem()]).toEqual([[], 'Nothing added: type what it is and how much']);
    c.wait('sells', 5000);
    c.add('sells', box);
    c.take('sells', 0);
    expect(out).toEqual([
      {
        sells: [
          { what: 'old card', minor: 9000 },
          { what: 'old dock', minor: 5000 },
        ],
      },
      { sells: [] },
    ]);
  });
});

describe('PL-19 words beside prices', () => {
  it('of a fix', () => {
    const price = { owned: false, minor: 3800, currency: 'EUR', onDate: '2026-11-01' };
    expect(fixPriceWords({ price })).toBe(', €38 on 1 Nov 2026');
    expect(fixPriceWords({ price: { ...price, owned: true } })).toBe(', here already');
    expect(fixPriceWords({ price: { ...price, minor: null } })).toBe(', no price known');
    expect(fixPriceWords({ price: null })).toBe('');
  });

  it('a line says at hand, old offer, or no rate', () => {
    const part = { slot: 'path/0', id: 'k', kind: 'cable' as const, name: 'K-1' };
    const empty = {
      part,
      piece: null,
      price: null,
      minor: null,
      rate: null,
      shipping: null,
      ageDays: null,
      old: false,
    };
    const piece = {
      id: 'a',
      partId: 'k',
      label: 'K-1 a',
      how: 'borrowed' as const,
      usedIn: 'Dome desk',
    };
    expect(lineWords({ ...empty, state: 'owned', piece })).toBe(
      'K-1 a, borrowed, in use in Dome desk',
    );
    const price = {
      partId: 'k',
      kind: 'offer' as const,
      minor: 1,
      currency: 'GBP',
      condition: 'used' as const,
      onDate: '2026-01-02',
      source: 'fair',
      withIds: [],
    };
    const old = { ...empty, state: 'apart' as const, price, old: true, ageDays: 322 };
    expect(lineWords(old)).toBe(
      'offered, second hand, at fair, 2 Jan 2026, 322 days old; no rate for GBP, stands apart',
    );
    expect([nounOf('path/0'), nounOf('supplies/1'), nounOf('dock')]).toEqual([
      'Cable',
      'Supply',
      'Dock',
    ]);
  });
});
