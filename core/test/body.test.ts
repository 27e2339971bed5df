import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { RuleBook } from '../src/base';
import {
  airRiseK,
  assignPlugs,
  type Cables,
  CARD_PEAKS,
  EFFICIENCY,
  type Heads,
  peaks,
  shortOf,
  twoHeads,
  wallDrawW,
  worstPeak,
} from '../src/chain';
import type { CardSpec, DockSpec, Settings } from '../src/parts';
import { adjustmentsFor, applyAdjust, bodyFacts, type Finding, rankFixes } from '../src/plan';
import { sentence } from '../src/plan/text';
import { card, judge, supply, tunnelChain } from './make';
import { whole } from './provoked';

const facts = (c: Parameters<typeof bodyFacts>[0]) => {
  const rules = new RuleBook({});
  return bodyFacts(c, { asOf: '2026-11-20' }, (id) => rules.get(id));
};
const heads = (eight: number, six: number, sixteen: number): Heads => ({
  '8-pin': eight,
  '6-pin': six,
  '16-pin': sixteen,
});
const cables = (eight: number, six: number, sixteen: number, pair8: number): Cables => ({
  ...heads(eight, six, sixteen),
  pair8,
});

/** Every way to give sockets cables, tried one after another: what the matching must equal. */
function fewestShort(wants: string[], list: string[][]): number {
  const [first, ...rest] = wants;
  if (first === undefined) return 0;
  const without = 1 + fewestShort(rest, list);
  return list.reduce(
    (best, fits, i) =>
      fits.includes(first)
        ? Math.min(best, fewestShort(rest, [...list.slice(0, i), ...list.slice(i + 1)]))
        : best,
    without,
  );
}

describe('PL-10 a card too big for the dock', () => {
  const high = { heightMm: 170 };
  const tall = (
    dock: Partial<DockSpec>,
    settings: Partial<Settings> = {},
    card: Partial<CardSpec> = high,
  ) => {
    const e = judge(whole({ card, dock: { innerHeightMm: 160, ...dock }, settings }));
    return {
      e,
      big: e.findings.find((f) => f.code === 'fit/too-big'),
      room: e.predicted.areas.find((a) => a.area === 'room'),
    };
  };

  it('goes with the lid off, or outside, where the dock allows it', () => {
    expect(tall({ beyond: 'lid-off' }).big?.certainty).toBe('certain');
    const off = tall({ beyond: 'lid-off' }, { cardSits: 'lid-off' });
    expect([off.big, off.room?.state, off.e.predicted.verdict.state]).toEqual([
      undefined,
      'good',
      'works',
    ]);
    // The caution about live parts comes with it.
    expect(off.e.findings.map((f) => f.code)).toContain('fit/open-board');
    expect(tall({ beyond: 'no' }, { cardSits: 'lid-off' }).big?.certainty).toBe('certain');
    expect(tall({ beyond: 'lid-off' }, { cardSits: 'outside' }).big?.certainty).toBe('certain');
    const long = { lengthMm: 400 };
    expect(tall({ beyond: 'outside' }, { cardSits: 'lid-off' }, long).big?.certainty).toBe(
      'certain',
    );
    expect(tall({ beyond: 'outside' }, { cardSits: 'outside' }, long).big).toBeUndefined();
  });

  it("is open where the dock's open operation is not stated", () => {
    const open = tall({ beyond: null }, { cardSits: 'lid-off' });
    expect(open.big).toMatchObject({ certainty: 'possible', hangsOn: ['dock/beyond'] });
    expect(open.room).toMatchObject({ state: 'open', open: ['dock/beyond'] });
  });

  it('has the lid off as a way out without another part', () => {
    const { e, big } = tall({ beyond: 'lid-off' });
    const chain = whole({ card: high, dock: { innerHeightMm: 160, beyond: 'lid-off' } });
    const candidates = adjustmentsFor(big as Finding, chain).map((a) => ({
      words: a.words,
      chain: applyAdjust(chain, a),
    }));
    const [first] = rankFixes(
      { chain, context: { asOf: '2026-11-20', house: {} } },
      big as Finding,
      candidates,
    );
    expect([e.predicted.verdict.state, first?.candidate.words, first?.verdict]).toEqual([
      'blocked',
      'Leave the lid of the dock off',
      'works',
    ]);
  });
});

