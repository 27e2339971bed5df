import * as fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { MeasureTrend } from '../src/bring-up';
import type { Claim, ClaimJudged, Reliability } from '../src/compatibility';
import {
  type EvidenceSummary,
  expectation,
  type Finding,
  NO_EVIDENCE,
  NO_TALLY,
} from '../src/plan';
import {
  compareRuns,
  type Elasticity,
  type FrameForecast,
  type FrameLimiter,
  type ModelAnswer,
  scoreForecasts,
} from '../src/runs';
import type { TroubleAdvice } from '../src/troubleshoot';
import * as texts from './all-text';
import { chains } from './any-chain';
import { EMPTY, judge } from './make';
import { PROVOKED } from './provoked';

/*
 * The rule for every sentence: it states a figure with its interval or its count, and the words match it. Where chance alone would show as
 * much, or "no change" lies in the interval, none is shown; of fewer than five cases the count stands without a share.
 */

type Edge = readonly [when: string, said: string, words: string | RegExp];

const seen = (works: number, fails: number) => ({ ...NO_TALLY, n: works + fails, works, fails });
const about = (e: Partial<EvidenceSummary>): EvidenceSummary => ({ ...NO_EVIDENCE, ...e });
const trend = (t: Partial<MeasureTrend>): MeasureTrend => ({
  measure: 'down',
  cable: 'K',
  n: 8,
  first: 1,
  last: 0.9,
  way: 'falls',
  per30Days: -0.02,
  p: 0.01,
  ...t,
});
const bands = (lo: number, mid: number, hi: number) => ({
  mid,
  50: { lo: (lo + mid) / 2, hi: (hi + mid) / 2 },
  80: { lo, hi },
  95: { lo: lo / 2, hi: 2 * hi },
});
const cost = (lo: number, mid: number, hi: number) => ({
  ms: bands(lo, mid, hi),
  share: bands(0.1, 0.3, 0.5),
  panelMs: null,
});
const here = { fps: 80, resolution: '2560x1440' };
const named = (limiter: FrameLimiter) => ({
  limiter,
  shares: [
    { stage: 'card', share: 0.8, band: { lo: 0.7, hi: 0.9 }, chance: 0.96, shown: 0.96 } as const,
  ],
});
const claim = { measure: 'works', lo: 90, hi: null, where: [] } as unknown as Claim;
const judged = (n: number, within: number, state: ClaimJudged['state']) =>
  ({
    n,
    within,
    share: { lo: 0.2, hi: 0.9 },
    state,
    never: [],
    seen: null,
    against: [],
  }) as ClaimJudged;
const suspects = (p: number, now: TroubleAdvice['now']) =>
  ({ top: { cause: 'cable-class', p }, offers: [], now }) as unknown as TroubleAdvice;
const hours = (drops: number, mid: number | null, hi: number | null): Reliability => ({
  hours: 40,
  drops,
  freezes: 0,
  perHour: { rate: drops / 40, lo: 0, hi: 1 },
  between: { lo: 9, mid, hi },
});
const said = (name: string, averages: readonly number[]) =>
  ({ name, averages, stats: { period: null, atMs: [], low1: { at: 1 } } }) as unknown as Parameters<
    typeof texts.pairSentence
  >[0];
const noisy = [100, 104, 96];
const noisier = [101, 97, 105];
const elastic = (e: Partial<Elasticity>): Elasticity => ({
  e: 0.5,
  sd: 0.4,
  clockPercent: 3,
  speedPercent: 1.5,
  says: 'too-uncertain',
  ...e,
});

