import type { Range } from '../../base';
import { asRange, figure, maybe } from '../../base/text';
import type { Feeder, PowerFacts } from '../../chain';
import { defineCheck, type DraftOf } from '../check';
import { certainIf, type Doubt, type JoinedParams, kind, possible } from '../kind';
import { ofSupply, OWN_SUPPLY, unlessOwn } from './supply';

/** Counts of plugs; load and rating of the supply in W, where both are known. */
interface PlugsShort {
  supply: string;
  short?: Range;
  wants?: number;
  offers?: number;
  load?: Range;
  rated?: Range;
}
const plural = (n: Range) => (n.lo === 1 && n.hi === 1 ? '' : 's');

/** Watts to spare do not help where plugs are short; neither is said apart. */
function spareText({ load, rated }: JoinedParams<PlugsShort>): string {
  if (!load || !rated) return '';
  const enough = load.hi <= rated.lo;
  return ` Watts ${enough ? 'would do' : 'would not do either'}: ${figure(load)} of ${figure(rated)} W.`;
}

function shortReason(p: JoinedParams<PlugsShort>, c: Doubt): string {
  if (c.certainty === 'possible' && c.hangsOn.length > 0) return c.notKnown;
  return `The card wants ${figure(asRange(p.wants))}, ${p.supply} gives ${figure(asRange(p.offers))}.${spareText(p)}`;
}

const FINDINGS = {
  'power/plugs-short': kind<PlugsShort>(
    'blocks',
    (p, c) => ({
      what: maybe(
        c,
        `${figure(asRange(p.short))} plug${plural(asRange(p.short))} short`,
        'Power plugs may run short',
      ),
      why: shortReason(p, c),
      todo: 'Each socket wants a cable of its own; the second head of one cable shares its wires. Take a supply with enough power cables, or a card with fewer sockets.',
    }),
    { cause: 'power-cables' },
  ),
  'power/no-supply': kind<{ sockets: Range; missing: 'yes' | 'no' }>(
    'blocks',
    ({ sockets, missing }, c) => ({
      what: maybe(
        c,
        'Nothing feeds the power sockets of the card',
        'The card may have nothing to feed it',
      ),
      why: maybe(
        c,
        `The card has ${figure(sockets)} power socket${plural(sockets)}; ${missing === 'yes' ? 'the dock brings no supply, and none is chosen' : 'no supply with cables for it is chosen'}.`,
        c.notKnown,
      ),
      todo: 'Choose a supply at the left.',
    }),
  ),
};
type Draft = DraftOf<typeof FINDINGS>;

/** Sockets of the card that no chosen supply feeds. */
function unfed({ unfed: open, missing, unstated }: PowerFacts): Draft[] {
  if (!open || !(open.sockets.hi > 0 || missing || unstated)) return [];
  return [
    {
      code: 'power/no-supply',
      slots: ['dock', 'supplies'],
      ...certainIf(open.sockets.lo > 0 && !unstated, [
        ...(unstated ? ['dock/supply'] : []),
        ...open.open,
        ...(missing && open.sockets.hi === 0 ? ['supplies'] : []),
      ]),
      params: { sockets: open.sockets, missing: missing ? 'yes' : 'no' },
      source: 'common-practice',
    },
  ];
}

/** The plugs one supply lacks. */
function short(f: Feeder): Draft[] {
  const lack = f.shortage;
  if (!lack || lack.short.hi === 0) return [];
  const common = { code: 'power/plugs-short', ...ofSupply(f.at, 'pcie-base') } as const;
  if (!f.plugs) return [{ ...common, ...possible(lack.open), params: { supply: f.name } }];
  const { plugs } = f;
  return [
    {
      ...common,
      ...certainIf(lack.short.lo > 0, lack.open),
      params: {
        short: lack.short.lo > 0 ? lack.short : plugs.short,
        wants: plugs.wants,
        offers: plugs.wants - plugs.short.hi,
        supply: f.name,
        ...(f.load && f.rated && { load: f.load, rated: f.rated }),
      },
    },
  ];
}

/** Plugs run out before watts do: every socket of the card needs a power cable of its own. */
export const plugsShort = defineCheck({
  id: 'plugs-short',
  reads: ['power', 'card'],
  searchGroup: 'power',
  findings: FINDINGS,
  run({ power }) {
    const found = [...unfed(power)];
    const lacking = power.feeders.flatMap(short);
    if (!power.unstated) return [...found, ...lacking];
    if (!power.unfed && !power.sealed && power.feeders.some((f) => f.shortage !== null))
      found.push({
        code: 'power/plugs-short',
        ...ofSupply('dock', 'pcie-base'),
        ...possible(['dock/supply']),
        params: { supply: OWN_SUPPLY },
      });
    return [...found, ...lacking].map(unlessOwn);
  },
});

const PROCESSOR_FINDINGS = {
  'power/cpu-plug': kind<{ n: number }>('note', () => ({
    what: 'Wrong wiring destroys the card: a processor 8-pin is no card 8-pin',
    why: 'This supply brings processor cables with as many pins. Forced in, they short 12 V to ground.',
    todo: "Use only cables marked for cards, and only those of this supply. The supply maker's manual counts before this.",
  })),
};

/** A supply that lacks plugs for cards and has as many pins for processors: they are wired otherwise. */
export const processorPlugs = defineCheck({
  id: 'processor-plugs',
  reads: ['power'],
  searchGroup: 'none',
  findings: PROCESSOR_FINDINGS,
  run({ power }) {
    const found = power.feeders.flatMap((f): DraftOf<typeof PROCESSOR_FINDINGS>[] => {
      const n = f.plugs?.cpuCables ?? 0;
      if (n === 0 || !f.shortage || f.shortage.short.hi === 0) return [];
      return [{ code: 'power/cpu-plug', ...ofSupply(f.at, 'common-practice'), params: { n } }];
    });
    return power.unstated ? found.map(unlessOwn) : found;
  },
});
