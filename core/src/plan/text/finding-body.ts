import { exact, type Range } from '../../base';
import { asRange, capital, figure, length, maybe, type Sentence, span } from '../../base/text';
import type { FindingCode } from '../codes';
import type { Finding } from '../finding';
import { notKnown } from './not-known';

type BodyCode = Extract<
  FindingCode,
  | `power/${string}`
  | `charging/${string}`
  | `fit/${string}`
  | `cooling/${string}`
  | `screen/${string}`
  | 'card/name-trap'
>;

const text = (f: Finding, key: string) => String(f.params[key] ?? '');
const r = (f: Finding, key: string): Range => asRange(f.params[key]);
const watts = (f: Finding, key: string) => `${figure(r(f, key))} W`;
const s = (n: Range) => (n.lo === 1 && n.hi === 1 ? '' : 's');
const LEAST: Record<string, string> = {
  dock: 'the dock',
  cable: 'the cable',
  host: 'the host port',
};
const SIDE: Record<string, string> = { length: 'long', height: 'high', slots: 'wide' };
const PLUG: Record<string, string> = { displayport: 'DisplayPort', hdmi: 'HDMI' };
const known = (f: Finding, ...keys: string[]) => keys.every((key) => key in f.params);
const size = (f: Finding, key: string) =>
  f.params['what'] === 'slots' ? `${figure(r(f, key), 1)} slots` : length(r(f, key));

