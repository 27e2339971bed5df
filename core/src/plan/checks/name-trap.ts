import { asRange, formatWhole, maybe } from '../../base/text';
import type { CardSpec } from '../../parts';
import { defineCheck } from '../check';
import { certainIf, type JoinedParams, kind } from '../kind';

/** Execution units, GB and W of the card and of the one it shares its number with. */
interface Namesake {
  namesake: string;
  chip?: string;
  units?: number;
  ofUnits?: number;
  memory?: number;
  ofMemory?: number;
  watts?: number;
  ofWatts?: number;
}
type Figure = JoinedParams<Namesake>['units'];

function compared(p: JoinedParams<Namesake>): string {
  const pair = (own: Figure, other: Figure, unit: string) =>
    own === undefined || other === undefined
      ? []
      : [`${formatWhole(asRange(own))} of ${formatWhole(asRange(other))}${unit}`];
  const facts = [
    ...pair(p.units, p.ofUnits, ' units'),
    ...pair(p.memory, p.ofMemory, ' GB'),
    ...pair(p.watts, p.ofWatts, ' W'),
  ];
  return facts.length > 0
    ? `Against ${p.namesake}: ${facts.join(', ')}.`
    : `It is sold beside ${p.namesake} under one number.`;
}

const known = (value: CardSpec['units']) => (typeof value === 'number' ? value : undefined);

/** The figures that are stated; others are left out. */
function stated(card: CardSpec): Namesake {
  const figures = {
    units: known(card.units),
    ofUnits: known(card.namesakeUnits),
    memory: known(card.memoryGB),
    ofMemory: known(card.namesakeMemoryGB),
    watts: known(card.boardW),
    ofWatts: known(card.namesakeW),
  };
  const given = Object.entries(figures).filter(([, value]) => value !== undefined);
  const chip = typeof card.chip === 'string' ? { chip: card.chip } : {};
  return { namesake: card.namesake, ...chip, ...Object.fromEntries(given) };
}

/** A mobile or trimmed chip that carries the number of a desktop card. */
export const nameTrap = defineCheck({
  id: 'name-trap',
  reads: ['card'],
  searchGroup: 'own',
  findings: {
    'card/name-trap': kind<Namesake>(
      'care',
      (p, c) => ({
        what: maybe(
          c,
          `This is ${p.chip === 'mobile' ? 'the mobile chip' : 'a trimmed chip'} with the desktop card's number`,
          "This may be a smaller chip with the desktop card's number",
        ),
        why: compared(p),
        todo: `Compare it with ${p.namesake} before you pay for the number; about a tier below is usual.`,
      }),
      { cause: 'mobile-chip' },
    ),
  },
  run({ card }) {
    if (!card || card.namesake === '' || card.chip === 'desktop') return [];
    return [
      {
        code: 'card/name-trap',
        slots: ['card'],
        params: stated(card),
        source: 'common-practice',
        ...certainIf(typeof card.chip === 'string', ['card/chip']),
      },
    ];
  },
});
