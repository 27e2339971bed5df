import type { Measured, TollRead } from '../toll';
import { figureText } from './figures';

/** "4.6 ms a frame (±0.3)", or bare "4.6 ±0.3"; without repeats it says so; an interval as "0 to 5.1 ms a frame". */
export function tollText(
  t: (Measured | (Omit<Measured, 'mid'> & { ms: number })) & { basis?: TollRead['basis'] },
  bare = false,
): string {
  const mid = 'mid' in t ? t.mid : t.ms;
  if (bare && t.basis !== 'interval')
    return `${figureText(mid, 2)}${t.lo === null || t.hi === null ? '' : ` ±${figureText((t.hi - t.lo) / 2, 2)}`}`;
  if (bare) return `${figureText(t.lo ?? 0, 2)} to ${figureText(t.hi ?? mid, 2)}`;
  if (t.basis === 'interval') return `${figureText(t.lo ?? 0, 2)} to ${figureText(t.hi ?? mid, 2)} ms a frame`;
  const give = t.lo === null || t.hi === null ? '(too few repeats for an interval)' : `(±${figureText((t.hi - t.lo) / 2, 2)})`;
  return `${figureText(mid, 2)} ms a frame ${give}`;
}
