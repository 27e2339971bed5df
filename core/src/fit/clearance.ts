import type { RuleId } from '../house';
import type { AttrPath, CardSpec, DockSpec } from '../schema';
import { openSockets, socketCounts } from '../power';
import { fits, openOf, plus, stated, type Fits, type Num, type Range } from '../units';

export interface Clearance {
  readonly what: 'length' | 'height' | 'slots' | 'weight' | 'bend';
  /** Of a bend: the side of the card its plug is on. */
  readonly side?: 'top' | 'end';
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
  /** Nothing but the slot holds the card on an open board; `may` where it is not stated how it holds one. */
  readonly unheld: 'yes' | 'may' | 'no';
  /** Only special short cards go in, now and later. */
  readonly shortOnly: boolean;
}

type Rule = (id: RuleId) => number;

/**
 * Room for the plug to bend, mm, on each side the plug may be on, over every completion of what is not stated: 16-pin cables need most,
 * angled plugs none. From memory of makers' notes on the 16-pin plug.
 */
function bendsOf(card: CardSpec, rule: Rule): { side: 'top' | 'end'; mm: Range; open: AttrPath[] }[] {
  if (card.plugAngled === 'yes') return [];
  const n = socketCounts(card);
  const [b16, b8] = [rule('fit.bend16Mm'), rule('fit.bend8Mm')];
  const most = n['16-pin'].hi > 0 ? b16 : n['8-pin'].hi + n['6-pin'].hi > 0 ? b8 : 0;
  if (most === 0) return [];
  const least = n['16-pin'].lo > 0 ? b16 : n['8-pin'].lo + n['6-pin'].lo > 0 ? b8 : 0;
  const sides = typeof card.plugSide === 'string' ? [card.plugSide] : (['top', 'end'] as const);
  const open = [
    ...(typeof card.plugAngled === 'string' ? [] : ['card/plugAngled']),
    ...(sides.length > 1 ? ['card/plugSide'] : []),
    ...openSockets(card),
  ];
  const sure = card.plugAngled === 'no' && sides.length === 1;
  return sides.map((side) => ({ side, mm: { lo: sure ? least : 0, hi: most }, open }));
}

/** Room a plug needs to bend and where, as far as it is stated: what is drawn. */
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
  const row = (what: Clearance['what'], unit: Clearance['unit'], paths: Record<AttrPath, Num>): Clearance => {
    const [need, have] = Object.values(paths).map(stated);
    return { what, unit, need: need ?? null, have: have ?? null, fits: fits(need ?? null, have ?? null), open: openOf(paths) };
  };
  const bend = bendOf(card, rule);
  const along = { 'card/lengthMm': card.lengthMm, 'dock/innerLengthMm': dock.innerLengthMm };
  const across = { 'card/heightMm': card.heightMm, 'dock/innerHeightMm': dock.innerHeightMm };
  const bent = bendsOf(card, rule).map(({ side, mm, open }): Clearance => {
    const plain = row('bend', 'mm', side === 'end' ? along : across);
    const need = plain.need && plus(plain.need, mm);
    return { ...plain, side, need, fits: fits(need, plain.have), open: [...plain.open, ...open] };
  });
  // Nobody fits a card into an all-in-one: it is sold with its own.
  const inside =
    openBoard || dock.form === 'all-in-one'
      ? []
      : [
          row('length', 'mm', along),
          row('height', 'mm', across),
          row('slots', 'slots', { 'card/slots': card.slots, 'dock/innerSlots': dock.innerSlots }),
          ...bent,
        ];
  const inner = stated(dock.innerLengthMm);
  return {
    rows: [
      ...inside,
      // An enclosure carries its card; on an open board it hangs on the slot, so its weight is a question there.
      ...(openBoard ? [row('weight', 'g', { 'card/weightG': card.weightG, 'dock/maxWeightG': dock.maxWeightG })] : []),
    ],
    bend,
    openBoard,
    unheld: !openBoard ? 'no' : dock.retention === 'none' ? 'yes' : typeof dock.retention === 'string' ? 'no' : 'may',
    shortOnly: inner !== null && inner.hi < rule('fit.shortCardMm'),
  };
}

/** Does a supply of its own go into the place the dock has for it? `null` when not said. */
export function supplyFormFits(room: DockSpec['supplyForm'], form: 'atx' | 'sfx' | 'flex' | 'brick'): boolean | null {
  if (typeof room !== 'string') return null;
  // An SFX supply goes into an ATX place with its plate; common practice, no published source.
  return room === 'outside' || room === form || (room === 'atx' && form === 'sfx');
}
