import { describe, expect, it } from 'vitest';
import { packText } from '../src/chain/text';
import { type Claim, judgeClaim, type Measurement, reliability } from '../src/compatibility';
import {
  cellWords,
  claimWords,
  evidenceWords,
  expectationWords,
  reliabilityWords,
  seenWords,
  sharesWords,
} from '../src/compatibility/text';
import { NOTHING_INSTALLED } from '../src/parts';
import { type EvidenceSummary, expectation, NO_EVIDENCE, NO_TALLY } from '../src/plan';

const seen = (works: number, fails: number) => ({ ...NO_TALLY, n: works + fails, works, fails });
const about = (e: Partial<EvidenceSummary>): EvidenceSummary => ({ ...NO_EVIDENCE, ...e });

describe('PL-18 the log in words', () => {
  it.each([
    [0, 0, 'Nothing seen of exactly this chain'],
    [1, 0, 'One entry only: it worked. It counts, but it proves little'],
    [0, 1, 'One entry only: it failed. It counts, but it proves little'],
    [0, 5, 'All 5 failed (0 to 43 %)'],
    // Of fewer than five the count alone: a share of so few says nothing.
    [4, 0, 'All 4 worked'],
    [5, 0, 'All 5 worked (57 to 100 %)'],
    [5, 1, '5 of 6 worked (44 to 97 %)'],
  ])('%i worked, %i failed', (k, f, words) => {
    expect(seenWords(seen(k, f))).toBe(words);
  });

  it('told is never one count with seen; near ones are told apart', () => {
    expect(
      evidenceWords(
        about({
          exact: seen(5, 1),
          told: { n: 2, worked: 1 },
          near: { n: 1, weight: 0.3, worked: 0 },
        }),
      ),
    ).toBe('5 of 6 worked (44 to 97 %); reported by others: 1 of 2 worked; 1 near entry.');
    expect(evidenceWords(NO_EVIDENCE)).toBe(
      'Nothing seen of exactly this chain; no near chain is logged.',
    );
  });

  it('what is expected says of what it is made', () => {
    const e = about({
      weighted: { worked: 5, failed: 1 },
      exact: seen(5, 1),
      near: { n: 9, weight: 5.2, worked: 2.6 },
    });
    expect(expectationWords(expectation(e, 4), e)).toMatch(
      /^Expected to work in 68 % of cases \(\d+ to \d+ %\); near ones alone say 50 % and weigh as 4 of 5.2 entries\.$/,
    );
    expect(expectationWords(expectation(NO_EVIDENCE, 4), NO_EVIDENCE)).toBe(
      'Nothing is known: any share from 0 to 100 % is possible.',
    );
    expect(sharesWords(['host', 'dock'])).toBe('same host, same dock or adapter');
    expect(sharesWords([])).toBe('shares nothing');
  });
});

describe('CO-11 hours in words', () => {
  it.each([
    [[], 'No hours in use noted yet.'],
    [
      [{ hours: 120, drops: 0, freezes: 0 }],
      '0 drops and freezes in 120 hours: at most 3 in that time, so at least 40 hours between two (95 %).',
    ],
    [
      [{ hours: 100, drops: 3, freezes: 1 }],
      '3 drops and 1 freeze in 100 hours: one in 25 hours (9.8 to 92).',
    ],
  ])('%#', (spans, words) => {
    expect(reliabilityWords(reliability(spans))).toBe(words);
  });
});

describe('CO-06 claims in words', () => {
  const claim: Claim = { measure: 'lost', lo: 15, hi: 25, where: [] };
  const m = (value: number, resolution: string): Measurement => ({
    value,
    on: '2026-05-01',
    tags: { resolution },
    setupId: null,
    words: '',
  });
  it('counts, where it never holds, and how little one measurement proves', () => {
    const some = judgeClaim(claim, [m(20, '1440p'), m(18, '1440p'), m(40, '1080p')]);
    expect(claimWords(claim, some)).toBe(
      'Holds (15 to 25 %) in 2 of 3 measurements; never at 1080p.',
    );
    expect(claimWords(claim, judgeClaim(claim, [m(20, '1440p')]))).toContain(
      'One measurement proves little',
    );
    expect(claimWords(claim, judgeClaim(claim, []))).toBe(
      'Nothing measured yet that it speaks of.',
    );
    const works: Claim = { measure: 'works', lo: 90, hi: null, where: [] };
    const all = Array.from({ length: 20 }, (_, i) => m(i < 5 ? 100 : 0, ''));
    expect(claimWords(works, judgeClaim(works, all))).toBe(
      '5 of 20 worked (11 to 47 %): at least 90 % does not hold.',
    );
  });
});

describe('CO-12 the question pack', () => {
  it('holds what others need and says what is not known', () => {
    const text = packText({
      parts: [{ noun: 'Host', name: 'Alder H-1' }],
      installed: { ...NOTHING_INSTALLED, driver: '41.2' },
      predicted: 'Works: every hop carries 26.0 Gb/s or more.',
      symptoms: ['No picture'],
      tried: [
        { on: '2026-11-03', what: 'Dock first, then host', ended: 'the card did not come up' },
      ],
      readings: [],
      lastGood: '',
    });
    for (const words of [
      'No picture',
      'Host: Alder H-1',
      'Card driver: 41.2',
      'not known: dock firmware',
      'nothing read yet',
      '2026-11-03',
    ])
      expect(text).toContain(words);
    expect(text).not.toMatch(/undefined|null/);
  });

  it('cells say what is predicted, or that no port fits', () => {
    expect(cellWords({ state: 'no-port', socket: null, down: null })).toContain('adapter');
    expect(cellWords({ state: 'works', socket: 'left', down: { lo: 26, hi: 26 } })).toBe(
      'Works, 26.0 Gb/s',
    );
    expect(cellWords({ state: 'blocked', socket: 'left', down: { lo: 0, hi: 0 } })).toBe(
      "Won't work",
    );
  });
});