/** Sentences about what was sampled, fitted or counted, each fed the cases in which it could say too much. */
const ESTIMATES: Readonly<Record<string, readonly Edge[]>> = {
  endsText: [['ends of both signs', texts.endsText({ lo: -0.5, hi: 1.1 }), '−0.50 to 1.10']],
  estimateParts: [['narrow', texts.estimateParts({ mid: 61, lo: 59, hi: 63 }).give, '±2.0']],
  yearlyTrend: [
    ['too few', texts.yearlyTrend(null), 'No trend can be told from fewer than three days.'],
    ['chance', texts.yearlyTrend({ slope: 0.8, p: 1, n: 4 }), 'No trend shown in 4 days.'],
    ['at the limit', texts.yearlyTrend({ slope: 0.8, p: 0.05, n: 5 }), 'No trend shown in 5 days.'],
    [
      'told',
      texts.yearlyTrend({ slope: -3.2, p: 0.01, n: 9 }),
      'Trend: 3.2 % a year slower, in 9 days.',
    ],
  ],
  agedTrend: [
    ['too few', texts.agedTrend(null), /^A trend takes three tests/],
    [
      'chance',
      texts.agedTrend({ slope: 0.8, p: 1, n: 3 }),
      'No difference shown between older and newer tests, in 3 tests.',
    ],
    [
      'told',
      texts.agedTrend({ slope: 0.8, p: 0.02, n: 7 }),
      /0\.8 points a year higher in newer tests.*in 7 tests\.$/,
    ],
  ],
  repeatsText: [
    [
      'within reach',
      texts.repeatsText({
        repeats: 6,
        least: 0,
        scatter: { title: 'Peat', cv: 0.03, freedom: 7 },
        most: 50,
      }),
      /^6 repeats a cell show it in 80 of 100 sessions, .* 3\.0 % \(7 repeats\)\.$/,
    ],
    [
      'out of reach',
      texts.repeatsText({
        repeats: null,
        least: 0.066,
        scatter: { title: 'Peat', cv: 0.12, freedom: 7 },
        most: 50,
      }),
      /^Not reachable .* 6\.6 % or more/,
    ],
  ],
  trendText: [
    [
      'too few',
      texts.trendText(trend({ way: 'too-few', n: 3 })),
      /3 readings are too few for a trend$/,
    ],
    ['none', texts.trendText(trend({ way: 'none', p: 0.4 })), /no trend shown in 8 readings$/],
    ['told', texts.trendText(trend({})), /by chance in 1 % of cases, 8 readings$/],
  ],
  comparedText: [
    [
      'one run a side',
      texts.comparedText(compareRuns([100], [120])),
      '+20.0 %; too few repeats to tell',
    ],
    [
      'chance',
      texts.comparedText(compareRuns(noisy ?? [], noisier ?? [])),
      /^no difference shown \(−\d/,
    ],
    [
      'told',
      texts.comparedText(compareRuns([100, 101, 99], [120, 121, 119])),
      /^\+20\.0 % \(\+1.*\), significant$/,
    ],
  ],
  pairSentence: [
    [
      'chance',
      texts.pairSentence(
        said('A', noisy ?? []),
        said('B', noisier ?? []),
        compareRuns(noisy ?? [], noisier ?? []),
      ),
      /: no difference shown \([^)]*\)\.$/,
    ],
    [
      'told',
      texts.pairSentence(
        said('A', [100, 101, 99]),
        said('B', [50, 51, 49]),
        compareRuns([100, 101, 99], [50, 51, 49]),
      ),
      /ms a frame more\.$/,
    ],
  ],
  lostText: [['a gain', texts.lostText(-38.1), 'nothing lost']],
  frameLimiterText: [
    [
      'told before it is thorough',
      texts.frameLimiterText(
        named({ kind: 'stage', stage: 'card', chance: 0.93, unlessTrafficMB: null }),
        false,
      ),
      'Card limits here (95 %). 1 % more card gives about 0.8 %.',
    ],
    [
      'not known',
      texts.frameLimiterText(named({ kind: 'open', likely: ['processor', 'link'] }), true),
      'Cannot tell from these runs. Most likely the processor or link.',
    ],
  ],
  limitedByText: [
    [
      'one',
      texts.limitedByText(
        named({ kind: 'stage', stage: 'card', chance: 0.93, unlessTrafficMB: null }),
        false,
      ),
      'card (95 %)',
    ],
    [
      'two',
      texts.limitedByText(named({ kind: 'equal', stages: ['card', 'link'], chance: 0.81 }), true),
      'card and link (81 %)',
    ],
    [
      'held',
      texts.limitedByText(named({ kind: 'cap', fps: 60, chance: 1 }), true),
      'held at 60 frames/s',
    ],
    [
      'not known',
      texts.limitedByText(named({ kind: 'open', likely: ['processor', 'link'] }), true),
      'cannot tell; processor or link',
    ],
  ],
  overheadText: [
    ['wide', texts.overheadText(cost(0.4, 1.5, 2.8)), '0.4 to 2.8 ms of a frame, 30 %'],
    ['told', texts.overheadText(cost(3.7, 4, 4.3)), '4.0 ms (3.7 to 4.3) of a frame, 30 %'],
  ],
  linkCostSentence: [
    [
      'wide',
      texts.linkCostSentence(cost(-0.2, 1.5, 2.8), here),
      'The link costs 0.0 to 2.8 ms a frame: 80.0 frames/s at 2560x1440, 80.0 to 103 in a wide direct slot.',
    ],
    [
      'told',
      texts.linkCostSentence(cost(3.7, 4, 4.3), here),
      'The link costs 4.0 ms a frame (3.7 to 4.3): 80.0 frames/s at 2560x1440, about 118 in a wide direct slot.',
    ],
  ],
  fpsText: [['told', texts.fpsText(bands(72, 78, 85)), '78.0 (72.0 to 85.0)']],
  bandsText: [['told', texts.bandsText(bands(72, 78, 85)), /^50 of 100 .* 80 at 72\.0 to 85\.0, /]],
  basisText: [
    [
      'a link that never ran',
      texts.basisText({ basis: 'far', unmeasuredLink: true } as FrameForecast),
      /^far: .*; rests on what titles usually send, not on this one/,
    ],
    ['nothing', texts.basisText({ basis: 'start' } as FrameForecast), /^start values/],
  ],
  restsOnText: [
    ['nothing', texts.restsOnText({ measured: [], assumed: [] }), 'Assumed: nothing.'],
    [
      'both',
      texts.restsOnText({ measured: ['card'], assumed: ['traffic', 'overlap'] }),
      "Measured: card's time. Assumed: MB sent a frame, what overlaps with the link.",
    ],
  ],
  usedText: [
    [
      'one unlike the others',
      texts.usedText({ used: ['a'], contradictions: ['a'] } as unknown as ModelAnswer),
      'From 1 piece of evidence; 1 does not fit the others and counts less.',
    ],
  ],
  advisedText: [
    ['none', texts.advisedText([], () => '', false).first, /^no run you can make would settle/],
    ['settled', texts.advisedText([], () => '', true).first, /^nothing more is needed/],
  ],
  differenceText: [
    [
      'one run a side',
      texts.differenceText({ mid: 4, lo: null, hi: null }),
      '4.0 ms (too few repeats for an interval)',
    ],
    ['no change inside', texts.differenceText({ mid: 0.3, lo: -0.5, hi: 1.1 }), '−0.5 to 1.1 ms'],
    ['told', texts.differenceText({ mid: 4, lo: 3.7, hi: 4.3 }), '4.0 ms (±0.3)'],
  ],
  shortOverheadText: [
    ['wide', texts.shortOverheadText({ mid: 1.5, lo: -0.2, hi: 2.8 }), '0.0 to 2.8'],
    ['told', texts.shortOverheadText({ mid: 4, lo: 3.7, hi: 4.3 }), '4.0 (3.7 to 4.3)'],
  ],
  settledText: [
    [
      'told',
      texts.settledText({ fps: bands(58, 61, 64), measured: 60.2, resolution: '2560x1440' }),
      '2560x1440 forecast 61.0 (58.0 to 64.0), measured 60.2',
    ],
  ],
  scoreText: [
    ['none', texts.scoreText(scoreForecasts([])), 'No forecast has met its run yet.'],
    [
      'one',
      texts.scoreText(scoreForecasts([{ fps: bands(58, 61, 64), measured: 60 }])),
      'Within 5 % in 1 of 1; inside the 50, 80 and 95 % bands in 1, 1 and 1.',
    ],
  ],
  widthTexts: [
    ['none', texts.widthTexts(scoreForecasts([])).join(), ''],
    [
      'a wide one',
      texts.widthTexts(scoreForecasts([{ fps: bands(40, 61, 90), measured: 60 }])).join(),
      '80 % bands over ±15 %: the run lay inside in 1 of 1.',
    ],
  ],
  elasticityText: [
    [
      'the same clock',
      texts.elasticityText(elastic({ says: 'same-clock' })),
      /the clock did not change, so nothing follows\.$/,
    ],
    ['uncertain', texts.elasticityText(elastic({})), /too uncertain to say; repeat\.$/],
  ],
  seenWords: [
    ['none', texts.seenWords(seen(0, 0)), 'Nothing seen of exactly this chain'],
    ['one', texts.seenWords(seen(1, 0)), /it proves little$/],
    ['four', texts.seenWords(seen(3, 1)), '3 of 4 worked'],
    ['five', texts.seenWords(seen(4, 1)), '4 of 5 worked (38 to 96 %)'],
  ],
  evidenceWords: [
    [
      'none',
      texts.evidenceWords(NO_EVIDENCE),
      'Nothing seen of exactly this chain; no near chain is logged.',
    ],
  ],
  expectationWords: [
    ['none', texts.expectationWords(expectation(NO_EVIDENCE, 4), NO_EVIDENCE), /^Nothing is known/],
    [
      'three',
      texts.expectationWords(
        expectation(about({ exact: seen(2, 1) }), 4),
        about({ exact: seen(2, 1) }),
      ),
      'Too few entries for a share: 3 of this chain, 0 near ones.',
    ],
  ],
  reliabilityWords: [
    ['none', texts.reliabilityWords(null), 'No hours in use noted yet.'],
    [
      'no drop',
      texts.reliabilityWords(hours(0, null, null)),
      /^0 drops and freezes in 40 hours: at most 3 in that time/,
    ],
    [
      'one drop',
      texts.reliabilityWords(hours(1, 40, null)),
      '1 drop in 40 hours: one in 40 hours (9.0 to open above).',
    ],
  ],
  claimWords: [
    [
      'none',
      texts.claimWords(claim, judged(0, 0, 'none')),
      'Nothing measured yet that it speaks of.',
    ],
    [
      'four',
      texts.claimWords(claim, judged(4, 3, 'open')),
      '3 of 4 worked: at least 90 % cannot be told yet.',
    ],
    ['twenty', texts.claimWords(claim, judged(20, 12, 'fails')), /^12 of 20 worked \(20 to 90 %\)/],
  ],
  searchHeadline: [
    [
      'nothing tells',
      texts.searchHeadline(suspects(0.3, 'stuck'), 5),
      /^0 safe tests left that tell anything/,
    ],
    ['not sure', texts.searchHeadline(suspects(0.3, 'fix'), 5), /^No safe test left tells enough/],
  ],
  typicalWords: [
    [
      'a guess',
      texts.typicalWords({ typical: [170, 340], unit: 'mm' }),
      'Typical: 170 to 340 mm, not confirmed.',
    ],
    ['none', texts.typicalWords({}), ''],
  ],
  suspicionPercent: [['next to nothing', texts.suspicionPercent(0.0001), 'under 1 %']],
  scatterText: [
    ['none measured', texts.scatterText({ cv: 0.02, freedom: 0 }), /^2.0 %, the usual scatter/],
    ['counted', texts.scatterText({ cv: 0.031, freedom: 7 }), /^3.1 %, .* \(7 repeats\)$/],
  ],
  outlierText: [
    [
      'slower',
      texts.outlierText({ of: 0.7, z: 12, scatter: { cv: 0.02, freedom: 0 } }, 3),
      /^30 % below the median of its 3 repeats: 12 standard deviations of 2.0 %/,
    ],
  ],
  spreadText: [
    [
      'asks',
      texts.spreadText({ lo: 60, hi: 140, usual: 1.2, scatter: { cv: 0.02, freedom: 0 } }, ''),
      /^Repeats reach from 60.0 to 140, 2.33 times; up to 1.20 times is chance .*\?$/,
    ],
  ],
  pullWords: [
    ['no pull', texts.pullWords(1), 'as likely with this cause as with the others'],
    ['beyond counting', texts.pullWords(Infinity), /^more than 100 times likelier/],
    ['never with it', texts.pullWords(0), /^more than 100 times less likely/],
  ],
  bitWords: [['next to nothing', texts.bitWords(0.001), '0.00 bits']],
  countsWords: [
    ['one try', texts.countsWords([{ order: 'dock-first', worked: 1, n: 1 }]), / 1 of 1$/],
  ],
};

