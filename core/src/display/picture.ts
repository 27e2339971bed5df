import type { RuleId } from '../house';
import type { AttrPath, Chain, DpLevel, HdmiLevel, Shown } from '../schema';
import { openOf, stated, type Num } from '../units';
import { partName } from '../setup';
import { DP_GBPS, HDMI_GBPS, mayCompress } from './rates';
import { pixelMHz } from './timing';

export interface PictureFacts {
  readonly key: string;
  readonly name: string;
  readonly by: 'card' | 'dock';
  readonly plug: 'displayport' | 'hdmi';
  readonly mode: { readonly widthPx: number; readonly heightPx: number; readonly hz: number } | null;
  /** What the mode needs and what both ends carry, Gb/s; null when not known. */
  readonly needGbps: number | null;
  readonly haveGbps: number | null;
  readonly verdict: 'fits' | 'compressed' | 'too-much' | 'no-plug' | null;
  /** Which end has no such plug, or the lower rate. */
  readonly weaker: 'out' | 'screen' | null;
  readonly open: readonly AttrPath[];
}

function level(plug: Shown['plug'], end: { dpLevel: unknown; hdmiLevel: unknown }): number | null {
  const word = plug === 'displayport' ? end.dpLevel : end.hdmiLevel;
  if (typeof word !== 'string') return null;
  return plug === 'displayport' ? DP_GBPS[word as DpLevel] : HDMI_GBPS[word as HdmiLevel];
}

const one = (n: Num) => (typeof n === 'number' ? n : (stated(n)?.hi ?? null));

/** Every screen of a chain: what its mode needs, what its two ends carry, and whether compression is what makes it fit. */
export function pictureFacts(chain: Chain, rule: (id: RuleId) => number): PictureFacts[] {
  return chain.picture.map(({ key, by, plug, screen }): PictureFacts => {
    const at = `picture/${key}`;
    const out = by === 'card' ? chain.card : chain.dock && { dpLevel: chain.dock.videoOut, hdmiLevel: null, compression: null };
    const outLevel = out && level(plug, out);
    const inLevel = level(plug, screen);
    const [w, h, hz] = [one(screen.widthPx), one(screen.heightPx), one(screen.hz)];
    const mode = w !== null && h !== null && hz !== null ? { widthPx: w, heightPx: h, hz } : null;
    const bits = typeof screen.bits === 'string' ? Number(screen.bits) : 24;
    const version = screen.blanking === 'v2' ? 2 : 1;
    const needGbps = mode && (pixelMHz(plug, mode.widthPx, mode.heightPx, mode.hz, version) * bits) / 1000;
    const ends = [outLevel, inLevel].filter((l) => l !== null);
    const haveGbps = ends.includes(0) ? 0 : ends.length === 2 ? Math.min(...ends) : null;
    const both = out?.compression === 'yes' && screen.compression === 'yes';
    const weaker =
      outLevel === null || inLevel === null
        ? outLevel === 0
          ? 'out'
          : inLevel === 0
            ? 'screen'
            : null
        : outLevel <= inLevel
          ? 'out'
          : 'screen';
    let verdict: PictureFacts['verdict'] = null;
    if (haveGbps === 0) verdict = 'no-plug';
    else if (needGbps !== null && haveGbps !== null) {
      const squeezed = needGbps / rule('screen.compression');
      if (needGbps <= haveGbps) verdict = 'fits';
      else verdict = both && mayCompress(plug, haveGbps) && squeezed <= haveGbps ? 'compressed' : 'too-much';
    }
    const outPath = by === 'card' ? `card/${plug === 'displayport' ? 'dpLevel' : 'hdmiLevel'}` : 'dock/videoOut';
    return {
      key,
      name: partName(screen),
      by,
      plug,
      mode,
      needGbps,
      haveGbps,
      verdict,
      weaker,
      open: [
        ...(out && outLevel === null ? [outPath] : []),
        ...(inLevel === null ? [`${at}/${plug === 'displayport' ? 'dpLevel' : 'hdmiLevel'}`] : []),
        ...openOf({ [`${at}/widthPx`]: screen.widthPx, [`${at}/heightPx`]: screen.heightPx, [`${at}/hz`]: screen.hz }),
      ],
    };
  });
}