describe('PL-11 power plugs as a multiset', () => {
  it('two heads on one cable count as one cable', () => {
    expect(shortOf(assignPlugs(heads(2, 0, 0), 0, cables(0, 0, 0, 1)))).toBe(1);
    expect(shortOf(assignPlugs(heads(2, 0, 0), 0, cables(1, 0, 0, 1)))).toBe(0);
  });

  it('two heads on one cable feed two sockets within its wires', () => {
    expect(shortOf(assignPlugs(heads(2, 0, 0), 0, cables(0, 0, 0, 1), true))).toBe(0);
    const pair = { cables8Pin: 0, cables8PinPair: 1, supplyW: 650 };
    const state = (card: Partial<CardSpec>) => {
      const found = judge(whole({ card: { plugs8Pin: 2, ...card }, dock: pair })).findings;
      return found.find((f) => f.code === 'power/plugs-short')?.certainty ?? 'fits';
    };
    // 210 W less 66 from the slot are 144 W through one cable, 225 W less 66 are 159: 150 W is the line.
    expect([state({ boardW: 210, slotW: 66 }), state({ boardW: 225, slotW: 66 })]).toEqual([
      'fits',
      'certain',
    ]);
    expect(state({ boardW: { lo: 200, hi: 230 }, slotW: 66 })).toBe('possible');
    expect(state({ boardW: 210, slotW: null })).toBe('possible');
    const limits = { slotW: 75, cableW: 150 };
    // Three sockets share 400 W: two heads carry 300 of 450.
    expect(twoHeads(card({ plugs8Pin: 3, slotW: 75 }), { lo: 300, hi: 300 }, limits)).toMatchObject(
      { worst: true, best: true },
    );
    expect(twoHeads(card({ plugs8Pin: 3, slotW: 75 }), { lo: 301, hi: 301 }, limits)).toMatchObject(
      {
        worst: false,
        best: false,
      },
    );
    expect(twoHeads(card({ plugs8Pin: 2, boardW: null }), null, limits)).toMatchObject({
      worst: false,
      best: true,
      open: ['card/boardW'],
    });
  });

  it('an older 12-pin socket takes its own cable or its adapter', () => {
    const older = { plugs8Pin: 0, plugs16Pin: 1, sockets16Are: 'older' } as const;
    const codes = (c: Partial<CardSpec>, d: Partial<DockSpec>) =>
      judge(
        whole({
          card: { ...older, adapter16Pin: 0, boardW: 250, ...c },
          dock: { supplyW: 750, cables8Pin: 2, ...d },
        }),
      )
        .findings.filter((f) => f.area === 'power')
        .map((f) => f.code);
    expect(codes({}, { cables16Pin: 1 })).toContain('power/plugs-short');
    expect(codes({}, { cables16Pin: 1, cables16Are: 'older', cable16PinW: '150' })).toEqual([]);
    expect(codes({ adapter16Pin: 2 }, { cables16Pin: 0 })).toEqual([]);
    expect(codes({ sockets16Are: 'sense' }, { cables16Pin: 1, cables16Are: 'older' })).toContain(
      'power/plugs-short',
    );
    expect(codes({ sockets16Are: 'sense' }, { cables16Pin: 1, cable16PinW: '150' })).toContain(
      'power/sense',
    );
  });

  it('a 6+2 head serves a 6-pin socket only when none else lacks', () => {
    const a = assignPlugs(heads(1, 1, 0), 0, cables(1, 1, 0, 0));
    expect(a.map((x) => [x.want, x.by])).toEqual([
      ['8-pin', '8-pin cable 1'],
      ['6-pin', '6-pin cable 1'],
    ]);
    expect(shortOf(assignPlugs(heads(1, 0, 0), 0, cables(0, 1, 0, 0)))).toBe(1);
  });

  it('a 16-pin socket takes its cable, or its adapter with enough 8-pins', () => {
    expect(shortOf(assignPlugs(heads(0, 0, 1), 3, cables(2, 0, 1, 0)))).toBe(0);
    expect(shortOf(assignPlugs(heads(0, 0, 1), 3, cables(3, 0, 0, 0)))).toBe(0);
    expect(shortOf(assignPlugs(heads(0, 0, 1), 3, cables(2, 0, 0, 0)))).toBe(1);
    expect(shortOf(assignPlugs(heads(0, 0, 1), 0, cables(3, 0, 0, 0)))).toBe(1);
  });

  it('equals trying every way, for any plugs and cables', () => {
    const n = fc.integer({ min: 0, max: 3 });
    fc.assert(
      fc.property(n, n, n, n, n, fc.integer({ min: 0, max: 2 }), (w8, w6, c8, c6, c16, pair) => {
        const wants = [
          ...Array<string>(w8).fill('8'),
          ...Array<string>(w6).fill('6'),
          ...Array<string>(1).fill('16'),
        ];
        const list = [
          ...Array.from({ length: c8 + pair }, () => ['8', '6']),
          ...Array.from({ length: c6 }, () => ['6']),
          ...Array.from({ length: c16 }, () => ['16']),
        ];
        const got = assignPlugs(heads(w8, w6, 1), 0, cables(c8, c6, c16, pair));
        expect(shortOf(got)).toBe(fewestShort(wants, list));
        const used = got.flatMap((a) => (a.by ? [a.by] : []));
        expect(new Set(used).size).toBe(used.length);
      }),
      { numRuns: 300 },
    );
  });

  it('one plug short blocks by plugs, whatever watts are left', () => {
    const e = judge(whole({ card: { plugs8Pin: 3, boardW: 285 }, dock: { supplyW: 850 } }));
    const stops = e.findings.filter((f) => f.severity === 'blocks');
    expect(stops.map((f) => f.code)).toEqual(['power/plugs-short']);
    expect(sentence(stops[0]!)).toMatchObject({ what: '1 plug short' });
    expect(sentence(stops[0]!).why).toContain('The card wants 3');
    expect(sentence(stops[0]!).why).toContain('Watts would do: ');
  });
});

