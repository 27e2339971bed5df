import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { TestBed, type ComponentFixture } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import { NO_COST_SAID } from '@ruddy/core/setups';
import type { CostSaid } from '@ruddy/core/setups/contract';
import { readAmount } from '../platform/shared/amount';
import { provideDays } from '../platform/kit/days';
import { FieldHarness } from '../platform/kit/testing/field-harness';
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
});

describe('PL-19 what is said of the money', () => {
  let fixture: ComponentFixture<CostSaidFields>;
  const out: Partial<CostSaid>[] = [];
  beforeEach(async () => {
    out.length = 0;
    TestBed.configureTestingModule({ imports: [MatIconTestingModule], providers: [provideDays()] });
    fixture = TestBed.createComponent(CostSaidFields);
    fixture.componentRef.setInput('said', {
      ...NO_COST_SAID,
      sells: [{ what: 'old card', minor: 9000 }],
    });
    fixture.componentInstance.changed.subscribe((c) => out.push(c));
    await fixture.whenStable();
  });

  const field = (label: string) =>
    TestbedHarnessEnvironment.loader(fixture).getHarness(FieldHarness.byLabel(label));
  const leave = (f: FieldHarness) => f.host().then((h) => h.dispatchEvent('change'));

  it('valid currencies count; a discount lies from 0 to 100', async () => {
    const currency = await field('Currency');
    await currency.type('pounds');
    await leave(currency);
    expect(await currency.error()).toBe('"pounds" is not a currency like EUR');
    await currency.type('gbp');
    await leave(currency);
    expect(out.map((o) => o.currency)).toEqual(['GBP']);
    const discount = await field('Discount');
    await discount.type('120');
    await leave(discount);
    expect(await discount.error()).toBe('At most 100');
    await discount.type('7,5');
    await leave(discount);
    expect(out.slice(1)).toEqual([{ discountPercent: 7.5 }]);
  });

  it('lines are added whole or not at all, and taken out', async () => {
    const c = fixture.componentInstance;
    await (await field('Item to sell')).type('old dock');
    c.add('sells');
    expect([out, c.problem()]).toEqual([[], 'Not added. Enter an item and its amount.']);
    c.waiting.sells.patchValue({ minor: 5000 });
    c.add('sells');
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
