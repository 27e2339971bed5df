import {
  effect,
  linkedSignal,
  untracked,
  type OutputEmitterRef,
  type Signal,
  type WritableSignal,
} from '@angular/core';
import type { Interval } from '../platform/kit/zoom-range';

/** A hand that zooms or drags rests for so long before the address follows. */
const RESTS_MS = 400;

function readInterval(words: string): Interval | null {
  const m = /^(\d+)-(\d+)$/.exec(words);
  return m && Number(m[2]) > Number(m[1]) ? [Number(m[1]), Number(m[2])] : null;
}

/**
 * The interval that charts of a run show, ms from its start; null shows all. It begins as the address has it ("2000-4000") and the
 * address follows it.
 */
export function addressedInterval(
  inAddress: Signal<string>,
  changed: OutputEmitterRef<string>,
): WritableSignal<Interval | null> {
  const interval = linkedSignal(() => readInterval(inAddress()));
  effect((onCleanup) => {
    const now = interval();
    const words = now ? `${Math.round(now[0])}-${Math.round(now[1])}` : '';
    if (words === untracked(inAddress)) return;
    const later = setTimeout(() => changed.emit(words), RESTS_MS);
    onCleanup(() => clearTimeout(later));
  });
  return interval;
}

/** What is shown of a run; an interval that lies after its end shows nothing, so all is shown. */
export function shownInterval(interval: Interval | null, lengthMs: number): Interval {
  return interval && interval[0] < lengthMs ? interval : [0, lengthMs];
}