describe('PL-11 load, wall and peaks', () => {
  it('load is board power, charge over 0.92, hub and dock', () => {
    const f = facts(whole({ card: { boardW: 200 }, settings: { overclockPercent: 10 } })).power
      .feeders[0]!;
    expect(f.load?.lo).toBeCloseTo(200 * 1.1 + 87 / 0.92 + 10, 6);
  });

  it("a dock's own supply feeds it, whatever else stands beside", () => {
    const c = whole({ supplies: [{ key: 'a', feeds: 'both', spec: supply({ supplyW: 850 }) }] });
    const [own, beside] = facts(c).power.feeders;
    expect([own?.feedsCard, own?.feedsDock, beside?.feedsCard, beside?.feedsDock]).toEqual([
      false,
      true,
      true,
      false,
    ]);
    // Slot 60 W (stated) and the dock with its charging from its own; the rest of the board from the other.
    expect(own?.load?.lo).toBeCloseTo(60 + 87 / 0.92 + 10, 6);
    expect(beside?.load).toEqual({ lo: 140, hi: 140 });
  });

  it("the host's own charger takes the charge off the supply", () => {
    expect(facts(whole({ settings: { ownCharger: 'yes' } })).power.feeders[0]?.load).toEqual({
      lo: 210,
      hi: 210,
    });
    const e = judge(whole({ host: { drawW: 95 }, settings: { ownCharger: 'yes' } }));
    expect(e.predicted.budgets.map((b) => b.area)).not.toContain('charging');
    expect(e.predicted.body.charging).toMatchObject({ by: 'charger', net: null });
  });

  // From memory of the 80 PLUS tables, 115 V internal and 230 V: least efficiency at 20, 50 and 100 %.
  it.each([
    [115, 'bronze', 0.5, 0.85],
    [115, 'gold', 0.2, 0.87],
    [115, 'titanium', 1, 0.9],
    [230, 'gold', 0.5, 0.92],
    [230, 'platinum', 1, 0.9],
    [230, 'titanium', 0.5, 0.96],
  ] as const)('%i V %s at %f of the rating: %f', (mains, mark, share, efficiency) => {
    expect(wallDrawW(share * 600, 600, mark, mains)).toBeCloseTo((share * 600) / efficiency, 6);
  });

  it('efficiency is interpolated between points; losses stay below 20 %', () => {
    const lost = 120 / 0.9 - 120;
    expect(wallDrawW(30, 600, 'gold', 230)).toBeCloseTo(30 + lost, 6);
    expect(wallDrawW(210, 600, 'gold', 230)).toBeCloseTo(210 / 0.91, 6);
    expect(wallDrawW(88, 200, 'brick', 230)).toBeCloseTo(100, 6);
  });

  it('more load never draws less, for every mark', () => {
    fc.assert(
      fc.property(
        fc.constantFrom(115, 230 as const),
        fc.constantFrom(...(Object.keys(EFFICIENCY[115]) as (keyof (typeof EFFICIENCY)[115])[])),
        fc.double({ min: 0, max: 650, noNaN: true }),
        fc.double({ min: 0, max: 50, noNaN: true }),
        (mains, mark, w, more) => {
          expect(wallDrawW(w + more, 600, mark, mains)).toBeGreaterThanOrEqual(
            wallDrawW(w, 600, mark, mains) - 1e-9,
          );
        },
      ),
    );
  });

  it('peaks use the ceiling for 16-pin, start values for 8-pin', () => {
    const w = (n: number) => ({ lo: n, hi: n });
    const older = supply({ supplyStandard: 'older', supplyW: 500 });
    const list = peaks(card({ plugs16Pin: 1 }), w(300), w(20), older, w(500));
    expect(list.map((p) => p.need.lo)).toEqual(CARD_PEAKS.ceiling.map((k) => 300 * k + 20));
    expect(worstPeak(list)).toMatchObject({ us: 100, need: { lo: 920 }, have: { lo: 650 } });
    const atx3 = peaks(
      card({ plugs8Pin: 2 }),
      w(300),
      w(20),
      supply({ supplyStandard: 'atx3', supplyW: 500 }),
      w(500),
    );
    expect(atx3.every((p) => p.need.hi <= p.have.lo)).toBe(true);
    // ATX 3.x asks for it above 450 W only.
    expect(
      peaks(card({ plugs8Pin: 2 }), w(300), w(20), supply({ supplyStandard: 'atx3' }), w(450))[0]
        ?.have.lo,
    ).toBeCloseTo(585);
  });
});

