import { describe, expect, it } from 'vitest';
import { noteMinutes } from '../src/bench';
import {
  advise,
  byPlace,
  casesIn,
  CAUSE_STRENGTH,
  countsOf,
  figureKey,
  figureLimits,
  priorMultipliers,
  priorMultipliersOfEntered,
  likelihood,
  moved,
  netFor,
  runAnswers,
  START_STRENGTH,
  START_TABLES,
  type Episode,
  type Tables,
  titleShare,
  type TroubleNote,
  troubleState,
  weight,
  weightKey,
  wholePercents,
} from '../src/troubleshoot';
import { noteWords, offerReason, searchHeadline, suspicionPercent } from '../src/troubleshoot/text';
import { judge, tunnelChain } from './make';

const seen = (
  ...symptoms: Extract<TroubleNote, { what: 'seen' }>['symptoms'][number][]
): TroubleNote => ({
  what: 'seen',
  symptoms,
});
const test = (
  t: Extract<TroubleNote, { what: 'test' }>['test'],
  says: Extract<TroubleNote, { what: 'test' }>['says'],
): TroubleNote => ({
  what: 'test',
  test: t,
  says,
  by: 'hand',
  words: '',
});
const fix = (
  cause: Extract<TroubleNote, { what: 'fix' }>['cause'],
  result: Extract<TroubleNote, { what: 'fix' }>['result'],
): TroubleNote => ({
  what: 'fix',
  cause,
  result,
  words: '',
});

describe('TR-04 a search folded from its notes', () => {
  it('answers count, "not sure" and "cannot" only keep the test away', () => {
    const s = troubleState([
      seen('low-copy'),
      test('router-speed', 'no'),
      test('hub-off', 'cannot'),
      test('read-again', 'unclear'),
    ]);
    expect(s.clues).toEqual({
      symptoms: ['low-copy'],
      answers: [{ test: 'router-speed', yes: false }],
      noHelp: [],
      mended: [],
    });
    expect([...s.refused]).toEqual(['hub-off', 'read-again']);
  });

  it('a test answered again takes the place of its first answer', () => {
    expect(
      troubleState([seen('low-copy'), test('router-speed', 'no'), test('router-speed', 'yes')])
        .clues.answers,
    ).toEqual([{ test: 'router-speed', yes: true }]);
    expect(
      troubleState([seen('low-copy'), test('router-speed', 'yes'), test('router-speed', 'cannot')])
        .clues.answers,
    ).toEqual([]);
  });

  it('a fix that helps in part starts anew without that cause', () => {
    const s = troubleState([
      seen('low-copy', 'drops-under-load'),
      test('router-speed', 'yes'),
      test('lamp-out', 'cannot'),
      fix('supply', 'no-change'),
      fix('cable-class', 'better'),
      seen('drops-under-load'),
    ]);
    expect(s.clues).toEqual({
      symptoms: ['drops-under-load'],
      answers: [],
      noHelp: [],
      mended: ['cable-class'],
    });
    expect(s.refused.size).toBe(0);
    expect(s.stretches).toEqual([
      {
        symptoms: ['low-copy', 'drops-under-load'],
        answers: [{ test: 'router-speed', yes: true }],
        found: 'cable-class',
      },
    ]);
  });

  it('ends solved with a cause or unsolved, minutes added up', () => {
    const notes: TroubleNote[] = [
      seen('low-copy'),
      test('short-cable', 'yes'),
      fix('cable-class', 'solved'),
    ];
    const closed: TroubleNote = {
      what: 'closed',
      outcome: 'solved',
      cause: 'cable-class',
      words: '',
    };
    const s = troubleState([...notes, closed], noteMinutes);
    expect(s.closed?.outcome).toBe('solved');
    expect(s.stretches.map((x) => x.found)).toEqual(['cable-class']);
    expect(s.minutesSpent).toBe(5 + 2 + 5);
    expect(
      troubleState([seen('low-copy'), { ...closed, outcome: 'unsolved', cause: null }]).stretches[0]
        ?.found,
    ).toBeNull();
    expect(
      noteMinutes({ what: 'test', test: 'short-cable', says: 'yes', by: 'reading', words: '' }),
    ).toBe(0);
  });
});