/** Sentences about power, charging, room, air and pictures. */
export const BODY_TEXTS: Record<BodyCode, (f: Finding) => Sentence> = {
  'power/plugs-short': (f) => ({
    what: maybe(
      f,
      `${figure(r(f, 'short'))} plug${s(r(f, 'short'))} short`,
      'Power plugs may run short',
    ),
    why:
      f.certainty === 'certain' || !f.hangsOn.length
        ? `The card wants ${text(f, 'wants')}, ${text(f, 'supply')} gives ${text(f, 'offers')}.${spare(f)}`
        : notKnown(f),
    todo: 'Each socket wants a cable of its own; the second head of one cable shares its wires. Take a supply with enough power cables, or a card with fewer sockets.',
  }),
  'power/cpu-plug': () => ({
    what: 'Wrong wiring destroys the card: a processor 8-pin is no card 8-pin',
    why: 'This supply brings processor cables with as many pins. Forced in, they short 12 V to ground.',
    todo: "Use only cables marked for cards, and only those of this supply. The supply maker's manual counts before this.",
  }),
  'power/over': (f) => ({
    what: maybe(f, 'More watts than the supply has', 'The supply may have too few watts'),
    why: known(f, 'load', 'rated')
      ? `${watts(f, 'load')} hang on ${text(f, 'supply')}, rated ${watts(f, 'rated')}.`
      : notKnown(f),
    todo: "Take a bigger supply, lower the card's power limit, or let the host use its own charger.",
  }),
  'power/tight': (f) => ({
    what: maybe(f, 'Supply near its rating', 'Supply may be near its rating'),
    why: `${watts(f, 'load')} of ${watts(f, 'rated')}; comfortable up to ${figure(exact(r(f, 'rated').lo * r(f, 'comfort').lo))} W.`,
    todo: "A bigger supply runs cooler and quieter; the host's own charger takes its share off.",
  }),
  'power/peak': (f) => ({
    what: maybe(f, 'Short peaks trip the supply', 'Short peaks may trip the supply'),
    why: `For ${span(r(f, 'us').lo)} the card and the rest may draw ${watts(f, 'need')}; ${text(f, 'supply')} bears ${watts(f, 'have')} so long.`,
    todo: "Take a supply made to ATX 3.x or a bigger one, or lower the card's power limit.",
  }),
  'power/uncovered': (f) => ({
    what: maybe(
      f,
      'More watts than the plugs and the slot of this card carry',
      'Plugs and slot may carry too few watts for this card',
    ),
    why: known(f, 'need', 'have')
      ? `The card takes ${watts(f, 'need')}; its sockets at 75 W (6-pin), 150 W (8-pin) and 600 W (16-pin) and the slot carry ${watts(f, 'have')}.${f.certainty === 'certain' ? '' : ` ${notKnown(f)}`}`
      : notKnown(f),
    todo: maybe(
      f,
      "Check board power and sockets on the card or in its maker's data sheet; take a card that suits this slot.",
      "Look at the edge of the card and in its maker's data sheet.",
    ),
  }),
  'power/no-supply': (f) => ({
    what: maybe(
      f,
      'Nothing feeds the power sockets of the card',
      'The card may have nothing to feed it',
    ),
    why:
      f.certainty === 'certain'
        ? `The card has ${figure(r(f, 'sockets'))} power socket${s(r(f, 'sockets'))}; ${f.params['missing'] === 'yes' ? 'the dock brings no supply, and none is chosen' : 'no supply with cables for it is chosen'}.`
        : notKnown(f),
    todo: 'Choose a supply at the left.',
  }),
  'power/two-on-card': () => ({
    what: 'Two supplies on one card can destroy it',
    why: 'Their 12 V are never exactly alike; current runs from one into the other through the card.',
    todo: "Feed the card from one supply. The maker's manual of card and supply counts before this.",
  }),
  'power/beside': () => ({
    what: 'Mixed power cables destroy cards: two supplies stand side by side',
    why: 'Modular cables fit other supplies and are wired otherwise, even of one make.',
    todo: 'Mark each cable with its supply, and switch both on and off together.',
  }),
  'power/used': (f) => ({
    what: 'Second-hand supply',
    why: `${capital(text(f, 'supply'))} has aged: its reserve for peaks shrinks, and cables may be missing or from another make.`,
    todo: 'Look for its own cables and a date of making; never open it. Prefer a new one for a strong card.',
  }),
  'power/slot': (f) => ({
    what: maybe(f, 'The slot gives too little', 'The slot may give too little'),
    why: `The card takes ${watts(f, 'need')} from its slot, the dock's slot gives ${watts(f, 'have')}.`,
    todo: 'Take a card that draws from its plugs, or a dock whose slot gives 75 W.',
  }),
  'power/sense': (f) => ({
    what: known(f, 'allows')
      ? `The 16-pin cable allows ${watts(f, 'allows')}`
      : 'The 16-pin cable may allow too few watts',
    why: `${f.certainty === 'certain' ? '' : `${notKnown(f)} `}The card may want ${watts(f, 'need')} through it; by its sense pins it will hold itself back or not start.`,
    todo: 'Take the cable or adapter marked for more, and push the plug home until it clicks: a plug not fully home can burn.',
  }),
  'charging/drains': (f) => ({
    what: maybe(f, 'The host drains while it works', 'The host may drain while it works'),
    why:
      !known(f, 'contract', 'draw') || (f.certainty === 'possible' && 'refuses' in f.params)
        ? notKnown(f)
        : `Charges with ${watts(f, 'contract')} while the host takes ${watts(f, 'draw')}${'hours' in f.params ? `: empty after ${hoursOf(r(f, 'hours'))}` : ''}. ${capital(LEAST[text(f, 'least')] ?? 'the dock')} sets it.`,
    todo: "Bring the host's own charger.",
  }),
  'charging/refused': (f) => ({
    what: 'The host refuses so weak a charger',
    why: `It takes nothing below ${watts(f, 'minimum')}; ${LEAST[text(f, 'least')] ?? 'the dock'} gives less.`,
    todo: "Bring the host's own charger.",
  }),
  'charging/none': () => ({
    what: 'Nothing charges the host on this route',
    why: 'The link carries no power, or the dock gives none.',
    todo: "Bring the host's own charger, or a second USB-C cable where the dock has such a port.",
  }),
  'fit/too-big': (f) => ({
    what: maybe(
      f,
      `The card is too ${SIDE[text(f, 'what')] ?? 'big'}`,
      `The card may be too ${SIDE[text(f, 'what')] ?? 'big'}`,
    ),
    why: known(f, 'need', 'have')
      ? `${capital(size(f, 'need'))}; the dock has room for ${size(f, 'have')}.`
      : notKnown(f),
    todo: 'Take a smaller card or a bigger dock; measure before you buy.',
  }),
  'fit/bend': (f) => ({
    what: maybe(f, 'The power plug has no room to bend', 'The power plug may have no room to bend'),
    why: `${f.certainty === 'certain' ? '' : `${notKnown(f)} `}With its bend the card needs ${length(r(f, 'need'))}, the dock has ${length(r(f, 'have'))}. Pressed by a lid, a plug works loose and can burn.`,
    todo: 'Take an angled plug made for this socket, or a dock with more room.',
  }),
  'fit/heavy': (f) => ({
    what: maybe(
      f,
      'The card is heavier than the dock bears',
      'The card may be heavier than the dock bears',
    ),
    why: known(f, 'need', 'have')
      ? `${figure(r(f, 'need'))} g on a dock for ${figure(r(f, 'have'))} g.`
      : notKnown(f),
    todo: 'Support the card at its far end, or lay the dock on its side.',
  }),
  'fit/unheld': (f) => ({
    what: maybe(f, 'Only its slot holds the card', 'Only its slot may hold the card'),
    why: 'A pull on the screen cable tips it and breaks the slot.',
    todo: 'Fix the bracket to something solid, and lead the cables with slack.',
  }),
  'fit/supply-form': (f) => ({
    what: maybe(f, 'The supply does not go into the dock', 'The supply may not go into the dock'),
    why: known(f, 'room')
      ? `${text(f, 'form').toUpperCase()} supply, room for ${text(f, 'room').toUpperCase()}.`
      : notKnown(f),
    todo: 'Take a supply of the right form.',
  }),
  'fit/open-board': (f) => ({
    what:
      f.params['lid'] === 'off'
        ? 'Live parts lie open without the lid'
        : 'A live open board can short or tip',
    why: 'Nothing stands between its contacts and a drink, a screw, a paw.',
    todo: "Mains out before any hand goes near; keep drinks, children and pets away. The maker's manual counts before this.",
  }),
  'fit/short-only': () => ({
    what: 'This dock takes special short cards only',
    why: 'This one fits; few others will.',
    todo: 'Think of the next card before you buy the dock.',
  }),
  'fit/screws': (f) => ({
    what: `${figure(r(f, 'n'))} screws to open the dock`,
    why: 'Each change of card means undoing them.',
    todo: 'Mains out first. Keep the screws in a tray, in their order.',
  }),
  'cooling/hot': (f) => ({
    what: maybe(f, 'Hot air stays in the dock', 'Hot air may stay in the dock'),
    why: !known(f, 'rise')
      ? notKnown(f)
      : `Air leaves ${figure(r(f, 'rise'))} K warmer than it came; comfortable up to ${figure(r(f, 'limit'))} K.`,
    todo: "Leave its vents free, take a dock with more air or a blower card, or lower the card's power limit.",
  }),
  'cooling/lid': () => ({
    what: 'Lid closed',
    why: 'Some hosts breathe through the keyboard: open gave about 1.4 % clock with an open-air card in one set of runs.',
    todo: 'Measure both before you decide.',
  }),
  'cooling/loud': (f) => ({
    what: `Loud: ${figure(r(f, 'noise'))} dB(A) under load`,
    why: `A quiet room has about 30; said from ${figure(r(f, 'limit'))}.`,
    todo: 'Stand it under the table with its vents free; a longer active cable may be needed for that.',
  }),
  'screen/no-plug': (f) => ({
    what: `${f.params['weaker'] === 'screen' ? 'The screen' : capital(f.params['by'] === 'dock' ? 'the dock' : 'the card')} has no ${PLUG[text(f, 'plug')] ?? 'such plug'}`,
    why: `${text(f, 'name')} is to hang on ${PLUG[text(f, 'plug')] ?? 'a plug'} of ${f.params['by'] === 'dock' ? 'the dock' : 'the card'}.`,
    todo: 'Choose the other plug.',
  }),
  'screen/too-much': (f) => ({
    what: maybe(
      f,
      'The picture is too much for its plug',
      'The picture may be too much for its plug',
    ),
    why:
      f.certainty !== 'certain'
        ? `${text(f, 'name')}. ${notKnown(f)}`
        : `${text(f, 'name')} needs ${figure(r(f, 'need'), 1)} Gb/s, ${PLUG[text(f, 'plug')] ?? ''} carries ${figure(r(f, 'have'), 1)} here; ${f.params['weaker'] === 'screen' ? 'the screen' : `the output of ${f.params['by'] === 'dock' ? 'the dock' : 'the card'}`} sets it.`,
    todo: 'Take the other plug, fewer hertz or fewer bits.',
  }),
  'screen/compressed': (f) => ({
    what: 'The picture fits with compression only',
    why: `${text(f, 'name')} needs ${figure(r(f, 'need'), 1)} Gb/s as it is, ${figure(r(f, 'have'), 1)} are there; both ends compress.`,
    todo: 'Nothing to do; it is not seen.',
  }),
  'screen/through-dock': (f) => ({
    what: `${text(f, 'name')} hangs on the dock, not on the card`,
    why: "The dock's own output shows the host's graphics and takes its whole rate from the link.",
    todo: 'Put it straight on the card.',
  }),
  'screen/panel': (f) => ({
    what: "The picture goes back to the host's panel",
    why: `Every frame travels back over the link: 10 to 20 % of frames at 1080p are usual${'width' in f.params ? `, and ${figure(r(f, 'width'))}×${figure(r(f, 'height'))} is all the panel shows` : ''}. Some systems want a screen or a dummy plug on the card before they use it.`,
    todo: 'Put a screen on the card; have a dummy plug ready if none stands there.',
  }),
  'card/name-trap': (f) => ({
    what: maybe(
      f,
      `This is ${f.params['chip'] === 'mobile' ? 'the mobile chip' : 'a trimmed chip'} with the desktop card's number`,
      "This may be a smaller chip with the desktop card's number",
    ),
    why: trap(f),
    todo: `Compare it with ${text(f, 'namesake')} before you pay for the number; about a tier below is usual.`,
  }),
};

