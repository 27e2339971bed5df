import { endsText, estimateParts, estimateText, figureText } from '../../base/text';
import type { MeasuredValue } from '../model/pairs';
import type { TollRead } from '../model/toll';

type Toll = (MeasuredValue | (Omit<MeasuredValue, 'mid'> & { ms: number })) & {
  basis?: TollRead['basis'];
};

/**
 * "4.6 ms a frame (±0.3)", or bare "4.6 ±0.3"; without repeats it says so; an interval, or one wider than half its figure, by its ends:
 * "0 to 5.1 ms a frame".
 */
export function tollText(t: Toll, bare = false): string {
  const mid = 'mid' in t ? t.mid : t.ms;
  const unit = bare ? '' : ' ms a frame';
  if (t.basis === 'interval')
    return `${endsText({ lo: t.lo ?? 0, hi: t.hi ?? mid }, -Infinity, 2)}${unit}`;
  if (t.lo === null || t.hi === null)
    return `${figureText(mid, 2)}${bare ? '' : `${unit} (too few repeats for an interval)`}`;
  const e = { mid, lo: t.lo, hi: t.hi };
  if (bare) return estimateText(e, -Infinity, 2);
  const { figure, give } = estimateParts(e, -Infinity, 2);
  return `${figure}${unit}${give === '' ? '' : ` (${give})`}`;
}