describe('TR-05 counts of the log move the tables', () => {
  const found = (k: number, n: number): Episode[] =>
    Array.from({ length: n }, (_, i) => ({
      symptoms: i < k ? ['low-copy' as const] : [],
      answers: [{ test: 'short-cable' as const, yes: i < k }],
      found: 'cable-class' as const,
    }));

  it('Beta: the start with strength 4 as prior, k of n', () => {
    // Posterior mean of Beta(4·0.85, 4·0.15) after 2 of 6: (3.4 + 2) / 10. Source: conjugacy of Beta and binomial.
    const t: Tables = { ...START_TABLES, counts: countsOf(found(2, 6)) };
    const f = likelihood(t, 'symptom', 'low-copy', 'cable-class');
    expect([f.start, f.count]).toEqual([0.85, { k: 2, n: 6 }]);
    expect(f.value).toBeCloseTo((START_STRENGTH * 0.85 + 2) / (START_STRENGTH + 6), 12);
    expect(likelihood(t, 'test', 'short-cable', 'cable-class').value).toBeCloseTo(
      (4 * 0.95 + 2) / 10,
      12,
    );
    expect(moved(0.5, { k: 0, n: 0 }, 4)).toBe(0.5);
  });

  it('a cause found often grows, others shrink alike, the sum stays', () => {
    const t: Tables = { ...START_TABLES, counts: countsOf(found(3, 10)) };
    const grown = weight(t, 'cable-class');
    expect(grown.count).toEqual({ k: 10, n: 10 });
    expect(grown.value).toBeGreaterThan(grown.start);
    expect(weight(t, 'heat').value / weight(START_TABLES, 'heat').value).toBeCloseTo(
      CAUSE_STRENGTH / (CAUSE_STRENGTH + 10),
      12,
    );
    expect(casesIn(t.counts)).toBe(10);
  });

  it('unsolved searches count nothing', () => {
    expect(countsOf([{ symptoms: ['low-copy'], answers: [], found: null }])).toEqual({});
  });

  it('a set figure replaces the start, "any other" reaches the rest', () => {
    const edits = {
      [figureKey('test', 'short-cable', 'cable-class')]: 0.5,
      [figureKey('test', 'short-cable', 'any')]: 0.2,
    };
    const t: Tables = { edits, counts: {} };
    expect(likelihood(t, 'test', 'short-cable', 'cable-class').value).toBe(0.5);
    expect(likelihood(t, 'test', 'short-cable', 'heat').value).toBe(0.2);
    expect(likelihood(t, 'test', 'short-cable', 'cable-charges').value).toBe(0.95);
    const net = netFor(tunnelChain(), { edits: { [weightKey('heat')]: 30 }, counts: {} });
    expect(net.prior[net.causes.indexOf('heat')]).toBeGreaterThan(0.1);
  });

  it.each([
    ['cause/heat', { lo: 0, hi: 100 }],
    ['symptom/low-copy/heat', { lo: 0.001, hi: 0.999 }],
    ['test/reseat/any', { lo: 0.001, hi: 0.999 }],
    ['symptom/low-copy/any', null],
    ['test/flash/heat', null],
    ['cause/nobody', null],
    ['cause/heat/more', null],
    ['test/reseat/heat/more', null],
    ['', null],
  ])('the figure %s has the limits %j', (key, limits) => expect(figureLimits(key)).toEqual(limits));
});

describe('TR-03 suspicion on the strip', () => {
  it('places add up to 1, whole percents to 100', () => {
    const net = netFor(tunnelChain());
    const a = advise(net, troubleState([seen('low-copy')]).clues);
    const places = byPlace(a.suspects);
    expect(Object.values(places).reduce((x, y) => x + y, 0)).toBeCloseTo(1, 10);
    expect(wholePercents(Object.values(places)).reduce((x, y) => x + y, 0)).toBe(100);
    expect(wholePercents([1 / 3, 1 / 3, 1 / 3])).toEqual([34, 33, 33]);
    expect(wholePercents([0.005, 0.995])).toEqual([1, 99]);
  });

  it('tests first, then the fix; nothing left is said', () => {
    const net = netFor(tunnelChain());
    const at = (...notes: TroubleNote[]) => {
      const s = troubleState(notes);
      return advise(net, s.clues, s.refused);
    };
    expect(at(seen('nothing-listed')).now).toBe('test');
    const sure = at(seen('router-slow', 'low-copy'), test('short-cable', 'yes'));
    expect([sure.now, sure.top.cause]).toEqual(['fix', 'cable-class']);
    const all = net.tests.map((t) => test(t, 'cannot'));
    expect(at(seen('nothing-listed'), ...all).now).toBe('fix');
    expect(searchHeadline(sure, 5)).toMatch(/^Mend the most suspect, \d+ %: the cable is too long/);
    expect(searchHeadline(at(seen('nothing-listed')), 5)).toMatch(
      /^Next: .+, \d+ minutes?\. Most suspect: .+ %\.$/,
    );
  });

  it('TR-06 what belongs to one title stands apart', () => {
    const a = advise(
      netFor(tunnelChain()),
      troubleState([seen('flat-frames'), test('other-title', 'yes')]).clues,
    );
    expect(titleShare(a.suspects)).toBeGreaterThan(
      titleShare(advise(netFor(tunnelChain()), troubleState([seen('flat-frames')]).clues).suspects),
    );
  });
});

