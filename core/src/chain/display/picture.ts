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

/** Bits a pixel: the usual picture, and the deepest a screen may show. */
const USUAL_BITS = 24;
const MAX_BITS = 36;

const one = (n: Num) => (typeof n === 'number' ? n : (stated(n)?.hi ?? null));

type Screen = Shown['screen'];
interface VideoOut {
  dpLevel: unknown;
  hdmiLevel: unknown;
  compression: unknown;
}

function outOf(chain: Chain, by: Shown['by']): VideoOut | null {
  if (by === 'card') return chain.card;
  return chain.dock && { dpLevel: chain.dock.videoOut, hdmiLevel: null, compression: null };
}

function modeOf(screen: Screen): PictureFacts['mode'] {
  const widthPx = one(screen.widthPx);
  const heightPx = one(screen.heightPx);
  const hz = one(screen.hz);
  return widthPx === null || heightPx === null || hz === null ? null : { widthPx, heightPx, hz };
}

/** Gb/s the mode needs at a depth. Where blanking is not stated the usual one stands for it. */
function rateAt(mode: PictureFacts['mode'], plug: Shown['plug'], screen: Screen, bits: number) {
  if (!mode) return null;
  const version = screen.blanking === 'v2' ? 2 : 1;
  return (pixelMHz(plug, mode.widthPx, mode.heightPx, mode.hz, version) * bits) / 1000;
}

/** The end that carries less, or has no such plug. */
function weakerEnd(out: number | null, into: number | null): PictureFacts['weaker'] {
  if (out !== null && into !== null) return out <= into ? 'out' : 'screen';
  if (out === 0) return 'out';
  return into === 0 ? 'screen' : null;
}

/** Gb/s both ends carry: 0 where one has no such plug, null where one is not known. */
function carriedBy(out: number | null, into: number | null): number | null {
  if (out === 0 || into === 0) return 0;
  return out === null || into === null ? null : Math.min(out, into);
}

/** Whether both ends compress, or one is known not to. */
function compressionOf(out: VideoOut | null, screen: Screen, by: Shown['by']) {
  return {
    both: out?.compression === 'yes' && screen.compression === 'yes',
    neither: out?.compression === 'no' || screen.compression === 'no' || by === 'dock',
  };
}

/** Attributes that are not stated and that the figures depend on. */
function openPicture(
  { key, by, plug, screen }: Shown,
  out: VideoOut | null,
  levels: { out: number | null; in: number | null },
): AttrPath[] {
  const at = `picture/${key}`;
  const levelName = plug === 'displayport' ? 'dpLevel' : 'hdmiLevel';
  const outPath = by === 'card' ? `card/${levelName}` : 'dock/videoOut';
  return [
    ...(out && levels.out === null ? [outPath] : []),
    ...(levels.in === null ? [`${at}/${levelName}`] : []),
    ...openOf({
      [`${at}/widthPx`]: screen.widthPx,
      [`${at}/heightPx`]: screen.heightPx,
      [`${at}/hz`]: screen.hz,
    }),
  ];
}

/** One screen: what its mode needs, what its two ends carry, and whether compression is what makes it fit. */
function pictureOf(chain: Chain, shown: Shown, ratio: number): PictureFacts {
  const { key, by, plug, screen } = shown;
  const at = `picture/${key}`;
  const out = outOf(chain, by);
  const outLevel = out && level(plug, out);
  const inLevel = level(plug, screen);
  const mode = modeOf(screen);
  // Where the depth is not stated the usual one stands for it, and the figure is not certain.
  const depthStated = typeof screen.bits === 'string';
  const bits = depthStated ? Number(screen.bits) : USUAL_BITS;
  const needGbps = rateAt(mode, plug, screen, bits);
  const mostGbps = rateAt(mode, plug, screen, depthStated ? bits : MAX_BITS);
  const haveGbps = carriedBy(outLevel, inLevel);
  const { both, neither } = compressionOf(out, screen, by);
  const squeezes = (need: number, have: number) => mayCompress(plug, have) && need / ratio <= have;
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
    verdict === 'too-much' && !both && !neither && squeezes(needGbps ?? 0, haveGbps ?? 0);
  return {
    key,
    name: partName(screen),
    by,
    plug,
    mode,
    needGbps,
    haveGbps,
    verdict,
    weaker: weakerEnd(outLevel, inLevel),
    doubt: [
      ...(deeper || (squeezable && !depthStated) ? [`${at}/bits`] : []),
      ...(squeezable && typeof out?.compression !== 'string' ? ['card/compression'] : []),
      ...(squeezable && typeof screen.compression !== 'string' ? [`${at}/compression`] : []),
    ],
    open: openPicture(shown, out, { out: outLevel, in: inLevel }),
  };
}

/**
 * Every screen of a chain: what its mode needs, what its two ends carry, and whether compression is what makes
 * it fit.
 * @param chain the chain
 * @param rule reads a house rule
 * @returns facts of each screen, in the order of the chain; rates in Gb/s
 */
export function pictureFacts(chain: Chain, rule: (id: RuleId) => number): PictureFacts[] {
  return chain.picture.map((shown) => pictureOf(chain, shown, rule('screen.compression')));
}
