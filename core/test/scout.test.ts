import { describe, expect, it } from 'vitest';
import { matchOf, NO_EVIDENCE, NO_TALLY } from '../src/log';
import { CHECKS, evaluate, FINDING_CODES } from '../src/plan';
import { cheapestEqual, collapsed, Ranking, reasonsOf, Views, type ScoutInput } from '../src/scout';
import { GROUPS } from '../src/scout/partials';
import { catalogue, drawing, unlimited } from './scout-catalogue';

const clock = () => 0;
const ranked = (i: ScoutInput) => {
  const r = new Ranking(i);
  expect(r.step(Infinity, clock)).toBe(true);
  return r;
};

describe('partial judgements', () => {
  it('hold every check that can turn a verdict', () => {
    const turning = CHECKS.filter((c) => c.codes.some((code) => FINDING_CODES[code].severity !== 'note')).map((c) => c.id);
    const grouped = new Set<string>(Object.values(GROUPS).flat());
    expect(turning.filter((id) => !grouped.has(id))).toEqual([]);
  });

  it('agree with evaluate exactly on 1,000 sampled combinations, in verdict, rate and frames', () => {
    let [states, wrong] = [new Map<string, number>(), 0];
    for (const seed of [1, 2, 3, 4, 5]) {
      const input = catalogue(seed, { docks: 14, cards: 18, cables: 6 });
      const ranking = ranked(input);
      const draw = drawing(seed + 100);
      for (let i = 0; i < 200;) {
        const combo = {
          ...{ route: draw.whole(0, input.routes.length - 1), dock: draw.whole(0, input.docks.length - 1) },
          ...{ card: draw.whole(0, input.cards.length - 1), screen: draw.whole(0, 1), supply: -1 },
        };
        if (input.docks[combo.dock]?.spec.supply === 'separate') combo.supply = draw.whole(0, 2);
        i += 1;
        const own = ranking.at(ranking.indexAt(combo));
        const chain = ranking.chainAt(combo);
        const key = matchOf(chain).key;
        const tally = input.seen.find((s) => s.key === key)?.tally;
        const evidence = tally && { ...NO_EVIDENCE, exact: tally };
        const e = evaluate({ chain, context: { ...input.context, frames: input.frames, ...(evidence && { evidence }) } });
        const usable = e.predicted.link.usable?.down;
        const same =
          own.state === e.predicted.verdict.state &&
          own.usable?.lo === usable?.lo &&
          own.usable?.hi === usable?.hi &&
          e.predicted.forecasts.every((f, k) => own.fps[k] === ('missing' in f ? null : f.fps.mid));
        if (!same) wrong += 1;
        states = states.set(own.state, (states.get(own.state) ?? 0) + 1);
      }
    }
    expect(wrong).toBe(0);
    // A sample of one kind would prove little.
    expect([...states.keys()].sort()).toEqual(['blocked', 'care', 'unknown', 'works']);
  });
});