/** Sentences that name a part, a figure given or a step, and estimate nothing. */
const PLAIN =
  `rate percent length asRange formatWhole figure span partNoun maybe capital listed ended figureText pluralize coverageWords attributeName
  notKnown sentence minutesOf askedFor verdictSentence formula readProblemText decidesText linkCheckHeadline swapWords hoursText summarizeEvaluation findTerms
  questionText money moneyShort moneyField compareRows compareSentence cautionsOfFix cautionsOfTest offerReason noteWords leftWords comboName
  scoutHeadline stopsWords worthSentence orderWhy adviceWords about progressHeadline startHeadline openingWords sinceWords measureText
  countsText windowText installedWords profileWords couplingWords programWords tuningWords dockedNames benchLine benchTime benchSentence
  badRowText testWords captureProblemText doubtText signed intervalText overTitlesText overLeftText cellReservations outsideNotes resultNotes publishedTable resultNumbers setupCaption apartText throttledText unlikeText noteText runSentence hitchText pairText alarmText missingText signText
  experimentText unusedText frameEvidenceText statedFigureText
  sharesWords claimRange claimWhere cellWords pinWords packText dueWords loansHeadline afterReturn auditHeadline`.split(
    /\s+/,
  );

const BROKEN = /undefined|NaN|Infinity|\[object|\.\.|\(p \d|[^\d] {2}|: :|said not set/;

describe('every sentence of texts', () => {
  it('is either fed its edge cases here or estimates nothing', () => {
    const exported = Object.entries(texts).flatMap(([name, value]) =>
      typeof value === 'function' ? [name] : [],
    );
    expect([...Object.keys(ESTIMATES), ...PLAIN].sort()).toEqual(exported.sort());
  });

  const edges = Object.entries(ESTIMATES).flatMap(([name, list]) =>
    list.map(([when, ...rest]) => [name, when, ...rest] as const),
  );
  it.each(edges)('%s, %s', (_name, _when, words, expected) => {
    if (typeof expected === 'string') expect(words).toBe(expected);
    else expect(words).toMatch(expected);
    expect(words).not.toMatch(BROKEN);
  });
});

describe('every finding in words', () => {
  const whole = (s: string, f?: Finding) => {
    expect(s, JSON.stringify(f)).not.toMatch(BROKEN);
    // A sentence begins with a capital, a figure or a name in quotes, never with a mark such as "r1.".
    expect(s, JSON.stringify(f)).toMatch(/^[A-Z0-9×"'+]/);
    expect(s).not.toMatch(/^\w+\.\s|^\w{0,3}\.$/);
  };

  it.each(PROVOKED)('%s', (_code, made, nearest) => {
    for (const { chain, context } of [made, nearest]) {
      const e = judge(chain, context);
      for (const f of e.findings) Object.values(texts.sentence(f)).forEach((s) => whole(s, f));
      whole(texts.verdictSentence(e));
    }
  });

  it('a requirement titled by a mark names its owner', () => {
    const [, made] = PROVOKED.find(([code]) => code === 'software/heed') ?? [];
    const requirements = (made?.context?.requirements ?? []).map((r) => ({ ...r, variant: 'r1' }));
    const e = judge(made?.chain ?? EMPTY, { ...made?.context, requirements });
    const heed = e.findings.find((f) => f.code === 'software/heed');
    expect(heed && texts.sentence(heed).what).toMatch(/^Requirement "r1" of \w+/);
  });

  it('holds for chains of which anything may be unknown', () => {
    fc.assert(
      fc.property(chains, (chain) => {
        const e = judge(chain);
        for (const f of e.findings) Object.values(texts.sentence(f)).forEach((s) => whole(s, f));
        whole(texts.verdictSentence(e));
      }),
      { numRuns: 400, seed: 27, endOnFailure: true },
    );
  });
});
