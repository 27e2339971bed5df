import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { TestBed } from '@angular/core/testing';
import { MatSliderHarness } from '@angular/material/slider/testing';
import {
  decimateMinMax,
  type CaptureLayout,
  FACT_IDS,
  findLayout,
  frameStats,
  hundredDots,
  type Mapping,
  NO_RUN_CONTEXT,
  NO_RUN_SETTINGS,
  percentileCurve,
  proposeMapping,
  type RunFacts,
} from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import type { Opened } from './capture-calls';
import { highest, traceColumns } from './draw-trace';
import { FiguresTable } from './figures-table';
import { FrameBars } from './frame-bars';
import { MappingForm } from './mapping-form';
import type { Shown } from './run-store';
import { RunForm, type RunDraft } from './run-form';
import { repeatLines } from './repeats-panel';
import { groupRuns, LOOKS, mainValues, valuesOf } from './run-groups';
import { ScenesPanel } from './scenes-panel';
import { SpreadView } from './spread-view';
import { readSeconds } from './typed-panel';

const facts = Object.fromEntries(FACT_IDS.map((f) => [f, ''])) as Record<keyof RunFacts, string>;
let n = 0;
function run(frames: number[], over: Partial<RunEntry> = {}): RunEntry {
  return {
    id: `run-${n++}`,
    titleId: 't',
    kind: 'frames',
    settings: NO_RUN_SETTINGS,
    context: NO_RUN_CONTEXT,
    result: null,
    reason: '',
    saw: '',
    cutS: 0,
    segments: [],
    channels: [],
    source: null,
    setupId: 's',
    setupName: 'S',
    title: 'Peat Rally',
    work: 'title',
    happenedAt: '2026-10-14T19:00:00Z',
    recordedAt: '2026-10-14T19:00:00Z',
    origin: 'own',
    facts,
    rig: { host: 'H', slot: false },
    sensors: null,
    shown: null,
    segmentStats: [],
    stats: frames.length > 0 ? frameStats(Float32Array.from(frames)) : null,
    ...over,
  } as RunEntry;
}
function shownOf(runs: RunEntry[], letter = 'A'): Shown {
  const [group] = groupRuns(runs);
  const averages = runs.flatMap((r) => valuesOf(r).average ?? []);
  return {
    letter,
    look: LOOKS[letter.charCodeAt(0) - 65]!,
    group: group!,
    run: runs[0]!,
    averages,
  };
}
function opened(frames: number[]): Opened {
  const f = Float32Array.from(frames);
  const sorted = f.slice().sort();
  return {
    pyramid: decimateMinMax(f),
    dots: hundredDots(sorted),
    curve: percentileCurve(sorted),
    hitchesMs: [],
  };
}
const words = (el: HTMLElement) => el.textContent!.replace(/\s+/g, ' ');

describe('groups of runs', () => {
  it('are repeats, named by what tells them apart', () => {
    const a = { ...facts, resolution: '1920x1080', lid: 'open' };
    const b = { ...a, lid: 'closed' };
    const groups = groupRuns([
      run([10], { facts: a }),
      run([10], { facts: a }),
      run([10], { facts: b }),
    ]);
    expect(groups.map((g) => [g.label, g.runs.length])).toEqual([
      ['open', 2],
      ['closed', 1],
    ]);
  });

  it('leave out a run far from its repeats, and say so', () => {
    const [group] = groupRuns([run([10]), run([10.1]), run([15])]);
    expect(mainValues(group!).map((v) => v.toFixed(1))).toEqual(['100.0', '99.0']);
    const [line] = repeatLines(group!.runs, group!.classes);
    expect(line).toMatchObject({ counts: false, said: false });
    expect(line?.words.join(' ')).toMatch(/^33 % below the median of its 3 repeats.* Left out\.$/);
  });

  it('count a run that a person counts all the same', () => {
    const context = { ...NO_RUN_CONTEXT, counts: 'yes' as const };
    const [group] = groupRuns([run([10]), run([10.1]), run([15], { context })]);
    expect(mainValues(group!)).toHaveLength(3);
    expect(repeatLines(group!.runs, group!.classes)[0]).toMatchObject({ counts: true, said: true });
  });

  it('a score averages, a time is time, generated is neither', () => {
    expect(valuesOf(run([], { kind: 'score', result: { value: 60, unit: 'frames/s' } }))).toEqual({
      score: 60,
      average: 60,
    });
    expect(valuesOf(run([], { kind: 'time', result: { value: 60, unit: 's' } }))).toEqual({
      time: 60,
    });
    expect(valuesOf(run([10, 10], { shown: frameStats(Float32Array.of(5)) })).average).toBeCloseTo(
      100,
      9,
    );
  });
});

describe('the trace', () => {
  it('keeps a single long frame among a hundred thousand, whatever the width', () => {
    const frames = Array.from({ length: 100_000 }, (_, i) => (i === 54_321 ? 200 : 10));
    const pyramid = decimateMinMax(Float32Array.from(frames));
    for (const width of [10, 300, 624])
      expect(
        highest(
          traceColumns(
            [{ color: '', dash: [], pyramid, shiftMs: 0 }],
            0,
            pyramid.ends.at(-1)!,
            width,
          ),
        ),
      ).toBe(200);
  });
});