describe('search', () => {
  const input = catalogue(11, { docks: 8, cards: 12, cables: 4 });

  /** Every combination, one by one. */
  function everything(r: Ranking) {
    const { routes, docks, cards, screens, supplies } = r.input;
    const all = [];
    for (const [route] of routes.entries())
      for (let dock = 0; dock <= docks.length; dock++)
        for (const [card] of cards.entries())
          for (const [screen] of screens.entries())
            for (let supply = -1; supply < supplies.length; supply++) {
              const spec = docks[dock]?.spec ?? null;
              const wants = spec === null || spec.supply === 'separate';
              if (wants !== supply >= 0) continue;
              const chain = r.chainAt({ route, dock, card, screen, supply });
              const direct = chain.path?.at(-1)?.spec;
              const slot = direct !== undefined && 'farEnd' in direct && direct.farEnd === 'pcie-slot';
              const e = evaluate({ chain, context: r.input.context });
              if ((spec === null) !== slot || e.findings.some((f) => f.code === 'link/plug-mismatch')) continue;
              all.push(r.at(r.indexAt({ route, dock, card, screen, supply })));
            }
    return all;
  }

  it('keeps, counts, orders and leaves out what a plain walk over every combination does', () => {
    const r = ranked({ ...input, seen: [] });
    const all = everything(r);
    expect(all.length).toBe(r.total);
    const kept = all.filter((x) => x.fails.length === 0);
    expect(r.done - r.left.total()).toBe(kept.length);
    for (const [k, front] of r.fronts.entries()) {
      const able = kept.filter((x) => (x.fps[k] ?? 0) > 0);
      const plain = able.filter((x) => !able.some((y) => dominates(y, x, k)));
      const prices = new Map(plain.map((x) => [x.minor, x.fps[k]]));
      expect(front.points().map((p) => [p.minor, p.fps])).toEqual([...prices].sort((a, b) => a[0] - b[0]));
    }
    for (const row of r.left.rows()) {
      expect(row.n).toBe(all.filter((x) => x.fails.includes(row.reason)).length);
      expect(row.alone).toBe(all.filter((x) => x.fails.length === 1 && x.fails[0] === row.reason).length);
      const fewest = Math.min(...all.filter((x) => x.fails.includes(row.reason)).map((x) => x.fails.length));
      expect(row.nearest?.n).toBe(fewest);
    }
    const pairs = new Set(kept.map((x) => `${x.dock} ${x.card}`));
    expect(r.best.list().length).toBe(Math.min(200, pairs.size));
  });

  it('the nearest miss of the money is the cheapest that fails nothing else', () => {
    const r = ranked({ ...input, limits: { ...input.limits, budgetMinor: 3000, targetFps: null } });
    const over = everything(r).filter((x) => x.fails.length === 1 && x.fails[0] === 'budget');
    const miss = r.left.nearest((f) => reasonsOf(f).join() === 'budget');
    expect(r.at(miss?.index ?? 0).minor).toBe(Math.min(...over.map((x) => x.minor)));
  });

  it('stops between steps, goes on where it was, and other limits use what is known', () => {
    const whole = ranked(input);
    const slow = new Ranking(input);
    let steps = 0;
    while (!slow.step(0, () => 1)) steps += 1;
    expect(steps).toBeGreaterThan(10);
    expect(slow.fronts[0]?.points()).toEqual(whole.fronts[0]?.points());
    const tight = { ...input, limits: { ...input.limits, budgetMinor: 40_000 } };
    const again = new Ranking(tight, whole);
    again.step(Infinity, clock);
    expect(again.parts).toBe(whole.parts);
    expect(again.fronts[0]?.points()).toEqual(ranked(tight).fronts[0]?.points());
  });

  it('says a contradiction: predicted to work, seen to fail', () => {
    const open = unlimited(input);
    const plain = ranked({ ...open, seen: [] });
    const best = plain.best.list()[0]?.index ?? 0;
    const key = matchOf(plain.chainAt(plain.comboAt(best))).key ?? '';
    const seen = [{ key, tally: { ...NO_TALLY, n: 5, works: 1, fails: 4 } }];
    const r = ranked({ ...open, seen });
    const views = new Views(r);
    const hit = r.at(best);
    expect(hit.contradicted).toEqual({ failed: 4, n: 5 });
    expect(hit.grade).toBe('here');
    expect(views.of(best).because[0]).toBe('log/contradiction');
    // And only what worked passes where proof is asked for.
    const proven = ranked({ ...open, seen, limits: { ...open.limits, proven: true } });
    expect(proven.at(best).fails).toContain('unproven');
  });

  it('an all-in-one goes only with the card it is sold with, for the price of the box', () => {
    const [d] = input.docks;
    const solid = { ...(d as (typeof input.docks)[number]), spec: { ...d!.spec, form: 'all-in-one' as const }, owned: false };
    const r = ranked({ ...input, docks: [solid], boxes: [{ dockId: 'd0', cardId: 'c3', minor: 5000 }] });
    const fails = (card: number) =>
      r.at(r.indexAt({ route: 0, dock: 0, card, screen: 0, supply: -1 })).fails.includes('soldered');
    expect([fails(3), fails(4)]).toEqual([false, true]);
  });

  it('finds the cheapest card that is as fast within a share, by a plain walk', () => {
    const r = ranked({ ...input, limits: { ...input.limits, budgetMinor: null, targetFps: null } });
    const views = new Views(r);
    const chosen = everything(r)
      .filter((x) => x.fails.length === 0)
      .sort((a, b) => (b.fps[0] ?? 0) - (a.fps[0] ?? 0))[0];
    if (!chosen) throw new Error('nothing fits');
    const [equal] = cheapestEqual(r, views, chosen, 30);
    const same = everything(r).filter(
      (x) => ['route', 'dock', 'screen', 'supply'].every((k) => x[k as 'route'] === chosen[k as 'route']) && x.fails.length === 0,
    );
    const least = Math.min(...same.filter((x) => (x.fps[0] ?? 0) >= (chosen.fps[0] ?? 0) * 0.7).map((x) => x.minor));
    expect(equal?.row.minor ?? chosen.minor).toBe(least);
  });

  it('parts with the same facts stand for each other, the cheapest first; what is known by name does not', () => {
    const [a] = input.cards;
    if (!a) throw new Error('no card');
    const twin = (id: string, minor: number | null) => ({ ...a, id, name: id, minor, owned: false });
    const list = [twin('x', 900), twin('y', 700), twin('z', null)];
    expect(collapsed(list, () => false)).toEqual([{ ...twin('y', 700), alike: ['x', 'z'] }]);
    expect(collapsed(list, (c) => c.id === 'x').map((c) => c.id)).toEqual(['x', 'y']);
  });
});

interface Point {
  minor: number;
  fps: readonly (number | null)[];
}
function dominates(y: Point, x: Point, k: number): boolean {
  const [a, b] = [y.fps[k] ?? 0, x.fps[k] ?? 0];
  return y.minor <= x.minor && a >= b && (y.minor < x.minor || a > b);
}
