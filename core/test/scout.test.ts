import { describe, expect, it } from 'vitest';
import { NO_EVIDENCE } from '../src/log';
import { matchOf } from '../src/log';
import { CHECKS, evaluate, FINDING_CODES } from '../src/plan';
import { Ranking, type ScoutInput } from '../src/scout';
import { GROUPS } from '../src/scout/partials';
import { catalogue, drawing } from './scout-catalogue';

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
      for (let i = 0; i < 200; ) {
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
