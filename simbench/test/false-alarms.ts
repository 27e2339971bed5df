import {
  ALARM_IDS,
  type AlarmId,
  alarmsOf,
  cellOfRun,
  eightyBand,
  evidenceOfRuns,
  groupRuns,
  type OverheadSeen,
  overheadOf,
  pairsOf,
  posteriorOf,
  type RunGroup,
  type RunSeen,
} from '@ruddy/core/runs';
import { makeRig, type MadeRig } from '../src/frames';
import { measured } from './measure';

/** Where in a range a rig lies, so that the narrow cases come up as well. */
const part = (seed: number, n: number, lo: number, hi: number) =>
  lo + (hi - lo) * ((seed * 0.6180339887 * n) % 1);

/** A rig with nothing wrong: the card is the longest stage and busy nine tenths of the time. */
export function cleanRig(seed: number): MadeRig {
  const rig = makeRig(seed);
  const cardMs = rig.cpuMs * part(seed, 1, 1.1, 2.4);
  const longMs = cardMs * (16 / 9) ** rig.exponent;
  // The link takes up to 7 of 100 of the frame.
  const trafficMB = ((part(seed, 2, 0.01, 0.07) * longMs) / 8) * 26;
  return { ...rig, trafficMB, trips: 100, cardMs, linkGbps: 26, upGbps: 25.2, otherGbps: 126 };
}

const AT = { width: 2560, height: 1440 } as const;

/** Another card in the same place, from hardly to a third faster, and the graphics inside, from hardly slower on. */
function neighbours(rig: MadeRig, repeats: number): RunSeen[] {
  const runs = (r: MadeRig, change: (run: RunSeen) => RunSeen) =>
    Array.from({ length: repeats }, (_, i) => change(measured(r, AT, i + 30, {})));
  const index = (v: number) => ({ lo: v, hi: v });
  const big = runs(
    { ...rig, seed: rig.seed + 5e6, cardMs: rig.cardMs / part(rig.seed, 3, 1.005, 1.35) },
    (r) => ({
      ...r,
      id: `big ${r.id}`,
      setupId: 'big',
      rig: { ...r.rig, card: 'big', cardIndex: index(120) },
      facts: { ...r.facts, card: 'big' },
    }),
  );
  const inside = runs(
    { ...rig, seed: rig.seed + 6e6, cardMs: rig.cardMs * part(rig.seed, 4, 1.05, 4) },
    (r) => ({
      ...r,
      id: `inside ${r.id}`,
      setupId: 'own',
      settings: { ...r.settings, deviceSet: 'inside' as const },
      facts: { ...r.facts, deviceSet: 'inside' },
    }),
  );
  return [...big, ...inside];
}

function overheadSeen(runs: readonly RunSeen[], group: RunGroup): OverheadSeen | null {
  const cell = cellOfRun(group.first, group.capFps);
  const { evidence } = evidenceOfRuns(runs);
  const posterior = posteriorOf({ titleId: 'made', evidence, stated: null, refined: false }, cell);
  const overhead = overheadOf(posterior, cell);
  return overhead && eightyBand(overhead.ms);
}

/** How many of `n` clean rigs raise each alarm. */
export function falseAlarms(firstSeed: number, n: number): Record<AlarmId, number> {
  const counts = Object.fromEntries(ALARM_IDS.map((id) => [id, 0])) as Record<AlarmId, number>;
  for (let seed = firstSeed; seed < firstSeed + n; seed++) {
    const rig = cleanRig(seed);
    const own = Array.from({ length: 3 }, (_, i) => {
      const r = measured(rig, AT, i, { seconds: 40 });
      return { ...r, rig: { ...r.rig, cardIndex: { lo: 100, hi: 100 } } };
    });
    const pair = Array.from({ length: 3 }, (_, i) =>
      measured(rig, { ...AT, gbps: rig.otherGbps }, i + 10, {}),
    );
    const runs = [...own, ...pair, ...neighbours(rig, 3)];
    const groups = groupRuns(runs);
    const group = groups.find((c) => c.first.id === own[0]?.id) as RunGroup;
    const raised = alarmsOf(group, groups, pairsOf(groups).pairs, overheadSeen(runs, group));
    for (const id of new Set(raised.map((a) => a.id))) counts[id]++;
  }
  return counts;
}
