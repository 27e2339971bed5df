import {
  fits,
  type Fits,
  type Num,
  openOf,
  plus,
  type Range,
  type RuleId,
  stated,
} from '../../base';
import type { CardSpec, DockSpec, Settings } from '../../parts';
import { openSockets, socketCounts } from '../power/plugs';
import type { AttrPath } from '../schema/chain';

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
  /** The lid is off or the card stands outside, and the dock may be run so: live parts lie open. */
  readonly uncovered: boolean;
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
function bendsOf(
  card: CardSpec,
  rule: Rule,
): { side: 'top' | 'end'; mm: Range; open: AttrPath[] }[] {
  if (card.plugAngled === 'yes') return [];
  const n = socketCounts(card);
  const b16 = rule('fit.bend16Mm');
  const b8 = rule('fit.bend8Mm');
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
  const mm = has(card.plugs16Pin)
    ? rule('fit.bend16Mm')
    : has(card.plugs8Pin) || has(card.plugs6Pin)
      ? rule('fit.bend8Mm')
      : 0;
  return mm > 0 ? { mm, side: card.plugSide === 'end' ? 'end' : 'top' } : null;
}

/** What a card that stands so is still held against: all, its length, or nothing. */
const LEFT = {
  inside: ['length', 'height', 'slots', 'bend-top', 'bend-end'],
  'lid-off': ['length', 'bend-end'],
  outside: [],
} as const satisfies Record<string, readonly string[]>;
/** How a dock may be run for a card to stand so. */
const ALLOWED_BY = { inside: [], 'lid-off': ['lid-off', 'outside'], outside: ['outside'] } as const;

/**
 * The rows that count where the card stands so. Where it is not stated whether the dock may be run that way, a row that would fall away
 * stays, and is stopped for certain no longer.
 */
function countingRows(
  rows: readonly Clearance[],
  dock: DockSpec,
  sits: keyof typeof LEFT,
): Clearance[] {
  const key = (r: Clearance) => (r.what === 'bend' ? `bend-${r.side ?? 'top'}` : r.what);
  const stays = (r: Clearance) => (LEFT[sits] as readonly string[]).includes(key(r));
  const allowed = ALLOWED_BY[sits] as readonly string[];
  if (typeof dock.beyond === 'string')
    return allowed.includes(dock.beyond) ? rows.filter(stays) : [...rows];
  return rows.map((r) =>
    stays(r) || r.fits === 'yes'
      ? r
      : { ...r, fits: r.fits === 'no' ? 'may' : r.fits, open: [...r.open, 'dock/beyond'] },
  );
}

/** One measure of the card against one of the dock; the paths name them, the card's first. */
function clearance(
  what: Clearance['what'],
  unit: Clearance['unit'],
  paths: Record<AttrPath, Num>,
): Clearance {
  const [need = null, have = null] = Object.values(paths).map(stated);
  return { what, unit, need, have, fits: fits(need, have), open: openOf(paths) };
}

/** Length, height, slots and the bend of the plug, inside an enclosure. */
function insideRows(card: CardSpec, dock: DockSpec, rule: Rule): Clearance[] {
  const along = { 'card/lengthMm': card.lengthMm, 'dock/innerLengthMm': dock.innerLengthMm };
  const across = { 'card/heightMm': card.heightMm, 'dock/innerHeightMm': dock.innerHeightMm };
  const slots = { 'card/slots': card.slots, 'dock/innerSlots': dock.innerSlots };
  const bent = bendsOf(card, rule).map(({ side, mm, open }): Clearance => {
    const plain = clearance('bend', 'mm', side === 'end' ? along : across);
    const need = plain.need && plus(plain.need, mm);
    return { ...plain, side, need, fits: fits(need, plain.have), open: [...plain.open, ...open] };
  });
  return [
    clearance('length', 'mm', along),
    clearance('height', 'mm', across),
    clearance('slots', 'slots', slots),
    ...bent,
  ];
}

/** Facts of the card that count for the clearance. An all-in-one is sold with its own card: none is fitted. */
function rowsOf(card: CardSpec, dock: DockSpec, rule: Rule, sits: keyof typeof LEFT): Clearance[] {
  // An enclosure carries its card; on an open board it hangs on the slot, so its weight is a question there.
  if (dock.form === 'open-board')
    return [
      clearance('weight', 'g', {
        'card/weightG': card.weightG,
        'dock/maxWeightG': dock.maxWeightG,
      }),
    ];
  const inside = dock.form === 'all-in-one' ? [] : insideRows(card, dock, rule);
  return sits === 'inside' ? inside : countingRows(inside, dock, sits);
}

function unheldOn({ form, retention }: DockSpec): FitFacts['unheld'] {
  if (form !== 'open-board') return 'no';
  if (typeof retention !== 'string') return 'may';
  return retention === 'none' ? 'yes' : 'no';
}

/**
 * A card against the room of a dock: length, height, slots, the bend of its power plug, and weight on a board
 * that holds it only by the slot. Lengths are from the bracket and from the contacts of the slot.
 * @param card the card; null while none is chosen
 * @param dock the dock; null while none is chosen
 * @param rule reads a house rule
 * @param cardSits how the card stands in the dock
 * @returns need and have in mm, slots or g, null where not stated; null without a card or a dock
 */
export function fitFacts(
  card: CardSpec | null,
  dock: DockSpec | null,
  rule: Rule,
  cardSits: Settings['cardSits'] = null,
): FitFacts | null {
  if (!card || !dock) return null;
  const sits = typeof cardSits === 'string' && dock.form === 'enclosure' ? cardSits : 'inside';
  const inner = stated(dock.innerLengthMm);
  return {
    rows: rowsOf(card, dock, rule, sits),
    bend: bendOf(card, rule),
    openBoard: dock.form === 'open-board',
    uncovered: (ALLOWED_BY[sits] as readonly unknown[]).includes(dock.beyond),
    unheld: unheldOn(dock),
    shortOnly: inner !== null && inner.hi < rule('fit.shortCardMm'),
  };
}

/**
 * Does a supply go into the place the dock has for it? An SFX supply goes into an ATX place with its plate:
 * common practice, no published source.
 * @param room the place of the dock
 * @param form of the supply
 * @returns null where the place is not stated
 * @example supplyFormFits('atx', 'sfx') // => true
 */
export function supplyFormFits(
  room: DockSpec['supplyForm'],
  form: 'atx' | 'sfx' | 'flex' | 'brick',
): boolean | null {
  if (typeof room !== 'string') return null;
  // An SFX supply goes into an ATX place with its plate; common practice, no published source.
  return room === 'outside' || room === form || (room === 'atx' && form === 'sfx');
}
