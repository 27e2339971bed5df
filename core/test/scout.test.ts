import { describe, expect, it } from 'vitest';
import { cheapestEqual, collapsed, Ranking, reasonsOf, type ScoutInput, Views } from '../src/buy';
import { isAdapter } from '../src/chain';
import { matchOf } from '../src/compatibility';
import type { CardSpec, DockSpec, HostSpec, PieceSpec, SupplySpec } from '../src/parts';
import {
  CHECKS,
  evaluate,
  type Evaluation,
  type Kinds,
  NO_EVIDENCE,
  NO_TALLY,
  rigOfEvaluation,
} from '../src/plan';
import { type FrameForecast, frameForecastOf } from '../src/runs';
import { directChain, supply } from './make';
import { catalogue, drawing, unlimited } from './scout-catalogue';
import { scaled } from '../../scripts/lib/test-scale.mjs';

const clock = () => 0;
/** A median over few particles lies near that over all; nothing where nothing can be said. */
const near = (fps: number | null | undefined, f: FrameForecast | null) =>
  f === null ? fps === null : Math.abs((fps ?? 0) / f.fps.mid - 1) < 0.2;
/** Areas that are open; of a chain that is stopped nobody asks how much else is not known. */
const openOf = (e: Evaluation) => e.predicted.coverage.of - e.predicted.coverage.known;
const ranked = (i: ScoutInput) => {
  const r = new Ranking(i);
  expect(r.step(Infinity, clock)).toBe(true);
  return r;
};

describe('partial judgements', () => {
  it('hold every check that can turn a verdict, and no other', () => {
    for (const check of CHECKS) {
      const kinds: Kinds = check.findings;
      const turns = Object.values(kinds).some((k) => k.severity !== 'note');
      expect([check.id, check.searchGroup !== 'none']).toEqual([check.id, turns]);
    }
  });

  it('agree with evaluate on sampled combinations in verdict, rate and frames', () => {
    let states = new Map<string, number>();
    let wrong = 0;
    for (const seed of [1, 2, 3, 4, 5]) {
      const input = catalogue(seed, { docks: 14, cards: 18, cables: 6 });
      const ranking = ranked(input);
      const draw = drawing(seed + 100);
      for (let i = 0; i < scaled(100);) {
        const combo = {
          route: draw.whole(0, input.routes.length - 1),
          dock: draw.whole(0, input.docks.length - 1),
          card: draw.whole(0, input.cards.length - 1),
          screen: draw.whole(0, 1),
          supply: -1,
        };
        if (input.docks[combo.dock]?.spec.supply === 'separate') combo.supply = draw.whole(0, 2);
        i += 1;
        const own = ranking.at(ranking.indexAt(combo));
        const chain = ranking.chainAt(combo);
        const key = matchOf(chain).key;
        const tally = input.seen.find((s) => s.key === key)?.tally;
        const evidence = tally && { ...NO_EVIDENCE, exact: tally };
        const e = evaluate({ chain, context: { ...input.context, ...(evidence && { evidence }) } });
        const usable = e.predicted.link.usable?.down;
        const same =
          own.state === e.predicted.verdict.state &&
          (own.state === 'blocked' || own.open === openOf(e)) &&
          own.usable?.lo === usable?.lo &&
          own.usable?.hi === usable?.hi &&
          input.frames.every((ask, k) =>
            near(own.fps[k], frameForecastOf(rigOfEvaluation(chain, e), ask, true)),
          );
        if (!same) wrong += 1;
        states = states.set(own.state, (states.get(own.state) ?? 0) + 1);
      }
    }
    expect(wrong).toBe(0);
    // A sample of one kind would prove little.
    expect([...states.keys()].sort()).toEqual(['blocked', 'care', 'unknown', 'works']);
  });
});

/** A catalogue with more supplies than any table of places by hundreds could tell apart, every attribute of theirs varied. */
function supplied(seed: number, n: number): ScoutInput {
  const input = catalogue(seed, { docks: 60, cards: 12, cables: 3 });
  const d = drawing(seed + 7);
  const supplies = Array.from({ length: n }, (_, i) => {
    const known = {
      supplyW: 300 + 5 * i,
      supplyStandard: d.from('atx3', 'older', null),
      form: d.from('atx', 'sfx', 'flex', 'brick'),
    };
    const cables = {
      cables8Pin: d.from(0, 1, 2, 3, null),
      cables8PinPair: d.from(0, 1),
      cables6Pin: d.from(0, 1, null),
    };
    const wide = {
      cables16Pin: d.from(0, 1, null),
      cable16PinW: d.from('150', '300', '600', null),
      condition: d.from('new', 'used', null),
    };
    const efficiency = d.from('gold', 'white', null);
    const spec = supply({
      model: `S-${i}`,
      ...known,
      ...cables,
      ...wide,
      efficiency,
    } as Partial<SupplySpec>);
    return {
      id: `s${i}`,
      name: `s${i}`,
      spec,
      minor: 4000 + i,
      owned: false,
      resaleMinor: null,
      alike: [],
    };
  });
  return { ...input, supplies };
}

