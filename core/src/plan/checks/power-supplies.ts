import { fits, openOf, type Range, toRange } from '../../base';
import { capital, figure, maybe } from '../../base/text';
import { openSockets, type PowerFacts, SENSE_W, SOCKET_W, socketCounts } from '../../chain';
import type { CardSpec, SupplyAttrs } from '../../parts';
import { defineCheck, type DraftOf } from '../check';
import { certainIf, kind } from '../kind';
import { ofSupply } from './supply';

const FED_FINDINGS = {
  // W.
  'power/slot': kind<{ need: Range; have: Range }>('care', ({ need, have }, c) => ({
    what: maybe(c, 'The slot gives too little', 'The slot may give too little'),
    why: `The card takes ${figure(need)} W from its slot, the dock's slot gives ${figure(have)} W.`,
    todo: 'Take a card that draws from its plugs, or a dock whose slot gives 75 W.',
  })),
  // W through the 16-pin cable: wanted, and allowed by its sense pins where their mark is known.
  'power/sense': kind<{ need: Range; allows?: Range; supply: string }>(
    'care',
    ({ need, allows }, c) => ({
      what: allows
        ? `The 16-pin cable allows ${figure(allows)} W`
        : 'The 16-pin cable may allow too few watts',
      why: `${maybe(c, '', `${c.notKnown} `)}The card may want ${figure(need)} W through it; by its sense pins it will hold itself back or not start.`,
      todo: 'Take the cable or adapter marked for more, and push the plug home until it clicks: a plug not fully home can burn.',
    }),
  ),
};
type FedDraft = DraftOf<typeof FED_FINDINGS>;

/**
 * Power that a card may draw through its 16-pin cable against what the sense pins of the cable allow, W, over every
 * completion; null where no 16-pin cable can meet a 16-pin socket.
 */
function senseOf(card: CardSpec, supply: SupplyAttrs, boardW: Range, slotMost: number) {
  const n = socketCounts(card);
  const cables = toRange(supply.cables16Pin, { lo: 0, hi: 1 });
  // Without sense pins, or with a plug that does not go in, nothing is allowed or refused by them.
  const apart = card.sockets16Are === 'older' || supply.cables16Are === 'older';
  if (n['16-pin'].hi === 0 || cables.hi === 0 || apart) return null;
  const slot = toRange(card.slotW, { lo: 0, hi: slotMost });
  const others = (end: 'lo' | 'hi') =>
    SOCKET_W['8-pin'] * n['8-pin'][end] + SOCKET_W['6-pin'] * n['6-pin'][end];
  const words = supply.cable16PinW;
  const watts = (
    words === null ? [SENSE_W.lo, SENSE_W.hi] : typeof words === 'string' ? [words] : words.oneOf
  ).map(Number);
  return {
    need: { lo: boardW.lo - others('hi') - slot.hi, hi: boardW.hi - others('lo') - slot.lo },
    allows: { lo: Math.min(...watts), hi: Math.max(...watts) },
    known: words !== null,
    certain: n['16-pin'].lo > 0 && cables.lo > 0,
    open: (at: string) => [
      ...(typeof words === 'string' ? [] : [`${at}/cable16PinW`]),
      ...openSockets(card),
      ...openOf({
        'card/boardW': card.boardW,
        'card/slotW': card.slotW,
        [`${at}/cables16Pin`]: supply.cables16Pin,
      }),
    ],
  };
}

/** 16-pin cables whose sense pins allow less than the card may draw. */
function held(power: PowerFacts, card: CardSpec | null, slotMost: number): FedDraft[] {
  const { boardW } = power;
  if (!card || !boardW || power.sealed) return [];
  return power.feeders.flatMap((f): FedDraft[] => {
    const sense = senseOf(card, f.spec, boardW, slotMost);
    if (!sense || sense.need.hi <= sense.allows.lo) return [];
    const { need, allows } = sense;
    return [
      {
        code: 'power/sense',
        ...ofSupply(f.at, 'pcie-base'),
        ...certainIf(sense.certain && need.lo > allows.hi, sense.open(f.at)),
        params: { need, ...(sense.known && { allows }), supply: f.name },
      },
    ];
  });
}

/** A slot that supplies too little, and sense pins that allow less than the card may draw. */
export const cardFed = defineCheck({
  id: 'card-fed',
  reads: ['power', 'card'],
  searchGroup: 'power',
  findings: FED_FINDINGS,
  run({ power, card }, rule) {
    const found = held(power, card, rule('power.slotW'));
    const slot = power.slot && fits(power.slot.need, power.slot.have);
    if (!power.slot || slot === 'yes') return found;
    const { need, have, open } = power.slot;
    return [
      {
        code: 'power/slot',
        slots: ['dock', 'card'],
        ...certainIf(slot === 'no', open),
        params: { need, have },
        source: 'pcie-base',
      },
      ...found,
    ];
  },
});

const SUPPLY_FINDINGS = {
  'power/two-on-card': kind<{ n: number }>('care', () => ({
    what: 'Two supplies on one card can destroy it',
    why: 'Their 12 V are never exactly alike; current runs from one into the other through the card.',
    todo: "Feed the card from one supply. The maker's manual of card and supply counts before this.",
  })),
  'power/beside': kind<{ n: number }>('note', () => ({
    what: 'Mixed power cables destroy cards: two supplies stand side by side',
    why: 'Modular cables fit other supplies and are wired otherwise, even of one make.',
    todo: 'Mark each cable with its supply, and switch both on and off together.',
  })),
  'power/used': kind<{ supply: string }>('note', ({ supply }) => ({
    what: 'Second-hand supply',
    why: `${capital(supply)} has aged: its reserve for peaks shrinks, and cables may be missing or from another make.`,
    todo: 'Look for its own cables and a date of making; never open it. Prefer a new one for a strong card.',
  })),
};

/** Supplies that must not feed one card, stand side by side, or are second hand. */
export const supplies = defineCheck({
  id: 'supplies',
  reads: ['power'],
  searchGroup: 'power',
  findings: SUPPLY_FINDINGS,
  run({ power }) {
    const found: DraftOf<typeof SUPPLY_FINDINGS>[] = [];
    if (power.two)
      found.push({
        code: power.two === 'card' ? 'power/two-on-card' : 'power/beside',
        slots: ['supplies'],
        params: { n: power.feeders.length },
        source: 'common-practice',
      });
    for (const f of power.feeders)
      if (f.spec.condition === 'used')
        found.push({
          code: 'power/used',
          ...ofSupply(f.at, 'common-practice'),
          params: { supply: f.name },
        });
    return found;
  },
});
