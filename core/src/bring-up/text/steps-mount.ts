import { capital, formatWhole } from '../../base/text';
import { adapterNames, portName } from '../../chain';
import { openingPlan } from '../steps/opening';
import type { StepFacts } from '../steps/types';
import { cardOf, dockOf, hostOf, type WordsOf } from './steps-before';

const slotOf = (f: StepFacts) => (f.port ? portName(f.port) : 'the slot');
/** What goes into the slot: an adapter, or the lead of a dock that ends in one. */
const adapterOf = (f: StepFacts) =>
  adapterNames(f.chain)[0] ??
  (f.chain.path?.length === 0 ? `the lead of ${dockOf(f)}` : 'the adapter');
const OUT: Record<string, string> = {
  'system-drive': 'the system drive',
  drive: 'the drive',
  radio: 'the radio card with its two aerial wires',
};

/** Which power cables go where, as they were matched. */
function plugs(f: StepFacts): string[] {
  const assigned = f.evaluation.predicted.body.power.feeders.flatMap(
    (x) => x.plugs?.assigned ?? [],
  );
  if (assigned.length === 0) return [`Every power socket of ${cardOf(f)} gets a cable of its own.`];
  return assigned.map(
    (a, i) =>
      `Socket ${i + 1}, ${a.want}: ${a.by ?? 'no cable is left for it; stop here'}${a.throughAdapter ? ', through the adapter of the card' : ''}.`,
  );
}

function lidWords(f: StepFacts): string[] {
  const plan = openingPlan(f.chain);
  const screws = plan?.screws ? `${formatWhole(plan.screws)} screws` : 'The screws';
  const depth =
    plan?.depth === 'none'
      ? 'The maker allows no opening: from here on the risk is yours alone.'
      : plan?.beyond
        ? 'This goes further than the maker leads: think once more.'
        : 'Go only as far as the maker leads in the manual.';
  return [
    depth,
    `${screws} out, kept in the order of the case${plan?.fixings === 'clips' || plan?.fixings === 'both' ? '; the clips give way from one corner on' : ''}.`,
    f.chain.host?.fanOnLid === 'no'
      ? 'Lift the lid.'
      : 'Lift the lid a finger wide and look for a cable before it goes further.',
  ];
}

export const MOUNT_WORDS: WordsOf<
  | 'host-off'
  | 'host-lid'
  | 'battery-off'
  | 'slot-out'
  | 'cut-shell'
  | 'adapter-in'
  | 'host-close'
  | 'host-alone'
  | 'dock-dead'
  | 'dock-open'
  | 'supply-in'
  | 'card-seat'
  | 'card-hold'
  | 'power-plugs'
  | 'dock-close'
  | 'place'
