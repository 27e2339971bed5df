import type { RuleId } from '../house';
import type { AttrPath, CardSpec, DockSpec } from '../schema';
import { exact, fits, openOf, plus, stated, type Fits, type Num, type Range } from '../units';

export interface Clearance {
  readonly what: 'length' | 'height' | 'slots' | 'weight' | 'bend';
  readonly unit: 'mm' | 'slots' | 'g';
  readonly need: Range | null;
  readonly have: Range | null;
  readonly fits: Fits | null;
  readonly open: readonly AttrPath[];
}

export interface FitFacts {
  readonly rows: readonly Clearance[];
  /** Room a power plug needs to bend, mm, and on which side. */
  readonly bend: { readonly mm: number; readonly side: 'top' | 'end' } | null;
  /** An open board: nothing round the card. */
  readonly openBoard: boolean;
  /** Nothing but the slot holds the card. */
  readonly unheld: boolean;
  /** Only special short cards go in, now and later. */
  readonly shortOnly: boolean;
}

type Rule = (id: RuleId) => number;

/** Room for the plug to bend: 16-pin cables need most, angled plugs none. From memory of makers' notes on the 16-pin plug. */
function bendOf(card: CardSpec, rule: Rule): FitFacts['bend'] {
  const has = (n: Num) => (stated(n)?.lo ?? 0) > 0;
  if (card.plugAngled === 'yes') return null;
  const mm = has(card.plugs16Pin) ? rule('fit.bend16Mm') : has(card.plugs8Pin) || has(card.plugs6Pin) ? rule('fit.bend8Mm') : 0;
  return mm > 0 ? { mm, side: card.plugSide === 'end' ? 'end' : 'top' } : null;
}

/**
 * A card against the room of a dock: length, height, slots, the bend of its power plug, and weight on a board that holds it only by
 * the slot. Lengths in mm, from the bracket and from the slot's contacts; intervals where not exact; `null` where not stated.
 */
export function fitFacts(card: CardSpec | null, dock: DockSpec | null, rule: Rule): FitFacts | null {
  if (!card || !dock) return null;
  const openBoard = dock.form === 'open-board';
  const row = (what: Clearance['what'], unit: Clearance['unit'], paths: Record<AttrPath, Num>, extra = 0): Clearance => {
    const [mine, room] = Object.values(paths);
    const need = stated(mine);
    const whole = need && extra > 0 ? plus(need, exact(extra)) : need;
    const have = stated(room);
    return { what, unit, need: whole, have, fits: fits(whole, have), open: openOf(paths) };
  };
  const bend = bendOf(card, rule);
  const along = bend?.side === 'end' ? { 'card/lengthMm': card.lengthMm, 'dock/innerLengthMm': dock.innerLengthMm } : null;
  const across = { 'card/heightMm': card.heightMm, 'dock/innerHeightMm': dock.innerHeightMm };
  const inside = openBoard
    ? []
    : [
        row('length', 'mm', { 'card/lengthMm': card.lengthMm, 'dock/innerLengthMm': dock.innerLengthMm }),
        row('height', 'mm', across),
        row('slots', 'slots', { 'card/slots': card.slots, 'dock/innerSlots': dock.innerSlots }),
        ...(bend ? [row('bend', 'mm', along ?? across, bend.mm)] : []),
      ];
  const inner = stated(dock.innerLengthMm);
  return {
    rows: [
      ...inside,
      ...(stated(dock.maxWeightG)
        ? [row('weight', 'g', { 'card/weightG': card.weightG, 'dock/maxWeightG': dock.maxWeightG })]
        : []),
    ],
    bend,
    openBoard,
    unheld: dock.retention === 'none',
    shortOnly: inner !== null && inner.hi < rule('fit.shortCardMm'),
  };
}

/** Does a supply of its own go into the place the dock has for it? `null` when not said. */
export function supplyFormFits(room: DockSpec['supplyForm'], form: 'atx' | 'sfx' | 'flex' | 'brick'): boolean | null {
  if (typeof room !== 'string') return null;
  // An SFX supply goes into an ATX place with its plate; common practice, no published source.
  return room === 'outside' || room === form || (room === 'atx' && form === 'sfx');
}
