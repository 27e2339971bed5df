import { mean, middleOf, type Range, type SymptomId } from '../../base';
import { compareRuns } from '../comparison/compare';
import type { RunGroup } from '../comparison/groups';
import type { MeasuredPair } from '../comparison/pairs';
import { downRate } from '../rig';
import { sensorMean } from './observed';
import { FLAT, heldMemory, otherCards } from './signs';

/** Things in a run that should make somebody look. */
export const ALARMS = {
  'rank-inversion': 'The stronger card is the slower one',
  'worse-than-inside': 'Slower than the graphics inside the host',
  'flat-lows': 'Averages grow with the card, lows do not',
  cap: 'Something holds the frames to a rate',
  'memory-clock': 'The memory of the card runs slow',
  throttled: 'It gets slower as it runs, and a clock falls with it',
  'periodic-hitch': 'A hitch comes back in a fixed time',
  impossible: 'A reading that cannot be',
  'beyond-traffic': 'The link overhead is more than traffic explains',
} as const;
export type AlarmId = keyof typeof ALARMS;
export const ALARM_IDS = Object.keys(ALARMS) as AlarmId[];

/**
 * How often each is raised where nothing is wrong: counted over made rigs without any fault (seeds 1 to 400) that the rules were not made
 * from. A test counts again on other seeds and holds every rate to 5 in 100; `npm run bench` prints them.
 */
export const FALSE_ALARMS = { rigs: 400, raised: 0 } as const;

/** What an alarm is to somebody who looks for its cause; those that are about the reading itself lead nowhere. */
export const ALARM_SYMPTOMS: Readonly<Partial<Record<AlarmId, SymptomId>>> = {
  'rank-inversion': 'bigger-slower',
  'worse-than-inside': 'slower-than-inside',
  'flat-lows': 'poor-lows',
  cap: 'flat-frames',
  'memory-clock': 'memory-clock-half',
  'periodic-hitch': 'regular-hitch',
  'beyond-traffic': 'low-copy',
};

export interface Alarm {
  readonly id: AlarmId;
  readonly params: Readonly<Record<string, number | string>>;
  /** Ids of the runs it stands on. */
  readonly runs: readonly string[];
}

const alarm = (
  id: AlarmId,
  params: Alarm['params'],
  ...of: readonly Pick<RunGroup, 'runs'>[]
): Alarm => ({
  id,
  params,
  runs: of.flatMap((g) => g.runs.map((r) => r.id)),
});
const speeds = (c: RunGroup) => c.ms.map((ms) => 1000 / ms);

/** The card that should be faster: by index, where both have one. */
function stronger(a: RunGroup, b: RunGroup): RunGroup | null {
  const x = a.first.rig.cardIndex;
  const y = b.first.rig.cardIndex;
  return !x || !y || middleOf(x) === middleOf(y) ? null : middleOf(x) > middleOf(y) ? a : b;
}

function cardAlarms(c: RunGroup, cells: readonly RunGroup[]): Alarm[] {
  return otherCards(c, cells).flatMap((o): Alarm[] => {
    const found: Alarm[] = [];
    const top = stronger(c, o);
    const low = top === c ? o : c;
    if (top) {
      const r = compareRuns(speeds(low), speeds(top));
      if (r.says === 'real' && r.of < 1)
        found.push(
          alarm(
            'rank-inversion',
            {
              card: top.first.rig.card,
              by: low.first.rig.card,
              percent: (1 - r.of) * 100,
            },
            c,
            o,
          ),
        );
    }
    const lows = (x: RunGroup) => x.runs.flatMap((run) => run.stats?.low1.at ?? []);
    const [slow, fast] = mean(c.ms) > mean(o.ms) ? [c, o] : [o, c];
    const ls = lows(slow);
    const lf = lows(fast);
    const averages = compareRuns(speeds(slow), speeds(fast));
    if (ls.length >= 2 && lf.length >= 2 && averages.says === 'real' && averages.of >= 1.15) {
      const r = compareRuns(ls, lf);
      if ((r.hi ?? Infinity) < averages.of && r.of < FLAT.frames)
        found.push(
          alarm(
            'flat-lows',
            { averages: averages.of, lows: r.of, card: fast.first.rig.card },
            c,
            o,
          ),
        );
    }
    return found;
  });
}

/** The same title at the same size on the graphics inside this host. */
function insideAlarm(c: RunGroup, cells: readonly RunGroup[]): Alarm[] {
  if (c.first.settings.deviceSet === 'inside') return [];
  const inside = cells.filter(
    (o) =>
      o.first.settings.deviceSet === 'inside' &&
      o.first.titleId === c.first.titleId &&
      o.pixels === c.pixels &&
      o.first.rig.host === c.first.rig.host,
  );
  return inside.flatMap((o) => {
    const r = compareRuns(speeds(o), speeds(c));
    return r.says === 'real' && r.of < 1
      ? [alarm('worse-than-inside', { percent: (1 - r.of) * 100 }, c, o)]
      : [];
  });
}

