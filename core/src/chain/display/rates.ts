import type { DpLevel, HdmiLevel } from '../../parts';

/**
 * What a link of four lanes carries after its encoding, Gb/s: 8b/10b up to HBR3, 128b/132b for UHBR with its overhead; TMDS for HDMI
 * 1.4 and 2.0, fixed rate links with 16b/18b and error correction above. From memory of DisplayPort 2.1 and HDMI 2.1.
 */
export const DP_GBPS: Record<DpLevel, number> = {
  none: 0,
  hbr: 8.64,
  hbr2: 17.28,
  hbr3: 25.92,
  uhbr10: 38.69,
  uhbr13: 52.22,
  uhbr20: 77.37,
};
export const HDMI_GBPS: Record<HdmiLevel, number> = {
  none: 0,
  '1.4': 8.16,
  '2.0': 14.4,
  'frl-18': 16.0,
  'frl-24': 21.3,
  'frl-32': 28.4,
  'frl-40': 35.6,
  'frl-48': 42.67,
};

/**
 * Is stream compression defined at this rate of a plug? From DisplayPort 1.4 (HBR3) and HDMI 2.1 on.
 *
 * Source: VESA DisplayPort 1.4 and HDMI 2.1, from memory.
 * @param plug the plug
 * @param gbps what its level carries, Gb/s
 * @returns true where it is
 */
export function mayCompress(plug: 'displayport' | 'hdmi', gbps: number): boolean {
  return plug === 'displayport' ? gbps >= DP_GBPS.hbr3 : gbps >= HDMI_GBPS['frl-18'];
}