function trap(f: Finding): string {
  const of = (a: string, b: string, unit: string) =>
    a in f.params && b in f.params ? [`${text(f, a)} of ${text(f, b)}${unit}`] : [];
  const facts = [
    ...of('units', 'ofUnits', ' units'),
    ...of('memory', 'ofMemory', ' GB'),
    ...of('watts', 'ofWatts', ' W'),
  ];
  return facts.length > 0
    ? `Against ${text(f, 'namesake')}: ${facts.join(', ')}.`
    : `It is sold beside ${text(f, 'namesake')} under one number.`;
}

/** Watts to spare do not help where plugs are short; neither is said apart. */
function spare(f: Finding): string {
  if (!('rated' in f.params)) return '';
  const enough = r(f, 'load').hi <= r(f, 'rated').lo;
  return ` Watts ${enough ? 'would do' : 'would not do either'}: ${figure(r(f, 'load'))} of ${watts(f, 'rated')}.`;
}

/** Hours as a person says them: "6 h", "1 h 20 min", "more than 3 h". */
export function hoursOf(h: Range): string {
  const one = (x: number) => {
    const minutes = Math.round(x * 60);
    return minutes >= 60
      ? `${Math.floor(minutes / 60)} h${minutes % 60 ? ` ${minutes % 60} min` : ''}`
      : `${minutes} min`;
  };
  if (!Number.isFinite(h.hi)) return `${one(h.lo)} at the earliest`;
  return one(h.lo) === one(h.hi) ? one(h.lo) : `${one(h.lo)} to ${one(h.hi)}`;
}
