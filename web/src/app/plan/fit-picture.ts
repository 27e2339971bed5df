import { exact, type Num, stated } from '@ruddy/core/base';
import { figure } from '@ruddy/core/base/text';
import type { CardSpec, DockSpec } from '@ruddy/core/parts';
import type { StaticFacts } from '@ruddy/core/plan';

/** A box in mm from the bracket (x) and from the slot's contacts upwards (y). */
export interface Box {
  readonly w: number;
  readonly h: number;
}

export interface FitPicture {
  /** Inner room of the dock; null for an open board or when not known. */
  readonly room: Box | null;
  readonly card: Box | null;
  /** Room the power plug needs to bend, above the card or behind it. */
  readonly bend: { readonly side: 'top' | 'end'; readonly mm: number } | null;
  /** Free room along and above, mm; negative when it does not fit. */
  readonly clear: { readonly along: number | null; readonly above: number | null };
  /** Widest extent of all, for the scale. */
  readonly extent: Box;
  readonly words: string;
}

const most = (n: Num | undefined) => stated(n)?.hi ?? null;
const least = (n: Num | undefined) => stated(n)?.lo ?? null;

/** What the side view shows, worst case: the largest card the figures allow in the smallest room. */
export function fitPicture(
  card: CardSpec | null,
  dock: DockSpec | null,
  fit: StaticFacts['fit'],
): FitPicture | null {
  if (!card || !dock || !fit) return null;
  const cl = most(card.lengthMm);
  const ch = most(card.heightMm);
  const [rl, rh] = fit.openBoard
    ? [null, null]
    : [least(dock.innerLengthMm), least(dock.innerHeightMm)];
  const size = cl !== null && ch !== null ? { w: cl, h: ch } : null;
  const room = rl !== null && rh !== null ? { w: rl, h: rh } : null;
  if (!size && !room) return null;
  const bend = fit.bend;
  const endMm = bend?.side === 'end' ? bend.mm : 0;
  const topMm = bend?.side === 'end' ? 0 : (bend?.mm ?? 0);
  const along = size && room ? room.w - size.w - endMm : null;
  const above = size && room ? room.h - size.h - topMm : null;
  const say = (mm: number | null, plugMm: number, where: string, big: string) => {
    if (mm === null) return '';
    const size = figure(exact(Math.abs(mm)));
    if (mm >= 0) return `${size} mm left ${where}`;
    return mm + plugMm >= 0
      ? `${size} mm missing for the plug ${where}`
      : `${size} mm too ${big}${plugMm > 0 ? ' with its plug' : ''}`;
  };
  const words = [say(along, endMm, 'behind it', 'long'), say(above, topMm, 'above it', 'high')]
    .filter((s) => s !== '')
    .join(', ');
  return {
    room,
    card: size,
    bend,
    clear: { along, above },
    extent: {
      w: Math.max(room?.w ?? 0, (size?.w ?? 0) + endMm),
      h: Math.max(room?.h ?? 0, (size?.h ?? 0) + topMm),
    },
    words:
      words ||
      (fit.openBoard ? 'open board: nothing stands round the card' : 'not all sizes are known'),
  };
}
