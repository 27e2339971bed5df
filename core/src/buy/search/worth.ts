import type { Banded } from '../../runs';

/** What has to be true of whatever is bought, beside frames. */
export const NEEDS = ['target', 'portable', 'quiet'] as const;
export type Need = (typeof NEEDS)[number];

/** One way to spend the money, or to keep it. Amounts in minor units, over the same years. */
export interface SpendingOption {
  readonly kind: 'set' | 'keep' | 'laptop' | 'desktop';
  readonly name: string;
  /** Parts not owned and forgotten items, less what is sold for it and what it sells for again; null: not known. */
  readonly netMinor: number | null;
  readonly fps: Banded | null;
  /** Stated needs it keeps. */
  readonly keeps: readonly Need[];
}
/** Cost of one frame/s gained beside keeping what is there, minor units; null where nothing is gained or known. */
export interface WayRow extends SpendingOption {
  readonly gainFps: number | null;
  readonly perFrameMinor: number | null;
}

/** What decided: its gain is lost in the band, another way is as good for less, or the cost of a frame gained. */
export type Deciding = 'band' | 'as-good-for-less' | 'cost-per-frame' | 'only-way' | 'unknown';
export interface Worth {
  readonly worth: boolean | null;
  readonly by: Deciding;
  readonly set: WayRow;
  /** The way it was held against where one decided. */
  readonly rival: WayRow | null;
  readonly rows: readonly WayRow[];
}

function rowOf(way: SpendingOption, keep: SpendingOption | null): WayRow {
  const gain = way.fps && keep?.fps && way.kind !== 'keep' ? way.fps.mid - keep.fps.mid : null;
  // Whoever gives no frames of today compares with none: the whole figure is the gain.
  const gainFps = keep?.fps ? gain : way.kind === 'keep' ? null : (way.fps?.mid ?? null);
  const known = gainFps !== null && gainFps > 0 && way.netMinor !== null;
  return {
    ...way,
    gainFps,
    perFrameMinor: known ? (way.netMinor as number) / (gainFps as number) : null,
  };
}

/**
 * Compares buying a set with keeping the present machine, a laptop and a desktop. Not worth it where another option keeps
 * every stated need as well for less, nor where the gain lies inside the band; otherwise the cost of each frame gained
 * is reported. Common practice, no published source. Worked example: a set for 600 net gives 80 frames/s, the present
 * laptop 30: 12.00 for each frame gained. A desktop for 900 gives 95: 13.85 for each. Worth it, by the cost of a frame.
 *
 * @param set the set, prices in minor units
 * @param others the other options, `keep` among them when the present machine is known
 * @returns verdict (null: undecided), the line that decided, and one row an option
 */
export function worthOf(set: SpendingOption, others: readonly SpendingOption[]): Worth {
  const keep = others.find((w) => w.kind === 'keep') ?? null;
  const row = rowOf(set, keep);
  const rivals = others.filter((w) => w !== keep).map((w) => rowOf(w, keep));
  const rows = [row, ...(keep ? [rowOf(keep, null)] : []), ...rivals];
  const said = (worth: boolean | null, by: Deciding, rival: WayRow | null = null): Worth => ({
    worth,
    by,
    set: row,
    rival,
    rows,
  });
  const { fps, netMinor } = set;
  if (!fps || netMinor === null) return said(null, 'unknown');
  if (keep?.fps && fps.lo <= keep.fps.hi && netMinor > 0)
    return said(false, 'band', rowOf(keep, null));
  const asGood = rivals
    .filter((r) => r.fps && r.netMinor !== null && r.netMinor < netMinor && r.fps.mid >= fps.mid)
    .filter((r) => set.keeps.every((n) => r.keeps.includes(n)))
    .sort((a, b) => (a.netMinor as number) - (b.netMinor as number))[0];
  if (asGood) return said(false, 'as-good-for-less', asGood);
  const nearest = rivals
    .filter((r) => r.perFrameMinor !== null && set.keeps.every((n) => r.keeps.includes(n)))
    .sort((a, b) => (a.perFrameMinor as number) - (b.perFrameMinor as number))[0];
  if (!nearest) return said(true, 'only-way');
  return said(true, 'cost-per-frame', nearest);
}

/** Money of a dock and card that several hosts share: what is bought once, and what each host needs of its own. */
export interface Shared {
  readonly onceMinor: number;
  readonly eachMinor: number;
}

/**
 * Number of hosts from which a shared set is cheaper than a machine for each: the least n with once + n each < n other.
 * Worked example: 900 once and 40 a host against 700 a machine: 900 + 80 = 980 < 1400 at two hosts, 940 > 700 at one.
 *
 * @param shared cost once and for each host, minor units
 * @param otherMinor cost of a machine for one host, minor units
 * @returns n; null when each host's own share costs at least a machine
 * @example breakEvenHosts({ onceMinor: 90000, eachMinor: 4000 }, 70000) // => 2
 */
export function breakEvenHosts(
  { onceMinor, eachMinor }: Shared,
  otherMinor: number,
): number | null {
  const saved = otherMinor - eachMinor;
  return saved <= 0 ? null : Math.floor(onceMinor / saved) + 1;
}
