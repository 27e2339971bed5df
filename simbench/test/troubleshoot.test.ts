import { beforeAll, describe, expect, it } from 'vitest';
import { bestPath, type FaultId, FAULTS, faultsOf } from '@ruddy/core/bench';
import { advise, netFor, type TroubleNote, troubleState } from '@ruddy/core/troubleshoot';
import { EMPTY, judge } from '../../core/test/make';
import {
  benchAnswer,
  injectFault,
  PRACTICE_CASES,
  PRACTICE_CHAINS,
  inspect,
  type InjectedFault,
} from '../src';
import { readByProbe } from './benches';
import { benchOnly, riddle, SHOWN, solve, studyOf, type Solved } from './study';
import { LONG, scaled } from '../../scripts/lib/test-scale.mjs';

// Seeds that no figure of the net was looked at with; the net was made with seeds 1 to 500.
const FIRST = 100_001;
const N = scaled(60);
const BENCH = scaled(40);

describe('TR-02 hidden faults on unseen seeds', () => {
  let all: Solved[] = [];
  let bench: Solved[] = [];
  beforeAll(() => {
    all = Array.from({ length: N }, (_, i) => solve(riddle(FIRST + i)));
    bench = Array.from({ length: BENCH }, (_, i) => solve(benchOnly(FIRST + i)));
  });

  it('the cause is in the first three after three tests', () => {
    const s = studyOf(all);
    console.info(
      `all: ${N} faults, among three ${s.amongThree.toFixed(3)}, first ${s.first.toFixed(3)}, right at the end ${s.right.toFixed(3)}, median ${s.medianTests} tests`,
    );
    expect(s.amongThree).toBeGreaterThanOrEqual(LONG ? 0.85 : 0.78);
    expect(s.right).toBeGreaterThanOrEqual(LONG ? 0.8 : 0.72);
  });

  it('on the bench alone, answered by what the bench shows', () => {
    const s = studyOf(bench);
    console.info(
      `bench: ${BENCH} faults, among three ${s.amongThree.toFixed(3)}, first ${s.first.toFixed(3)}, right at the end ${s.right.toFixed(3)}, median ${s.medianTests} tests`,
    );
    expect(s.amongThree).toBeGreaterThanOrEqual(LONG ? 0.88 : 0.8);
    expect(new Set(bench.map((b) => b.riddle.fault)).size).toBeGreaterThanOrEqual(LONG ? 20 : 15);
  });
});

const tunnel = SHOWN['usb4 40']!;
const hidden = (faults: InjectedFault['faults'], chain = tunnel): InjectedFault => ({
  chain,
  evaluation: judge(chain),
  seed: 41,
  faults,
  order: 'all-off',
  read: readByProbe,
});

describe('two faults at once', () => {
  it('after a partial fix the search finds the second', () => {
    let faults: InjectedFault['faults'] = { 'cable-half-rate': 1, 'supply-sag': 1 };
    const notes: TroubleNote[] = [];
    const found: string[] = [];
    for (let round = 0; round < 2; round++) {
      const bench = hidden(faults);
      const first = inspect(bench);
      notes.push({ what: 'seen', symptoms: first.symptoms.slice(0, 2) });
      for (let i = 0; i < 10; i++) {
        const s = troubleState(notes);
        const a = advise(netFor(tunnel), s.clues, s.refused);
        if (a.now !== 'test') {
          found.push(a.top.cause);
          notes.push({
            what: 'fix',
            cause: a.top.cause,
            result: round === 0 ? 'better' : 'solved',
            words: '',
          });
          faults = Object.fromEntries(
            Object.entries(faults).filter(([f]) => FAULTS[f as FaultId].cause !== a.top.cause),
          );
          break;
        }
        const test = a.offers[0]!.test;
        notes.push({
          what: 'test',
          test,
          says: benchAnswer(bench, first, first.symptoms.slice(0, 2), test),
          by: 'hand',
          words: '',
        });
      }
    }
    expect([...found].sort()).toEqual(['cable-class', 'supply']);
    expect(inspect(hidden(faults)).symptoms).toEqual([]);
  });
});

describe('BE-05 practice', () => {
  it.each(Object.keys(SHOWN))('a sound bench of %s shows nothing to complain of', (name) => {
    expect(inspect(hidden({}, SHOWN[name])).symptoms).toEqual([]);
  });

  it('looks come from the bench: another fault answers otherwise', () => {
    const half = hidden({ 'cable-half-rate': 1 });
    const clamp = hidden({ 'driver-clamp': 1 });
    const at = (b: InjectedFault, t: Parameters<typeof benchAnswer>[3]) =>
      benchAnswer(b, inspect(b), ['low-copy'], t);
    expect([at(half, 'router-speed'), at(clamp, 'router-speed')]).toEqual(['yes', 'no']);
    expect([at(half, 'span-loaded'), at(clamp, 'span-loaded')]).toEqual(['no', 'yes']);
    expect([at(half, 'short-cable'), at(clamp, 'short-cable')]).toEqual(['yes', 'no']);
    expect([at(half, 'override-rate'), at(clamp, 'override-rate')]).toEqual(['no', 'yes']);
    expect(at(half, 'textures-down')).toBe('cannot');
  });

  it('another host, another card and a desktop tell whose fault it is', () => {
    const bad = hidden({ 'card-defective': 0.3 });
    const first = inspect(bad);
    const at = (t: Parameters<typeof benchAnswer>[3]) => benchAnswer(bad, first, first.symptoms, t);
    expect([at('other-host'), at('other-card'), at('desktop-slot')]).toEqual(['yes', 'yes', 'yes']);
    const port = hidden({ 'approval-kept-out': 1 });
    expect(benchAnswer(port, inspect(port), ['router-no-card'], 'other-host')).toBe('no');
  });

  it('every case shows its symptom, its best path finds it', () => {
    for (const c of PRACTICE_CASES) {
      const bench: InjectedFault = { ...c, evaluation: judge(c.chain), read: readByProbe };
      const first = inspect(bench);
      const complaint = [...(c.complaint ?? first.symptoms)].slice(0, 2);
      expect([
        c.no,
        complaint.every((s) => first.symptoms.includes(s)),
        complaint.length > 0,
      ]).toEqual([c.no, true, true]);
      const best = bestPath(netFor(c.chain), complaint, (t) =>
        benchAnswer(bench, first, complaint, t),
      );
      expect([c.no, Object.keys(c.faults).map((f) => FAULTS[f as FaultId].cause)]).toEqual([
        c.no,
        [best.says],
      ]);
    }
  });

  it('the same seed hides the same possible, visible fault', () => {
    for (const chain of PRACTICE_CHAINS)
      for (const seed of [7, 8]) {
        const bench = { chain, evaluation: judge(chain), read: readByProbe };
        const a = injectFault(bench, seed, false);
        const b = injectFault(bench, seed, false);
        expect(a?.hidden.faults).toEqual(b?.hidden.faults);
        for (const f of Object.keys(a?.hidden.faults ?? {})) expect(faultsOf(chain)).toContain(f);
        expect(a?.first.symptoms.length).toBeGreaterThan(0);
        expect(Object.keys(injectFault(bench, seed, true)?.hidden.faults ?? {})).toHaveLength(2);
      }
  });

  it('a chain with nothing in it can hide nothing', () => {
    expect(
      injectFault({ chain: EMPTY, evaluation: judge(EMPTY), read: readByProbe }, 3, false),
    ).toBeNull();
  });
});