describe('PL-12 charging', () => {
  const net = (over: Parameters<typeof whole>[0]) => facts(whole(over)).charging;

  it('an 87 W dock charges a 70 W host, with 87 W', () => {
    const c = net({ host: { drawW: 70 } });
    expect(c).toMatchObject({
      contract: { lo: 87, hi: 87 },
      net: { lo: 17, hi: 17 },
      least: 'dock',
      hours: null,
    });
    expect(judge(whole({ host: { drawW: 70 } })).findings.map((f) => f.code)).not.toContain(
      'charging/drains',
    );
  });

  it('a 60 W cable drains the same host within 6 h', () => {
    const over = { host: { drawW: 70 }, cable: { markedW: 60 } };
    expect(net(over)).toMatchObject({
      contract: { lo: 60, hi: 60 },
      least: 'cable',
      hours: { lo: 6, hi: 6 },
    });
    const f = judge(whole(over)).findings.find((x) => x.code === 'charging/drains')!;
    expect(sentence(f).why).toBe(
      'Charges with 60 W while the host takes 70 W: empty after 6 h. The cable sets it.',
    );
  });

  it('an unmarked cable carries 60 W at least, so it may drain', () => {
    const over = { host: { drawW: 70 }, cable: { markedW: null } };
    expect(net(over)).toMatchObject({ contract: { lo: 60, hi: 87 } });
    const f = judge(whole(over)).findings.find((x) => x.code === 'charging/drains');
    expect(f).toMatchObject({ certainty: 'possible', hangsOn: ['path/a/markedW'] });
  });

  it('the host draws its need and refuses below its minimum', () => {
    expect(net({ socket: { chargeInW: 65 } })).toMatchObject({
      contract: { lo: 65, hi: 65 },
      least: 'host',
    });
    expect(net({ host: { chargeMinW: 100 } })).toMatchObject({
      refused: true,
      contract: { lo: 0, hi: 0 },
    });
  });

  it('a range of draws gives a range of hours, maybe open', () => {
    const c = net({ host: { drawW: { lo: 80, hi: 107 } } });
    expect(c.net).toEqual({ lo: -20, hi: 7 });
    expect(c.hours).toEqual({ lo: 3, hi: Infinity });
  });

  it('a direct link charges nothing, a second USB-C cable does', () => {
    const direct = tunnelChain({ host: { batteryWh: 60, drawW: 50 }, dock: { chargeOutW: 65 } });
    const host = {
      ...direct.host!,
      sockets: [
        { ...direct.host!.sockets[0]!, connector: 'oculink-4i' as const },
        { ...direct.host!.sockets[0]!, key: 'b', chargeInW: 60 },
      ],
    };
    const c = { ...direct, host };
    expect(facts(c).charging).toMatchObject({ by: null, contract: { lo: 0, hi: 0 } });
    const led = facts({ ...c, settings: { ...c.settings, chargeLead: 'yes' as const } }).charging;
    expect(led).toMatchObject({ by: 'own-lead', contract: { lo: 60, hi: 60 }, least: 'host' });
  });
});

