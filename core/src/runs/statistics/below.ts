export interface Below {
  /** Frames slower than the limit, and the time they took. */
  readonly frames: number;
  readonly seconds: number;
}

/**
 * Frames slower than a rate.
 * @param frames frame times in ms, not modified
 * @param fps the rate in frames/s, above 0
 * @returns how many there are and how long they last
 */
export function below(frames: Float32Array, fps: number): Below {
  const limit = 1000 / fps;
  let n = 0;
  let ms = 0;
  for (const f of frames)
    if (f > limit) {
      n++;
      ms += f;
    }
  return { frames: n, seconds: ms / 1000 };
}
