import { runRig, type Ask } from './queue';
import type { MadeRig } from './rig';

export type TrueShares = Readonly<Record<'cpu' | 'card' | 'link' | 'back', number>>;

/**
 * What the mean frame of a rig really hangs on: each stage is made longer and shorter by a little, with the same chance, and the change
 * of the mean is what its share is. Brought to a sum of 1; what runs beside the title belongs to no stage.
 */
export function trueShares(rig: MadeRig, ask: Omit<Ask, 'scale'>): TrueShares {
  const step = 0.04;
  const meanOf = (scale: Ask['scale']) => {
    const { frames } = runRig(rig, { ...ask, scale });
    return frames.reduce((a, b) => a + b, 0) / frames.length;
  };
  const one = (stage: keyof TrueShares) => {
    const more = meanOf({ [stage]: 1 + step });
    const less = meanOf({ [stage]: 1 - step });
    return Math.max(0, Math.log(more / less) / Math.log((1 + step) / (1 - step)));
  };
  const raw = {
    cpu: one('cpu'),
    card: one('card'),
    link: one('link'),
    back: ask.panel ? one('back') : 0,
  };
  const sum = raw.cpu + raw.card + raw.link + raw.back;
  return { cpu: raw.cpu / sum, card: raw.card / sum, link: raw.link / sum, back: raw.back / sum };
}
