import { fits, openOf, type Range, toRange } from '../../base';
import { openSockets, SENSE_W, SOCKET_W, socketCounts } from '../../chain';
import type { CardSpec, SupplyAttrs } from '../../parts';
import type { Check, FindingDraft } from '../types';
import { certainIf, possible } from './certainty';

/** A draft of one supply: several may stand side by side. */
type Said = Pick<FindingDraft, 'code' | 'params'> & Partial<FindingDraft>;
const at = (about: string, d: Said): FindingDraft => ({
  slots: [about === 'dock' ? 'dock' : 'supplies'],
  about,
  source: 'house',
  ...d,
});

/** A dock that may bring a supply of its own: what a chosen one lacks is not certain to be missing. */
function unlessOwn(d: FindingDraft): FindingDraft {
  return { ...d, ...possible([...new Set(['dock/supply', ...(d.hangsOn ?? [])])]) };
}

/** Plugs run out before watts do: every socket of the card needs a power cable of its own. */
export const plugsShort: Check<'power' | 'card'> = {
  id: 'plugs-short',
  codes: ['power/plugs-short', 'power/cpu-plug', 'power/no-supply'],
  reads: ['power', 'card'],
  run({ power }) {
    const unfed: FindingDraft[] =
      power.unfed && (power.unfed.sockets.hi > 0 || power.missing || power.unstated)
        ? [
            {
              code: 'power/no-supply',
              slots: ['dock', 'supplies'],
              ...certainIf(power.unfed.sockets.lo > 0 && !power.unstated, [
                ...(power.unstated ? ['dock/supply'] : []),
                ...power.unfed.open,
                ...(power.missing && power.unfed.sockets.hi === 0 ? ['supplies'] : []),
              ]),
              params: { sockets: power.unfed.sockets, missing: power.missing ? 'yes' : 'no' },
              source: 'common-practice',
            },
          ]
        : [];
    const short = power.feeders.flatMap((f): FindingDraft[] => {
      const lack = f.shortage;
      if (!lack || lack.short.hi === 0) return [];
      if (!f.plugs)
        return [
          at(f.at, {
            code: 'power/plugs-short',
            ...possible(lack.open),
            params: { supply: f.name },
            source: 'pcie-base',
          }),
        ];
      const { plugs } = f;
      const watts: Record<string, Range> =
        f.load && f.rated ? { load: f.load, rated: f.rated } : {};
      const short = at(f.at, {
        code: 'power/plugs-short',
        ...certainIf(lack.short.lo > 0, lack.open),
        params: {
          short: lack.short.lo > 0 ? lack.short : plugs.short,
          wants: plugs.wants,
          offers: plugs.wants - plugs.short.hi,
          supply: f.name,
          ...watts,
        },
        source: 'pcie-base',
      });
      if (plugs.cpuCables === 0) return [short];
      return [
        short,
        at(f.at, {
          code: 'power/cpu-plug',
          params: { n: plugs.cpuCables },
          source: 'common-practice',
        }),
      ];
    });
    const own: FindingDraft[] =
      power.unstated &&
      !power.unfed &&
      !power.sealed &&
      power.feeders.some((f) => f.shortage !== null)
        ? [
            at('dock', {
              code: 'power/plugs-short',
              ...possible(['dock/supply']),
              params: { supply: 'the supply of the dock' },
              source: 'pcie-base',
            }),
          ]
        : [];
    return power.unstated ? [...unfed, ...own, ...short].map(unlessOwn) : [...unfed, ...short];
  },
};