/** Figures no meter can show rightly: loads over 100 %, a card far over its board power, heat no chip lives through. */
function impossible(c: RunGroup): Alarm[] {
  const found: Alarm[] = [];
  for (const sensor of ['card-load', 'cpu-load'] as const) {
    const v = sensorMean(c, sensor);
    if (v !== null && (v > 101 || v < 0))
      found.push(alarm('impossible', { sensor, value: v, most: 100 }, c));
  }
  const w = sensorMean(c, 'card-w');
  const board = c.first.rig.boardW;
  if (w !== null && board && w > 1.6 * board.hi)
    found.push(alarm('impossible', { sensor: 'card-w', value: w, most: board.hi }, c));
  for (const sensor of ['card-c', 'cpu-c'] as const) {
    const v = sensorMean(c, sensor);
    if (v !== null && (v > 125 || v < -20))
      found.push(alarm('impossible', { sensor, value: v, most: 125 }, c));
  }
  return found;
}

/** A link overhead that needs more than this a frame, MB, is more than traffic explains (common practice, no published source). */
const MAX_TRAFFIC_MB = 40;
const BITS = 8;

/** What the frame model says the link costs a frame, for alarms: the ends of its 80 % band, ms. */
export interface OverheadSeen extends Range {
  readonly mid: number;
}

/** An overhead that even at its low end no traffic explains. */
function beyondTraffic(c: RunGroup, overhead: OverheadSeen | null): Alarm[] {
  const gbps = downRate(c.first.rig);
  if (!overhead || gbps === null || c.first.rig.slot) return [];
  const leastMB = (overhead.lo * gbps) / BITS;
  return leastMB > MAX_TRAFFIC_MB
    ? [alarm('beyond-traffic', { ms: overhead.lo, trafficMB: leastMB }, c)]
    : [];
}

/** Faster through the link than in a slot of the same machine, by more than chance. */
function fasterThanSlot(c: RunGroup, pairs: readonly MeasuredPair[]): Alarm[] {
  return pairs
    .filter((p) => p.b === c && p.kind === 'slot' && !p.foreign && (p.difference.hi ?? 0) < 0)
    .slice(0, 1)
    .map((p) =>
      alarm('impossible', { sensor: 'link', value: -p.difference.mid, most: 0 }, p.a, p.b),
    );
}

/** Most of the repeats are held to a rate that nobody set. */
function capAlarm(c: RunGroup): Alarm[] {
  if (c.capFps === null || c.first.settings.capFps) return [];
  const runs = c.runs.filter((r) => r.stats?.cap);
  const percent = mean(runs.map((r) => (r.stats?.cap?.share ?? 0) * 100));
  return [alarm('cap', { fps: c.capFps, percent }, { runs })];
}

function throttledAlarm(c: RunGroup): Alarm[] {
  const t = c.throttled;
  if (!t) return [];
  const runs = c.runs.filter((r) => r.stats?.slowing);
  const clock = (1 - t.clock) * 100;
  return [alarm('throttled', { from: t.fromFps, to: t.toFps, sensor: t.sensor, clock }, { runs })];
}

function hitchAlarm(c: RunGroup): Alarm[] {
  const runs = c.runs.filter((r) => r.stats?.period);
  const hitch = runs[0]?.stats?.period;
  return hitch
    ? [alarm('periodic-hitch', { seconds: hitch.seconds, percent: hitch.strength * 100 }, { runs })]
    : [];
}

/**
 * Everything in a group of runs that should make somebody look, the most telling first.
 * @param c the group that is looked at
 * @param groups every group that is known
 * @param pairs measured pairs among them
 * @param overhead what the frame model says the link costs; null where it is not computed
 * @returns alarms with their figures
 */
export function alarmsOf(
  c: RunGroup,
  groups: readonly RunGroup[],
  pairs: readonly MeasuredPair[],
  overhead: OverheadSeen | null,
): Alarm[] {
  const held = heldMemory(c, groups);
  return [
    ...(held ? [alarm('memory-clock', { ...held }, c)] : []),
    ...cardAlarms(c, groups),
    ...insideAlarm(c, groups),
    ...beyondTraffic(c, overhead),
    ...fasterThanSlot(c, pairs),
    ...capAlarm(c),
    ...throttledAlarm(c),
    ...hitchAlarm(c),
    ...impossible(c),
  ];
}