> = {
  'host-off': (f) => ({
    title: 'Host down, charger out',
    do: [
      `Shut ${hostOf(f)} down, not to sleep. Charger and every cable out. Hold the power button for ten seconds.`,
    ],
    see: 'No lamp is lit.',
    ifNot: 'Wait a minute and hold the button again.',
    means: 'A slot that still has power can be destroyed by what is put in.',
  }),
  'host-lid': (f) => ({
    title: 'Open the host',
    do: lidWords(f),
    see: `${slotOf(f)} lies open and nothing was torn.`,
    ifNot: 'Stop where it resists: a screw is left, or a clip on the other side.',
    means: 'A torn cable or clip costs more than the adapter.',
  }),
  'battery-off': () => ({
    title: 'Battery off',
    do: [
      'Pull the plug of the battery by its body, not by its wires, before anything else is touched.',
    ],
    see: 'The plug lies aside and cannot fall back.',
    ifNot: 'Leave it and stop when the plug cannot be reached: the maker has the last word.',
    means: 'With the battery on, a slipped screwdriver makes a short.',
  }),
  'slot-out': (f) => ({
    title: `Empty ${slotOf(f)}`,
    do: [
      `Remove ${OUT[openingPlan(f.chain)?.out ?? ''] ?? 'what is in the slot'}. Screw into its bag, part into another.`,
    ],
    see: 'The slot is free; the part lies in its bag with a name on it.',
    ifNot: 'It comes up at an angle once its screw is out; never pull it flat.',
    means: 'A bent contact makes the slot useless.',
  }),
  'cut-shell': (f) => ({
    title: 'Cut the shell',
    do: [
      'Think once more: this cannot be undone, and no maker stands by it. Is there a way through an opening that is already there?',
      `Mark the way of the cable from ${slotOf(f)} with tape. Battery out of the shell, chips away from the boards. No power tool near a cell.`,
    ],
    see: 'The edge is smooth, no chips lie inside, and the cable runs without a bend.',
    ifNot: 'Do not cut deeper towards a battery. Stop and look for another way.',
    means: 'What is cut stays cut; the host is worth less from here on.',
  }),
  'adapter-in': (f) => ({
    title: `${capital(adapterOf(f))} into ${slotOf(f)}`,
    do: [
      `Put ${adapterOf(f)} in at an angle, press it down, screw it. Lead its ribbon where no lid presses on it.`,
    ],
    see: 'It lies flat, its screw holds it, and no metal touches the board.',
    ifNot: 'Take it out and look at the notch: a slot of another key does not take it.',
    means: 'A crooked adapter trains with fewer lanes, or not at all.',
  }),
  'host-close': (f) => ({
    title: 'Close the host',
    do: [
      `Battery plug in, fan cable of the lid in${f.chain.host?.fanOnLid === 'no' ? ' if there is one' : ''}, lid on, screws in the order they came out.`,
    ],
    see: 'The lid closes without force and no screw is left over.',
    ifNot: 'Open again: the ribbon or a wire lies under the lid.',
    means: 'A pinched ribbon makes errors that look like a bad card.',
  }),
  'host-alone': (f) => ({
    title: 'Start the host alone',
    do: [`Charger in, dock still away. Start ${hostOf(f)} and look into the firmware setup.`],
    see:
      f.port?.connector === 'm2'
        ? 'It starts from the drive you chose; the other drives are listed.'
        : 'It starts as before; only the radio card is missing.',
    ifNot: 'Take the adapter out and start once more: so you learn whose fault it is.',
    means: 'Battery plug, start order or ribbon. The way back is the way you came.',
  }),
  'dock-dead': (f) => ({
    title: 'Mains out of the dock',
    do: [
      `Pull the mains cable of ${dockOf(f)}, not only its switch, and wait a minute. Link cable out. Touch bare metal before the parts.`,
    ],
    see: 'No lamp, no fan.',
    ifNot: 'Another cable still feeds it: find it.',
    means: 'A card that is put into a live slot can die, and the dock with it.',
  }),
  'dock-open': (f) => ({
    title: 'Open the dock',
    do: [
      typeof f.chain.dock?.screws === 'number' && f.chain.dock.screws > 0
        ? `${f.chain.dock.screws} screws out of ${dockOf(f)}, kept in order.`
        : `Open ${dockOf(f)} as its guide shows.`,
    ],
    see: 'The slot and the power cables lie open.',
    ifNot: 'Look for a screw under a label or a foot.',
    means: 'Force breaks what holds the card later.',
  }),
  'supply-in': (f) => ({
    title: 'Supply in its place',
    do: [
      f.chain.supplies.length > 0
        ? 'Fix the supply, its own cables only: sockets of two makes look alike and are wired differently.'
        : 'Fix the supply that feeds the dock, with its own cables.',
      'A supply is never opened. What is fixed to the mains is the work of licensed people.',
    ],
    see: 'It sits firm, its fan is free, and its switch is off.',
    ifNot: 'Compare its form with the room in the dock.',
    means: 'A supply of the wrong form has no place; one with mixed cables destroys what it feeds.',
  }),
  'card-seat': (f) => ({
    title: 'Card into the slot',
    do: [
      `${cardOf(f)} straight down into the slot of ${dockOf(f)} until the latch clicks. No force sideways.`,
    ],
    see: 'The contacts have gone, the same depth at both ends.',
    ifNot: 'Take it out and look for something in the slot, or a bracket that catches.',
    means: 'A card that is half in trains with fewer lanes, or is not seen.',
  }),
  'card-hold': (f) => ({
    title: 'Hold the card',
    do: [
      f.chain.dock?.retention === 'none' || f.has('fit/unheld')
        ? 'This dock holds the card by its slot alone: support it from below before it is moved.'
        : f.chain.dock?.retention === 'clamp'
          ? 'Close the clamp on the card.'
          : 'Screw the bracket of the card to the dock.',
    ],
    see: 'The card does not nod when the dock is lifted.',
    ifNot: 'Prop it with something that conducts nothing.',
    means: 'A card that sags loses contacts, often weeks later.',
  }),
  'power-plugs': (f) => ({
    title: 'Power plugs until they click',
    do: plugs(f),
    see: 'Each plug has clicked, its latch is over the nose, and no gap shows.',
    ifNot: 'Pull it and push it straight again. A plug that will not go home is the wrong plug.',
    means: 'A plug not fully home can burn.',
  }),
  'dock-close': (f) => ({
    title: 'Close the dock',
    do: [`Close ${dockOf(f)}; no cable against a fan, none under the lid.`],
    see: 'It closes without force and fans turn freely by hand.',
    ifNot: 'Lay the power cable of the card another way.',
    means: 'A cable in a fan stops it; the card then slows down or stops.',
  }),
  place: (f) => ({
    title: 'Put everything in its place',
    do: [
      f.chain.dock?.form === 'open-board' || f.chain.dock === null
        ? 'The board lies flat on something that conducts nothing, cannot tip, and has no drink, child or pet near it.'
        : `${dockOf(f)} stands with a hand of air on every side.`,
      ...(f.chain.host?.form === 'handheld'
        ? [`${hostOf(f)} stands in a holder; no vent is covered.`]
        : []),
    ],
    see: 'Nothing tips when the cable is pulled.',
    ifNot: 'Change the place before anything gets power.',
    means: 'A board that slides makes a short; a card without air slows down.',
  }),
};