/** Watts of a supply against its load, and short peaks. */
export const powerLoad: Check<'power' | 'card'> = {
  id: 'power-load',
  codes: ['power/over', 'power/tight', 'power/peak'],
  reads: ['power', 'card'],
  run({ power, card }, rule) {
    const unstated: FindingDraft[] =
      power.unstated && card
        ? [
            at('dock', {
              code: 'power/over',
              ...possible(['dock/supply']),
              params: { supply: 'the supply of the dock' },
            }),
          ]
        : [];
    const loads = power.feeders.flatMap((f): FindingDraft[] => {
      if (!card && f.feedsCard) return [];
      if (!f.load || !f.rated) {
        const known = {
          supply: f.name,
          ...(f.load && { load: f.load }),
          ...(f.rated && { rated: f.rated }),
        };
        return [at(f.at, { code: 'power/over', ...possible(f.open), params: known })];
      }
      const params = { load: f.load, rated: f.rated, supply: f.name };
      const state = fits(f.load, f.rated);
      if (state === 'no' || state === 'may')
        return [at(f.at, { code: 'power/over', ...certainIf(state === 'no', f.open), params })];
      const comfort = rule('power.comfortPercent') / 100;
      const tight: FindingDraft[] =
        f.load.hi > f.rated.lo * comfort
          ? [
              at(f.at, {
                code: 'power/tight',
                ...certainIf(f.load.lo > f.rated.hi * comfort, f.open),
                params: { ...params, comfort },
              }),
            ]
          : [];
      const { peak } = f;
      const over = peak && fits(peak.need, peak.have);
      if (!peak || over === 'yes') return tight;
      return [
        ...tight,
        at(f.at, {
          code: 'power/peak',
          ...certainIf(over === 'no', [
            ...f.open,
            ...(typeof f.spec.supplyStandard === 'string' ? [] : [`${f.at}/supplyStandard`]),
            ...(typeof card?.plugs16Pin === 'number' ? [] : ['card/plugs16Pin']),
          ]),
          params: { us: peak.us, need: peak.need, have: peak.have, supply: f.name },
          source: 'pcie-base',
        }),
      ];
    });
    return power.unstated ? [...unstated, ...loads.map(unlessOwn)] : loads;
  },
};

/** Can the card's own sockets and the slot carry its watts at all? Where its board power is not stated no supply can be judged either. */
export const boardCovered: Check<'power' | 'card'> = {
  id: 'board-covered',
  codes: ['power/uncovered'],
  reads: ['power', 'card'],
  run({ power, card }) {
    if (!card || power.sealed) return [];
    const common = {
      code: 'power/uncovered',
      slots: ['card', 'dock'],
      source: 'pcie-base',
    } as const;
    if (!power.cover) return [{ ...common, ...possible(['card/boardW']), params: {} }];
    const { need, have, open } = power.cover;
    const state = fits(need, have);
    return state === 'yes'
      ? []
      : [{ ...common, ...certainIf(state === 'no', open), params: { need, have } }];
  },
};

/**
 * What a card wants through its 16-pin cable against what the sense pins of the cable allow, W, over every completion; null where no
 * 16-pin cable can meet a 16-pin socket.
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

/** Two supplies, one second hand, a slot that gives too little, sense pins that allow less. */
export const supplies: Check<'power' | 'card' | 'box'> = {
  id: 'supplies',
  codes: ['power/two-on-card', 'power/beside', 'power/used', 'power/slot', 'power/sense'],
  reads: ['power', 'card', 'box'],
  run({ power, card }, rule) {
    const found: FindingDraft[] = [];
    if (power.two)
      found.push({
        code: power.two === 'card' ? 'power/two-on-card' : 'power/beside',
        slots: ['supplies'],
        params: { n: power.feeders.length },
        source: 'common-practice',
      });
    for (const f of power.feeders)
      if (f.spec.condition === 'used')
        found.push(
          at(f.at, { code: 'power/used', params: { supply: f.name }, source: 'common-practice' }),
        );
    const slot = power.slot && fits(power.slot.need, power.slot.have);
    if (power.slot && slot !== 'yes')
      found.push({
        code: 'power/slot',
        slots: ['dock', 'card'],
        ...certainIf(slot === 'no', power.slot.open),
        params: { need: power.slot.need, have: power.slot.have },
        source: 'pcie-base',
      });
    for (const f of power.feeders) {
      const sense =
        card &&
        power.boardW &&
        !power.sealed &&
        senseOf(card, f.spec, power.boardW, rule('power.slotW'));
      if (!sense || sense.need.hi <= sense.allows.lo) continue;
      const certain = sense.certain && sense.need.lo > sense.allows.hi;
      const params = {
        need: sense.need,
        ...(sense.known && { allows: sense.allows }),
        supply: f.name,
      };
      found.push(
        at(f.at, {
          code: 'power/sense',
          ...certainIf(certain, sense.open(f.at)),
          params,
          source: 'pcie-base',
        }),
      );
    }
    return found;
  },
};