describe('many supplies', () => {
  it('150 supplies with 60 docks are judged as evaluate judges', () => {
    const input = supplied(21, 150);
    const ranking = new Ranking(input);
    const takes = input.docks.flatMap((x, i) => (x.spec.supply === 'separate' ? [i] : []));
    expect(takes.length).toBeGreaterThan(15);
    const draw = drawing(5);
    const wrong: string[] = [];
    const states = new Set<string>();
    for (let i = 0; i < scaled(300); i++) {
      const dock = takes[i % takes.length] as number;
      const combo = {
        route: draw.whole(0, input.routes.length - 1),
        dock,
        card: draw.whole(0, 11),
        screen: 0,
        supply: i % 150,
      };
      const own = ranking.at(ranking.indexAt(combo));
      const e = evaluate({ chain: ranking.chainAt(combo), context: input.context });
      states.add(own.state);
      if (
        own.contradicted === null &&
        (own.state !== e.predicted.verdict.state ||
          (own.state !== 'blocked' && own.open !== openOf(e)))
      )
        wrong.push(JSON.stringify(combo));
    }
    expect(wrong).toEqual([]);
    expect(states.size).toBeGreaterThan(2);
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
              const slot =
                direct !== undefined && 'farEnd' in direct && direct.farEnd === 'pcie-slot';
              const e = evaluate({ chain, context: r.input.context });
              const apart = e.findings.some(
                (f) =>
                  f.code === 'link/plug-mismatch' ||
                  (f.code === 'cable/missing' && f.certainty === 'certain'),
              );
              const spare =
                spec?.fixedLead === 'yes' && chain.path?.some((p) => !isAdapter(p.spec));
              if ((spec === null) !== slot || apart || spare) continue;
              all.push(r.at(r.indexAt({ route, dock, card, screen, supply })));
            }
    return all;
  }

  it('keeps, counts and orders as a plain walk does', () => {
    const r = ranked({ ...input, seen: [] });
    const all = everything(r);
    expect(all.length).toBe(r.total);
    const kept = all.filter((x) => x.fails.length === 0);
    expect(r.done - r.left.total()).toBe(kept.length);
    for (const [k, front] of r.fronts.entries()) {
      const able = kept.filter((x) => (x.fps[k] ?? 0) > 0);
      const plain = able.filter((x) => !able.some((y) => dominates(y, x, k)));
      const prices = new Map(plain.map((x) => [x.minor, x.fps[k]]));
      expect(front.points().map((p) => [p.minor, p.fps])).toEqual(
        [...prices].sort((a, b) => a[0] - b[0]),
      );
    }
    for (const row of r.left.rows()) {
      expect(row.n).toBe(all.filter((x) => x.fails.includes(row.reason)).length);
      expect(row.alone).toBe(
        all.filter((x) => x.fails.length === 1 && x.fails[0] === row.reason).length,
      );
      const fewest = Math.min(
        ...all.filter((x) => x.fails.includes(row.reason)).map((x) => x.fails.length),
      );
      expect(row.nearest?.n).toBe(fewest);
    }
    const pairs = new Set(kept.map((x) => `${x.dock} ${x.card}`));
    expect(r.best.list().length).toBe(Math.min(200, pairs.size));
  });

  it('the nearest miss of money fails nothing else', () => {
    const r = ranked({ ...input, limits: { ...input.limits, budgetMinor: 3000, targetFps: null } });
    const over = everything(r).filter((x) => x.fails.length === 1 && x.fails[0] === 'budget');
    const miss = r.left.nearest((f) => reasonsOf(f).join() === 'budget');
    expect(r.at(miss?.index ?? 0).minor).toBe(Math.min(...over.map((x) => x.minor)));
  });

  it('stops between steps, resumes, and reuses what is known', () => {
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
    const views = new Views(r, false);
    const hit = r.at(best);
    expect(hit.contradicted).toEqual({ failed: 4, n: 5 });
    expect(hit.grade).toBe('here');
    expect(views.of(best).because[0]).toBe('log/contradiction');
    // What was seen to fail leaves front and order, and is shown apart.
    expect(r.refuted.list().map((x) => x.index)).toContain(best);
    expect(r.fronts.flatMap((f) => f.points().map((p) => p.index))).not.toContain(best);
    expect(r.best.list().map((x) => x.index)).not.toContain(best);
    // And only what worked passes where proof is asked for.
    const proven = ranked({ ...open, seen, limits: { ...open.limits, proven: true } });
    expect(proven.at(best).fails).toContain('unproven');
  });

  it('recommends by verdict first, then by how much is known', () => {
    const r = ranked({ ...unlimited(input), seen: [] });
    const place = { works: 0, care: 1, unknown: 2, blocked: 3 };
    const rows = r.best.list().map((x) => r.at(x.index));
    const keys = rows.map((x) => place[x.state] * 100 + x.open);
    expect(new Set(keys).size).toBeGreaterThan(2);
    expect(keys).toEqual([...keys].sort((a, b) => a - b));
  });

  it('buys and prices the cable a dock needs, or names the gap', () => {
    const one = directChain();
    const piece = (id: string, spec: PieceSpec, minor: number) => ({ ...oneOf(id, spec), minor });
    const oneOf = <S>(id: string, spec: S) => ({
      id,
      name: id,
      spec,
      minor: 0,
      owned: true,
      resaleMinor: null,
      alike: [],
    });
    const board = (fixedLead: 'yes' | 'no' | null) => ({ ...(one.dock as DockSpec), fixedLead });
    const cable = piece('K-O', one.path?.[0]?.spec as PieceSpec, 2200);
    const search = (fixedLead: 'yes' | 'no' | null, pieces: (typeof cable)[]) => {
      const ways = [
        { socket: 'left', pieces: [] },
        ...pieces.map((p) => ({ socket: 'left', pieces: [{ ...p, owned: false }] })),
      ];
      const r = ranked({
        ...unlimited(input),
        base: {
          ...input.base,
          host: { ...(input.base.host as HostSpec), sockets: one.host?.sockets ?? [] },
        },
        routes: ways,
        boxes: [],
        seen: [],
        near: [],
        docks: [oneOf('B', board(fixedLead))],
        cards: [oneOf('C', { ...(one.card as CardSpec), frameIndex: 150 })],
        supplies: [],
        screens: [],
      });
      const first = r.best.list()[0];
      const row = first && new Views(r, false).of(first.index);
      return { r, best: row && [row.names.path, row.minor, ...row.buys] };
    };
    const bought = search('no', [cable]);
    expect([bought.r.total, bought.best]).toEqual([1, ['K-O', 2200, 'K-O']]);
    const none = search('no', []);
    expect([none.r.total, none.r.uncabled]).toEqual([0, ['oculink-4i']]);
    const fixed = search('yes', [cable]);
    expect([fixed.r.total, fixed.best]).toEqual([1, ['no separate cable', 0]]);
    // Not said: both ways are looked at, and the one that is known leads.
    const unsure = search(null, [cable]);
    expect([unsure.r.total, unsure.best, unsure.r.uncabled]).toEqual([2, ['K-O', 2200, 'K-O'], []]);
  });

  it('an all-in-one goes with its own card at the box price', () => {
    const [d] = input.docks;
    const solid = {
      ...(d as (typeof input.docks)[number]),
      spec: { ...d!.spec, form: 'all-in-one' as const },
      owned: false,
    };
    const r = ranked({
      ...input,
      docks: [solid],
      boxes: [{ dockId: 'd0', cardId: 'c3', minor: 5000 }],
    });
    const fails = (card: number) =>
      r
        .at(r.indexAt({ route: 0, dock: 0, card, screen: 0, supply: -1 }))
        .fails.includes('soldered');
    expect([fails(3), fails(4)]).toEqual([false, true]);
  });

  it('finds the cheapest card as fast within a share, by walk', () => {
    const r = ranked({ ...input, limits: { ...input.limits, budgetMinor: null, targetFps: null } });
    const views = new Views(r, false);
    const chosen = everything(r)
      .filter((x) => x.fails.length === 0)
      .sort((a, b) => (b.fps[0] ?? 0) - (a.fps[0] ?? 0))[0];
    if (!chosen) throw new Error('nothing fits');
    const [equal] = cheapestEqual(r, views, chosen, 30);
    const same = everything(r).filter(
      (x) =>
        ['route', 'dock', 'screen', 'supply'].every(
          (k) => x[k as 'route'] === chosen[k as 'route'],
        ) && x.fails.length === 0,
    );
    const least = Math.min(
      ...same.filter((x) => (x.fps[0] ?? 0) >= (chosen.fps[0] ?? 0) * 0.7).map((x) => x.minor),
    );
    expect(equal?.row.minor ?? chosen.minor).toBe(least);
  });

  it('equal parts stand for each other, except by name', () => {
    const [a] = input.cards;
    if (!a) throw new Error('no card');
    const twin = (id: string, minor: number | null) => ({
      ...a,
      id,
      name: id,
      minor,
      owned: false,
    });
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
  const a = y.fps[k] ?? 0;
  const b = x.fps[k] ?? 0;
  return y.minor <= x.minor && a >= b && (y.minor < x.minor || a > b);
}
