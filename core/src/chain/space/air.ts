import { openOf, type Range, type RuleId, stated } from '../../base';
import type { CardSpec, DockSpec } from '../../parts';
import type { AttrPath } from '../schema/chain';

const AIR_KG_M3 = 1.2;
const AIR_J_KG_K = 1005;
/** One cubic foot a minute in m³/s. */
const CFM_M3_S = 0.3048 ** 3 / 60;

/**
 * How much warmer air leaves than it came: P / (1.2 kg/m³ · 1005 J/(kg·K) · flow), about 1.76 · W / CFM.
 *
 * Source: the heat balance of a stream of air; density and heat of air at 20 °C from any handbook table.
 * @param heatW heat given to the air, W
 * @param cfm flow in cubic feet a minute, above 0
 * @returns K
 * @example airRiseK(200, 35) // => 10.04
 */
export function airRiseK(heatW: number, cfm: number): number {
  return heatW / (AIR_KG_M3 * AIR_J_KG_K * cfm * CFM_M3_S);
}

export interface CoolFacts {
  readonly riseK: Range | null;
  readonly limitK: number;
  /** Heat that stays in the box, W. */
  readonly heatW: Range | null;
  readonly blower: boolean;
  readonly open: readonly AttrPath[];
}

/**
 * Air rise in an enclosure. A blower blows most of its heat out itself.
 * @param card the card; null while none is chosen
 * @param dock the dock; null while none is chosen
 * @param boardW board power with its limit as set, W; null where it is not stated
 * @param rule reads a house rule
 * @returns the rise in K; null for an open board, which has no air of its own
 */
export function coolFacts(
  card: CardSpec | null,
  dock: DockSpec | null,
  boardW: Range | null,
  rule: (id: RuleId) => number,
): CoolFacts | null {
  if (!card || !dock || dock.form === 'open-board') return null;
  const blower = card.cooler === 'blower';
  const perhaps = blower || typeof card.cooler !== 'string';
  const least = perhaps ? 1 - rule('cool.blowerPercent') / 100 : 1;
  const most = blower ? 1 - rule('cool.blowerPercent') / 100 : 1;
  const heatW = boardW && { lo: boardW.lo * least, hi: boardW.hi * most };
  const flow = stated(dock.airflowCfm);
  return {
    riseK:
      heatW && flow ? { lo: airRiseK(heatW.lo, flow.hi), hi: airRiseK(heatW.hi, flow.lo) } : null,
    limitK: rule('cool.riseK'),
    heatW,
    blower,
    open: [
      ...openOf({ 'dock/airflowCfm': dock.airflowCfm, 'card/boardW': card.boardW }),
      ...(perhaps && !blower ? ['card/cooler'] : []),
    ],
  };
}
