import { exact, fits, type Range } from '../../base';
import { asRange, figure, maybe, span } from '../../base/text';
import type { Feeder } from '../../chain';
import type { CardSpec } from '../../parts';
import { defineCheck, type DraftOf } from '../check';
import { certainIf, kind, possible } from '../kind';
import { ofSupply, OWN_SUPPLY, unlessOwn } from './supply';

/** Load and rating in W; what is not known is left out. */
interface Load {
  supply: string;
  load?: Range;
  rated?: Range;
}
/** Length of the peak in microseconds; what is drawn and what the supply bears so long, W. */
interface Peak {
  us: number;
  need: Range;
  have: Range;
  supply: string;
}

const LOAD_FINDINGS = {
  'power/over': kind<Load>(
    'blocks',
    ({ supply, load, rated }, c) => ({
      what: maybe(c, 'More watts than the supply has', 'The supply may have too few watts'),
      why:
        load && rated
          ? `${figure(load)} W hang on ${supply}, rated ${figure(rated)} W.`
          : c.notKnown,
      todo: "Take a bigger supply, lower the card's power limit, or let the host use its own charger.",
    }),
    { cause: 'supply' },
  ),
  'power/tight': kind<Required<Load> & { comfort: number }>(
    'care',
    ({ load, rated, comfort }, c) => ({
      what: maybe(c, 'Supply near its rating', 'Supply may be near its rating'),
      why: `${figure(load)} W of ${figure(rated)} W; comfortable up to ${figure(exact(rated.lo * asRange(comfort).lo))} W.`,
      todo: "A bigger supply runs cooler and quieter; the host's own charger takes its share off.",
    }),
    { cause: 'supply' },
  ),
  'power/peak': kind<Peak>(
    'care',
    ({ us, need, have, supply }, c) => ({
      what: maybe(c, 'Short peaks trip the supply', 'Short peaks may trip the supply'),
      why: `For ${span(asRange(us).lo)} the card and the rest may draw ${figure(need)} W; ${supply} bears ${figure(have)} W so long.`,
      todo: "Take a supply made to ATX 3.x or a bigger one, or lower the card's power limit.",
    }),
    { cause: 'supply' },
  ),
};
type LoadDraft = DraftOf<typeof LOAD_FINDINGS>;

/** Short peaks that the supply does not bear, or may not. */
function peaks(f: Feeder, card: CardSpec | null): LoadDraft[] {
  const { peak } = f;
  const over = peak && fits(peak.need, peak.have);
  if (!peak || over === 'yes') return [];
  const open = [
    ...f.open,
    ...(typeof f.spec.supplyStandard === 'string' ? [] : [`${f.at}/supplyStandard`]),
    ...(typeof card?.plugs16Pin === 'number' ? [] : ['card/plugs16Pin']),
  ];
  return [
    {
      code: 'power/peak',
      ...ofSupply(f.at, 'pcie-base'),
      ...certainIf(over === 'no', open),
      params: { us: peak.us, need: peak.need, have: peak.have, supply: f.name },
    },
  ];
}

/** One supply against its load; `comfort` is the share of its rating up to which it runs easily. */
function loaded(f: Feeder, card: CardSpec | null, comfort: number): LoadDraft[] {
  if (!card && f.feedsCard) return [];
  const common = ofSupply(f.at, 'house');
  const { load, rated } = f;
  if (!load || !rated) {
    const params = { supply: f.name, ...(load && { load }), ...(rated && { rated }) };
    return [{ code: 'power/over', ...common, ...possible(f.open), params }];
  }
  const params = { load, rated, supply: f.name };
  const state = fits(load, rated);
  if (state === 'no' || state === 'may')
    return [{ code: 'power/over', ...common, ...certainIf(state === 'no', f.open), params }];
  const found: LoadDraft[] = [];
  if (load.hi > rated.lo * comfort)
    found.push({
      code: 'power/tight',
      ...common,
      ...certainIf(load.lo > rated.hi * comfort, f.open),
      params: { ...params, comfort },
    });
  return [...found, ...peaks(f, card)];
}

/** Watts of a supply against its load, and short peaks. */
export const powerLoad = defineCheck({
  id: 'power-load',
  reads: ['power', 'card'],
  searchGroup: 'power',
  findings: LOAD_FINDINGS,
  run({ power, card }, rule) {
    const comfort = rule('power.comfortPercent') / 100;
    const loads = power.feeders.flatMap((f) => loaded(f, card, comfort));
    if (!power.unstated) return loads;
    const own: LoadDraft[] = [];
    if (card)
      own.push({
        code: 'power/over',
        ...ofSupply('dock', 'house'),
        ...possible(['dock/supply']),
        params: { supply: OWN_SUPPLY },
      });
    return [...own, ...loads.map(unlessOwn)];
  },
});

/** Can the card's own sockets and the slot carry its watts at all? Where its board power is not stated no supply can be judged either. */
export const boardCovered = defineCheck({
  id: 'board-covered',
  reads: ['power', 'card'],
  searchGroup: 'power',
  findings: {
    // W.
    'power/uncovered': kind<{ need?: Range; have?: Range }>('blocks', ({ need, have }, c) => ({
      what: maybe(
        c,
        'More watts than the plugs and the slot of this card carry',
        'Plugs and slot may carry too few watts for this card',
      ),
      why:
        need && have
          ? `The card takes ${figure(need)} W; its sockets at 75 W (6-pin), 150 W (8-pin) and 600 W (16-pin) and the slot carry ${figure(have)} W.${maybe(c, '', ` ${c.notKnown}`)}`
          : c.notKnown,
      todo: maybe(
        c,
        "Check board power and sockets on the card or in its maker's data sheet; take a card that suits this slot.",
        "Look at the edge of the card and in its maker's data sheet.",
      ),
    })),
  },
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
});
