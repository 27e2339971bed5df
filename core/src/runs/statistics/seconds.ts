/**
 * Frames/s of each whole second of a run: a frame counts in each second by the part of it that lies in it. What is
 * left of the last second counts nowhere.
 * @param frames frame times in ms
 * @returns frames/s, one after another from the start
 */
export function perSecond(frames: Float32Array): number[] {
  const out: number[] = [];
  let left = 1000;
  let count = 0;
  for (const ms of frames) {
    let rest = ms;
    while (rest >= left) {
      out.push(count + left / ms);
      rest -= left;
      left = 1000;
      count = 0;
    }
    count += rest / ms;
    left -= rest;
  }
  return out;
}
