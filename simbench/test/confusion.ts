import { ALIKE } from '@ruddy/core/runs';
import { makeRig, trueShares, type Oddity } from '../src/frames';
import { verdictOn, type Effort } from './measure';

/** How the limiter did over a row of made rigs. */
export interface Tally {
  /** Rigs whose largest true share leads by 10 of 100 or more, and how often it was named, something else was, or neither. */
  clear: number;
  right: number;
  wrong: number;
  open: number;
  /** Rigs whose two largest are closer, and how often it said so. */
  near: number;
  saidNear: number;
  /** Shares inside their 95 % interval, of all shares. */
  inside: number;
  shares: number;
  /** True stage to said, `cannot tell` among them. */
  table: Record<string, Record<string, number>>;
}

const STAGES = ['cpu', 'card', 'link'] as const;
const AT = { width: 2560, height: 1440 } as const;

export function tallyOf(
  firstSeed: number,
  n: number,
  odd: Oddity = 'none',
  effort: Effort = {},
): Tally {
  const t: Tally = {
    clear: 0,
    right: 0,
    wrong: 0,
    open: 0,
    near: 0,
    saidNear: 0,
    inside: 0,
    shares: 0,
    table: {},
  };
  for (let seed = firstSeed; seed < firstSeed + n; seed++) {
    const rig = makeRig(seed, odd);
    const truth = trueShares(rig, { ...AT, seconds: 40, repeat: 77 });
    const { judged, named } = verdictOn(rig, effort);
    const order = [...STAGES].sort((a, b) => truth[b] - truth[a]);
    const top = order[0] ?? 'cpu';
    const next = order[1] ?? 'cpu';
    const said = named?.says === 'named' ? named.stage : 'cannot tell';
    const isNear = truth[top] - truth[next] < ALIKE;
    if (isNear) {
      t.near++;
      if (said === 'cannot tell') t.saidNear++;
    } else {
      t.clear++;
      if (said === top) t.right++;
      else if (said === 'cannot tell') t.open++;
      else t.wrong++;
    }
    const row = isNear ? 'two alike' : top;
    t.table[row] ??= {};
    t.table[row][said] = (t.table[row][said] ?? 0) + 1;
    for (const s of STAGES) {
      const share = judged?.shares[s];
      t.shares++;
      if (share && share.lo <= truth[s] && truth[s] <= share.hi) t.inside++;
    }
  }
  return t;
}
