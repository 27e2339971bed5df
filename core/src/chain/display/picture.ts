import { type Num, openOf, type RuleId, stated } from '../../base';
import type { DpLevel, HdmiLevel } from '../../parts';
import { partName } from '../names';
import type { AttrPath, Chain, Shown } from '../schema/chain';
import { DP_GBPS, HDMI_GBPS, mayCompress } from './rates';
import { pixelMHz } from './timing';

export interface PictureFacts {
  readonly key: string;
  readonly name: string;
  readonly by: 'card' | 'dock';
  readonly plug: 'displayport' | 'hdmi';
  readonly mode: {
    readonly widthPx: number;
    readonly heightPx: number;
    readonly hz: number;
  } | null;
  /** What the mode needs and what both ends carry, Gb/s; null when not known. */
  readonly needGbps: number | null;
  readonly haveGbps: number | null;
  readonly verdict: 'fits' | 'compressed' | 'too-much' | 'no-plug' | null;
  /** Which end has no such plug, or the lower rate. */
  readonly weaker: 'out' | 'screen' | null;
  /** Attributes that could turn the verdict though its figures are there: depth, compression. */
  readonly doubt: readonly AttrPath[];
  readonly open: readonly AttrPath[];
}

function level(plug: Shown['plug'], end: { dpLevel: unknown; hdmiLevel: unknown }): number | null {
  const word = plug === 'displayport' ? end.dpLevel : end.hdmiLevel;
  if (typeof word !== 'string') return null;
  return plug === 'displayport' ? DP_GBPS[word as DpLevel] : HDMI_GBPS[word as HdmiLevel];
}

/** The deepest picture a screen may show, bits a pixel. */
const MAX_BITS = 36;

const one = (n: Num) => (typeof n === 'number' ? n : (stated(n)?.hi ?? null));

/** Every screen of a chain: what its mode needs, what its two ends carry, and whether compression is what makes it fit. */
export function pictureFacts(chain: Chain, rule: (id: RuleId) => number): PictureFacts[] {
  return chain.picture.map(({ key, by, plug, screen }): PictureFacts => {
    const at = `picture/${key}`;
    const out =
      by === 'card'
        ? chain.card
        : chain.dock && { dpLevel: chain.dock.videoOut, hdmiLevel: null, compression: null };
    const outLevel = out && level(plug, out);
    const inLevel = level(plug, screen);
    const w = one(screen.widthPx);
    const h = one(screen.heightPx);
    const hz = one(screen.hz);
    const mode = w !== null && h !== null && hz !== null ? { widthPx: w, heightPx: h, hz } : null;
    // Where depth and blanking are not stated the usual ones stand for them, and the figure is not certain.
    const bits = typeof screen.bits === 'string' ? Number(screen.bits) : 24;
    const version = screen.blanking === 'v2' ? 2 : 1;
    const rateOf = (depth: number) =>
      mode && (pixelMHz(plug, mode.widthPx, mode.heightPx, mode.hz, version) * depth) / 1000;
    const needGbps = rateOf(bits);
    const mostGbps = rateOf(typeof screen.bits === 'string' ? bits : MAX_BITS);
    const ends = [outLevel, inLevel].filter((l) => l !== null);
    const haveGbps = ends.includes(0) ? 0 : ends.length === 2 ? Math.min(...ends) : null;
    const both = out?.compression === 'yes' && screen.compression === 'yes';
    const neither = out?.compression === 'no' || screen.compression === 'no' || by === 'dock';
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
    const squeezes = (need: number, have: number) =>
      mayCompress(plug, have) && need / rule('screen.compression') <= have;
    const verdictAt = (need: number | null): PictureFacts['verdict'] => {
      if (haveGbps === 0) return 'no-plug';
      if (need === null || haveGbps === null) return null;
      if (need <= haveGbps) return 'fits';
      return both && squeezes(need, haveGbps) ? 'compressed' : 'too-much';
    };
    const verdict = verdictAt(needGbps);
    // Could what is not stated turn it? A deeper picture may no longer fit, and compression on both ends may make it fit.
    const deeper =
      (verdict === 'fits' || verdict === 'compressed') && verdictAt(mostGbps) === 'too-much';
    const squeezable =
      verdict === 'too-much' &&
      !both &&
      !neither &&
      haveGbps !== null &&
      needGbps !== null &&
      squeezes(needGbps, haveGbps);
    const outPath =
      by === 'card' ? `card/${plug === 'displayport' ? 'dpLevel' : 'hdmiLevel'}` : 'dock/videoOut';
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
      doubt: [
        ...(deeper || (squeezable && typeof screen.bits !== 'string') ? [`${at}/bits`] : []),
        ...(squeezable && typeof out?.compression !== 'string' ? ['card/compression'] : []),
        ...(squeezable && typeof screen.compression !== 'string' ? [`${at}/compression`] : []),
      ],
      open: [
        ...(out && outLevel === null ? [outPath] : []),
        ...(inLevel === null ? [`${at}/${plug === 'displayport' ? 'dpLevel' : 'hdmiLevel'}`] : []),
        ...openOf({
          [`${at}/widthPx`]: screen.widthPx,
          [`${at}/heightPx`]: screen.heightPx,
          [`${at}/hz`]: screen.hz,
        }),
      ],
    };
  });
}
