import { clearTimeout, setTimeout } from 'node:timers';
import { say } from './say.mjs';

/** A program that ran this long was well: the next pause is short again. */
const WELL_MS = 60_000;
const FIRST_MS = 1000;
const LONGEST_MS = 60_000;

/** The pause before a program that died is started again: 1, 2, 4, … up to 60 s. */
export const pauseAfter = (deaths) => Math.min(FIRST_MS * 2 ** (deaths - 1), LONGEST_MS);

/**
 * Keeps a program running. `begin` starts it and resolves with `{child}`, or with `{child, code}` when it gave up
 * before it was ready; a first start that gives up is not tried again. `pause` and `tell` are for tests.
 * @returns `{first, stop}`: how the first start went, and what ends it for good
 */
export async function supervise(begin, { stopChild, pause = pauseAfter, tell = say }) {
  const first = await begin();
  if (first.code !== undefined) return { first, stop: () => Promise.resolve() };
  let child = first.child;
  let deaths = 0;
  let since = Date.now();
  let waiting = null;
  let stopping = false;

  const died = (code, signal) => {
    if (stopping) return;
    deaths = Date.now() - since >= WELL_MS ? 1 : deaths + 1;
    const ms = pause(deaths);
    tell(`The server ended (${signal ?? `exit ${code}`}); it starts again in ${ms / 1000} s.`);
    waiting = setTimeout(again, ms);
  };
  const watch = (next) => {
    child = next;
    child.once('exit', died);
  };
  async function again() {
    since = Date.now();
    const next = await begin();
    if (stopping) return stopChild(next.child);
    if (next.code !== undefined) died(next.code, null);
    else {
      watch(next.child);
      tell('The server is back.');
    }
  }
  watch(child);
  return {
    first,
    stop() {
      stopping = true;
      clearTimeout(waiting);
      return stopChild(child);
    },
  };
}