describe('figures', () => {
  it('stand in a column a run: both lows, intervals, shown', () => {
    const f = TestBed.createComponent(FiguresTable);
    const list = [run([10, 10, 10, 40]), run([10, 10, 10, 42]), run([10, 10, 11, 40])];
    f.componentRef.setInput('shown', [shownOf(list)]);
    f.detectChanges();
    const text = words(f.nativeElement as HTMLElement);
    expect(text).toMatch(/Average, frames\/s.*57\.1/);
    expect(text).toMatch(/3 runs: 56\.\d, 95 % \d/);
    expect(text).toContain('1 % low, slowest 1 % of frames');
    expect(text).not.toContain('Shown on screen');
  });

  it('of a typed result are the result', () => {
    const f = TestBed.createComponent(FiguresTable);
    f.componentRef.setInput('shown', [
      shownOf([run([], { kind: 'time', result: { value: 412, unit: 's' } })]),
    ]);
    f.detectChanges();
    expect(words(f.nativeElement as HTMLElement)).toContain('412 s');
  });

  it('as bars: the longer one says by how much', () => {
    const f = TestBed.createComponent(FrameBars);
    f.componentRef.setInput('shown', [shownOf([run([10])]), shownOf([run([15])], 'B')]);
    f.detectChanges();
    expect(words(f.nativeElement as HTMLElement)).toMatch(
      /10\.0 ms a frame.*15\.0 ms a frame, 5\.0 ms more/,
    );
  });

  it('as dots and as a curve: stepped to, values are said', async () => {
    for (const [mode, step, said] of [
      ['dots', 99, /Dot 100 of 100: A 1[89]\.\d ms/],
      ['curve', 50, /50 % of the frames take at most: A 1\d\.\d ms/],
    ] as const) {
      const f = TestBed.createComponent(SpreadView);
      const s = shownOf([run([10])]);
      f.componentRef.setInput('shown', [s]);
      f.componentRef.setInput(
        'opened',
        new Map([[s.run.id, opened(Array.from({ length: 100 }, (_, i) => 10 + i / 11))]]),
      );
      f.componentRef.setInput('mode', mode);
      f.detectChanges();
      const slider = await TestbedHarnessEnvironment.loader(f).getHarness(MatSliderHarness);
      await (await slider.getEndThumb()).setValue(step);
      expect(words(f.nativeElement as HTMLElement)).toMatch(said);
    }
  });
});

describe('columns of a file', () => {
  const found = findLayout('frame ms,other\n10,5\n11,6\n');
  const layout = (found as { value: CaptureLayout }).value;

  it('a role moves between columns; without times nothing is confirmed', () => {
    const f = TestBed.createComponent(MappingForm);
    f.componentRef.setInput('name', 'a.csv');
    f.componentRef.setInput('layout', layout);
    f.componentRef.setInput('proposed', proposeMapping(layout));
    let confirmed: Mapping | null = null;
    f.componentInstance.confirmed.subscribe((m) => (confirmed = m));
    f.detectChanges();
    f.componentInstance.setRole(1, 'frame');
    f.detectChanges();
    expect(f.componentInstance.columns().map((c) => c.role)).toEqual(['ignore', 'frame']);
    f.componentInstance.setRole(1, 'ignore');
    f.detectChanges();
    const button = [...(f.nativeElement as HTMLElement).querySelectorAll('button')].at(-1)!;
    expect(button.disabled).toBe(true);
    f.componentInstance.setRole(0, 'frame');
    f.detectChanges();
    button.click();
    expect(confirmed).toMatchObject({
      columns: [{ role: 'frame', unit: 'ms' }, { role: 'ignore' }],
    });
  });
});

describe('what is said of a run', () => {
  it('two changes at once both count, and what nobody said is named', () => {
    const f = TestBed.createComponent(RunForm);
    f.componentRef.setInput('draft', {
      settings: NO_RUN_SETTINGS,
      context: NO_RUN_CONTEXT,
      saw: '',
    } satisfies RunDraft);
    const said: RunDraft[] = [];
    f.componentInstance.changed.subscribe((d) => said.push(d));
    f.detectChanges();
    const settings = f.componentInstance.form.controls.settings.controls;
    settings.powerMode.setValue('Quiet');
    settings.lid.setValue('open');
    settings.resolution.setValue('2560 × 1440');
    expect(said.at(-1)?.settings).toMatchObject({
      powerMode: 'Quiet',
      lid: 'open',
      resolution: '2560x1440',
    });
    f.detectChanges();
    expect(words(f.nativeElement as HTMLElement)).toMatch(/Not set yet: Preset/);
    const sent = said.length;
    const problems: (string | null)[] = [];
    f.componentInstance.problem.subscribe((p) => problems.push(p));
    settings.resolution.setValue('big');
    settings.resolution.setValue('');
    settings.capFps.setValue(2000);
    expect(problems).toEqual([
      'Resolution: like 2560x1440, or nothing',
      null,
      'Limit: a number from 0 to 1000 frames/s, or nothing',
    ]);
    expect(said).toHaveLength(sent + 1);
  });

  it('times are read in seconds or as a clock shows them', () => {
    expect(['6:52', '1:02:03', '412,5', '6:52.4'].map((t) => readSeconds(t))).toEqual(
      [412, 3723, 412.5, 412.4].map((value) => ({ ok: true, value })),
    );
    expect(readSeconds('soon').ok).toBe(false);
  });

  it('a scene that ends before it begins is refused with words', () => {
    const f = TestBed.createComponent(ScenesPanel);
    f.componentRef.setInput('run', run([10, 10, 10]));
    f.detectChanges();
    const { form } = f.componentInstance;
    form.setValue({ name: 'gate', fromS: 5, toS: 4 });
    f.componentInstance.add(f.nativeElement as HTMLElement);
    f.detectChanges();
    expect(words(f.nativeElement as HTMLElement)).toContain('To: after the beginning');
    expect(form.controls.name.value).toBe('gate');
  });
});