describe('what the plan, the first answers and the runs say', () => {
  it('a finding of the plan makes its cause likelier, the strongest once', () => {
    const long = tunnelChain({ cable: { lengthMm: 1200 } });
    const lifts = priorMultipliers(judge(long));
    expect(lifts.find((l) => l.cause === 'cable-class')).toMatchObject({
      times: 4,
      code: 'cable/too-long',
    });
    expect(lifts.filter((l) => l.cause === 'cable-class')).toHaveLength(1);
    const with_ = netFor(long, START_TABLES, lifts);
    const without = netFor(long);
    const at = with_.causes.indexOf('cable-class');
    expect(with_.prior[at]).toBeGreaterThan(2 * (without.prior[at] ?? 1));
    expect(priorMultipliersOfEntered({ screen: 'panel' })[0]?.cause).toBe('panel-return');
    expect(priorMultipliersOfEntered(null)).toEqual([]);
  });

  const run = (
    title: string,
    resolution: string,
    averageFps: number,
    more: Record<string, string> = {},
  ) => ({
    title,
    facts: { title, resolution, preset: 'high', ...more },
    stats: { averageFps },
  });
  it('TR-06 flat over sizes is answered from comparable runs', () => {
    const flat = runAnswers([run('A', '1920x1080', 80), run('A', '3840x2160', 78)]);
    expect(flat.pairs).toMatchObject([
      { title: 'A', changed: 'resolution', flat: true, fps: [80, 78] },
    ]);
    expect(flat.answers).toEqual([{ test: 'resolutions', yes: true }]);
    expect(
      runAnswers([run('A', '1920x1080', 80), run('A', '3840x2160', 78, { driver: '2' })]).pairs,
    ).toEqual([]);
    expect(runAnswers([run('A', '1920x1080', 80), run('A', '3840x2160', 70)]).answers).toEqual([]);
    expect(runAnswers([run('A', '2560x1440', 80), run('A', 'as it comes', 70)]).pairs).toEqual([]);
  });

  it('TR-06 runs in a desktop slot say nothing of the link', () => {
    const slot = { class: { slot: true, generated: false, capFps: null, counts: true } };
    const runs = [
      run('A', '1920x1080', 80),
      run('A', '3840x2160', 78),
      { ...run('A', '1920x1080', 200), ...slot },
    ];
    expect(runAnswers(runs).pairs).toMatchObject([{ fps: [80, 78], flat: true }]);
    expect(runAnswers(runs.map((r) => ({ ...r, ...slot }))).pairs).toEqual([]);
  });

  it('TR-06 held, generated and left-out runs say nothing', () => {
    const plain = { slot: false, generated: false, capFps: null, counts: true };
    for (const odd of [{ generated: true }, { capFps: 60 }, { counts: false }]) {
      const runs = [
        { ...run('A', '1920x1080', 60), class: { ...plain, ...odd } },
        { ...run('A', '3840x2160', 59), class: plain },
      ];
      expect(runAnswers(runs).pairs).toEqual([]);
    }
  });

  it('TR-06 one flat title among others: the title is at fault', () => {
    const both = runAnswers([
      ...[run('A', '1920x1080', 60), run('A', '3840x2160', 59)],
      ...[run('B', '1920x1080', 120), run('B', '3840x2160', 60)],
    ]);
    // Without a stated engine nobody knows whether the other title has another one.
    expect(both.answers).toEqual([]);
    const built = (title: string, engine: string, fps: [number, number]) => [
      { ...run(title, '1920x1080', fps[0]), engine },
      { ...run(title, '3840x2160', fps[1]), engine },
    ];
    const by = runAnswers([
      ...built('A', 'Reed', [60, 59]),
      ...built('B', 'Sedge', [120, 60]),
      ...built('C', 'Reed', [70, 69]),
    ]);
    expect(by.answers).toEqual([{ test: 'other-title', yes: true }]);
    const one = runAnswers([...built('A', 'Reed', [60, 59]), ...built('B', 'Reed', [120, 60])]);
    expect([one.answers, one.engines]).toEqual([[], []]);
    const ill = runAnswers([...built('A', 'Reed', [60, 59]), ...built('B', 'Sedge', [80, 79])]);
    expect(ill.answers).toContainEqual({ test: 'other-title', yes: false });
    expect(by.engines).toEqual([
      { engine: 'Reed', flat: 2, falling: 0 },
      { engine: 'Sedge', flat: 0, falling: 1 },
    ]);
    expect(
      runAnswers([
        run('A', '2560x1440', 60, { preset: 'low' }),
        run('A', '2560x1440', 40, { preset: 'ultra' }),
      ]).answers,
    ).toEqual([{ test: 'presets', yes: false }]);
  });

  it('says notes and reasons in words', () => {
    expect(noteWords(test('router-speed', 'yes'))).toBe(
      "Read the router's rate and lanes: half rate or one lane",
    );
    expect(noteWords(fix('cable-class', 'better'))).toBe(
      'Mended, the cable is too long or of a low class: better, not well',
    );
    const o = { test: 'short-cable' as const, minutes: 5, bits: 0.8, worth: 0.8 / 7, yes: 0.5 };
    const other = { ...o, test: 'clean-driver' as const, minutes: 25, bits: 0.3, worth: 0.01 };
    expect(offerReason([o, other], o)).toBe(
      '0.8 bits of information expected in 7 minutes, 2 of them to get there; the next best gives 0.3 bits in 27.',
    );
    expect([suspicionPercent(0.001), suspicionPercent(0.523)]).toEqual(['under 1 %', '52 %']);
  });
});
