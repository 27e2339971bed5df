const LOOK_MS = 50;
/** A standstill longer than this is told: somebody waited for it. */
export const HELD_MS = 200;

/**
 * Watches that events are handled: a timer that comes late was held up by something that computed meanwhile.
 * @param held is told how long they stood still, ms
 * @returns ends the watching
 */
export function watchLoop(held: (ms: number) => void): () => void {
  let last = performance.now();
  const timer = setInterval(() => {
    const now = performance.now();
    const late = now - last - LOOK_MS;
    last = now;
    if (late > HELD_MS) held(Math.round(late));
  }, LOOK_MS).unref();
  return () => clearInterval(timer);
}
