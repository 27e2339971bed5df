import type { CopyReading } from '@ruddy/core/bring-up';
import type { BenchRun } from './simulate';
import { currentTopology } from './simulated-bench';

const REPEATS = 5;

/** Box-Muller: a normal draw from two even ones. Source: Box and Muller, Annals of Mathematical Statistics 29 (1958), 610-611. */
function normal(u: number, v: number): number {
  return Math.sqrt(-2 * Math.log(1 - u)) * Math.cos(2 * Math.PI * v);
}

/**
 * Read the copy rate of a bench as a copy program would: pinned memory, five transfers of 256 MB, the middle one given with the
 * spread. A bench moves 93 to 98 % of what its link carries, always the same share, and each transfer wavers by about 1 %. Null
 * while no driver holds a card. `n` counts the readings, so that no two are alike.
 */
export function readCopy(run: BenchRun, direction: 'down' | 'up', n: number): CopyReading | null {
  const { world: w, state } = run;
  const k = currentTopology(w);
  if (!k || (state.stage !== 'bound' && state.stage !== 'in-use')) return null;
  const share = 0.93 + 0.05 * w.noise('copy share');
  const rate = k.usable(state.traffic)[direction] * share;
  const one = (i: number) =>
    rate *
    (1 +
      0.01 *
        normal(w.noise(`copy ${direction} ${n} a`, i), w.noise(`copy ${direction} ${n} b`, i)));
  const all = Array.from({ length: REPEATS }, (_, i) => one(i)).sort((a, b) => a - b);
  const least = all[0] ?? 0;
  const middle = all[Math.floor(REPEATS / 2)] ?? 0;
  const most = all[REPEATS - 1] ?? 0;
  return {
    value: Math.round(middle * 100) / 100,
    unit: 'Gb/s',
    direction,
    memory: 'pinned',
    transferMB: 256,
    repeats: REPEATS,
    spreadPercent: Math.round(((most - least) / middle) * 1000) / 10,
    // A copy program does not see what else is under way.
    traffic: state.traffic ? 'busy' : null,
    clocks: '',
  };
}
