/** Made runs for tests: a plain generator that shares nothing with what it tests. */
function randomFrom(seed: number): () => number {
  let a = seed >>> 0;
  return () => {
    a = (Math.imul(a, 1664525) + 1013904223) >>> 0;
    return a / 4294967296;
  };
}

export interface Made {
  seed: number;
  meanMs: number;
  seconds: number;
  /** Half-width of the even scatter of a frame, as a share. */
  jitter?: number;
  hitch?: { everyS: number; ms: number };
}

export function makeFrames({ seed, meanMs, seconds, jitter = 0.1, hitch }: Made): {
  frames: Float32Array;
} {
  const random = randomFrom(seed);
  const out: number[] = [];
  let at = 0;
  let due = hitch ? hitch.everyS * 500 : Infinity;
  while (at < seconds * 1000) {
    let ms = meanMs * (1 + jitter * (2 * random() - 1));
    if (hitch && at >= due) {
      ms = hitch.ms;
      due += hitch.everyS * 1000;
    }
    out.push(ms);
    at += ms;
  }
  return { frames: Float32Array.from(out) };
}

/** Times in s of things that happen by chance alone, n of them (exponential gaps). */
export function makeLog(seed: number, n: number): number[] {
  const random = randomFrom(seed * 7919);
  let at = 0;
  return Array.from({ length: n }, () => (at += -3 * Math.log(1 - random())));
}