describe('PL-10 fit and PL-13 cooling', () => {
  it('the bend of a straight 16-pin plug adds 35 mm', () => {
    const row = (over: object) =>
      facts(whole({ card: { plugs8Pin: 0, plugs16Pin: 1, ...over } })).fit?.rows.find(
        (r) => r.what === 'bend',
      );
    expect(row({ heightMm: 120 })?.need).toEqual({ lo: 155, hi: 155 });
    expect(row({ plugSide: 'end' })?.need).toEqual({ lo: 285, hi: 285 });
    expect(row({ plugAngled: 'yes' })).toBeUndefined();
  });

  it('an open board has no walls', () => {
    expect(
      facts(whole({ dock: { form: 'open-board' }, card: { lengthMm: 400 } })).fit?.rows.map(
        (r) => r.what,
      ),
    ).toEqual(['weight']);
  });

  // Heat balance with air at 20 °C: 1.2 kg/m³, 1005 J/(kg K); 1 CFM = 0.000471947 m³/s (exact by the international foot).
  it('air rises 1.76 K for each W through a CFM', () => {
    expect(airRiseK(1, 1)).toBeCloseTo(1.757, 3);
    expect(airRiseK(200, 35)).toBeCloseTo(10.04, 2);
  });

  it('a blower leaves a fifth of the heat in the box', () => {
    const rise = (cooler: 'blower' | 'open-air') =>
      facts(whole({ card: { cooler } })).cooling?.riseK?.lo ?? 0;
    expect(rise('blower') / rise('open-air')).toBeCloseTo(0.2, 6);
  });
});
