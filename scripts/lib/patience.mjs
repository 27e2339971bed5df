import { availableParallelism, getPriority, loadavg } from 'node:os';

const STEPS = 2_000_000;
/** Wall time of `STEPS` steps in a new process on the idle two-core machine the limits were chosen on, ms (measured: 20 to 24). */
const REFERENCE_MS = 24;
/** Each step of niceness weighs a process about 1.25 times less: the kernel's `sched_prio_to_weight`, from memory. */
const NICE_STEP = 1.25;
const MAX = 200;

/** Wall time of a fixed piece of arithmetic, ms. */
function calibrate() {
  const began = performance.now();
  let x = 1;
  for (let i = 0; i < STEPS; i++) x = (x * 1_103_515_245 + 12_345 + i) | 0;
  // The sum is used, so that the loop is not removed by the compiler.
  return x === 0.5 ? 0 : performance.now() - began;
}

/**
 * How many times longer than on the idle reference machine the same work may take here and now: 1 or more, at most 200. The larger of
 * the measured speed and the load per core, weighed by this process's niceness.
 */
export function patience() {
  const speed = calibrate() / REFERENCE_MS;
  const load = (loadavg()[0] / availableParallelism()) * NICE_STEP ** Math.max(0, getPriority());
  return Math.min(MAX, Math.max(1, speed, load));
}

/** A limit for waiting, in ms, stretched for this machine and its load. It ends what hangs; it is never what a test asserts. */
export function patient(ms) {
  return Math.round(ms * patience());
}
