import type { CardSpec } from '../schema/card';
import type { DockSpec } from '../schema/dock';
import type { HostSpec, SocketSpec } from '../schema/host';
import type { AnySpec, PartKind } from '../schema/parts';
import type { CableSpec } from '../schema/pieces';
import type { ScreenSpec } from '../schema/screen';
import { wordsOf } from '../schema/stated';
import type { SupplySpec } from '../schema/supply';
import type { ValueQuestion } from './types';

/** Rates that USB, USB4, Thunderbolt and their cables are marked with, in Gb/s (USB-IF and Thunderbolt marks; from memory). */
const MARKED_RATES = [0.48, 5, 10, 20, 40, 80, 120];
/** Watts that cables and chargers of USB PD are marked with (USB PD 3.1; from memory). */
const MARKED_WATTS = [15, 27, 45, 60, 65, 96, 100, 140, 180, 240];
/** Widths a PCIe link can have (PCIe base specification; from memory). */
const WIDTHS = [1, 2, 4, 8, 16];
/** What each card socket may draw, in W (PCIe card electromechanical specification; from memory). */
const PLUG_W = { eight: 150, six: 75, sixteen: 600, slot: 75 };

const known = (v: unknown): v is number => typeof v === 'number';

function lanes(path: string, value: unknown): ValueQuestion[] {
  return known(value) && !WIDTHS.includes(value)
    ? [{ path, code: 'no-such-width', params: { lanes: value } }]
    : [];
}

/**
 * Odd values of a cable: GB/s written for Gb/s, watts for a rate, a rate for watts, cm for mm.
 * @param c marks and length
 * @returns questions; none where nothing is odd
 */
export function cableQuestions(
  c: Pick<CableSpec, 'markedGbps' | 'markedW' | 'lengthMm'>,
): ValueQuestion[] {
  const found: ValueQuestion[] = [];
  const rate = c.markedGbps;
  const watts = c.markedW;
  const length = c.lengthMm;
  if (known(rate) && !MARKED_RATES.includes(rate)) {
    if (MARKED_RATES.includes(rate * 8))
      found.push({
        path: 'markedGbps',
        code: 'bytes-for-bits',
        params: { said: rate, would: rate * 8 },
      });
    else if (MARKED_WATTS.includes(rate))
      found.push({ path: 'markedGbps', code: 'watts-for-rate', params: { said: rate } });
    else found.push({ path: 'markedGbps', code: 'no-such-rate', params: { said: rate } });
  }
  if (known(watts) && !MARKED_WATTS.includes(watts) && MARKED_RATES.includes(watts))
    found.push({ path: 'markedW', code: 'rate-for-watts', params: { said: watts } });
  if (known(length) && length < 150)
    found.push({
      path: 'lengthMm',
      code: 'centimetres',
      params: { said: length, would: length * 10 },
    });
  return found;
}

/** The watts all sockets of a card and its slot may draw together; null when a count is not known. */
function plugWatts(c: CardSpec): number | null {
  const counts = [c.plugs8Pin, c.plugs6Pin, c.plugs16Pin];
  if (!counts.every(known)) return null;
  const [eight, six, sixteen] = counts as [number, number, number];
  return PLUG_W.slot + eight * PLUG_W.eight + six * PLUG_W.six + sixteen * PLUG_W.sixteen;
}

/** A number of a unit inside a name: "16 GB", "750 W". */
function inName(name: string, unit: string): number | null {
  const found = new RegExp(`(\\d+(?:\\.\\d+)?)\\s*${unit}\\b`, 'i').exec(name);
  return found ? Number(found[1]) : null;
}

function nameAgainst(name: string, unit: string, path: string, value: unknown): ValueQuestion[] {
  const said = inName(name, unit);
  return said !== null && known(value) && said !== value
    ? [{ path, code: 'name-says-otherwise', params: { name: said, said: value, unit } }]
    : [];
}

function cardQuestions(c: CardSpec): ValueQuestion[] {
  const found: ValueQuestion[] = [
    ...lanes('lanes', c.lanes),
    ...nameAgainst(`${c.model} ${c.variant}`, 'GB', 'memoryGB', c.memoryGB),
  ];
  // A chip soldered to its dock has no sockets and does not sit in a slot.
  const soldered =
    c.chip === 'mobile' && c.plugs8Pin === 0 && c.plugs6Pin === 0 && c.plugs16Pin === 0;
  const most = soldered ? null : plugWatts(c);
  if (known(c.boardW) && most !== null && c.boardW > most)
    found.push({ path: 'boardW', code: 'plugs-short-of-watts', params: { said: c.boardW, most } });
  if (/\b(mobile|laptop|max-q)\b/i.test(`${c.model} ${c.variant}`) && c.chip === 'desktop')
    found.push({ path: 'chip', code: 'mobile-name', params: {} });
  if (known(c.lengthMm) && c.lengthMm < 100 && known(c.boardW) && c.boardW > 150)
    found.push({
      path: 'lengthMm',
      code: 'centimetres',
      params: { said: c.lengthMm, would: c.lengthMm * 10 },
    });
  if (
    c.namesake !== '' &&
    c.namesake.trim().toLowerCase() === `${c.model} ${c.variant}`.trim().toLowerCase()
  )
    found.push({ path: 'namesake', code: 'same-card', params: { name: c.namesake } });
  return found;
}

/** Usable rate a Gen3 x4 tunnel can carry at most by its raw rate: 8 GT/s, four lanes, 128b/130b (PCIe 3.0 base specification). */
const GEN3_X4_GBPS = 8 * 4 * (128 / 130);

function dockQuestions(d: DockSpec): ValueQuestion[] {
  const found: ValueQuestion[] = [
    ...lanes('slotLanes', d.slotLanes),
    ...nameAgainst(`${d.model} ${d.variant}`, 'W', 'supplyW', d.supplyW),
  ];
  const up = wordsOf(d.uplink);
  // Before Thunderbolt 5 and USB4 at 80 no dock chip passed on more than Gen3 x4 (common practice, no published source).
  const older =
    up.length > 0 &&
    up.every((w) =>
      ['thunderbolt-2', 'thunderbolt-3', 'thunderbolt-4', 'usb4-20', 'usb4-40'].includes(w),
    );
  if (up.length > 0 && d.controllerClass === 'd' && up.every((w) => w === 'thunderbolt-3'))
    found.push({ path: 'controllerClass', code: 'class-above-link', params: {} });
  if (older && known(d.capGbps) && d.capGbps > GEN3_X4_GBPS)
    found.push({
      path: 'capGbps',
      code: 'cap-above-link',
      params: { said: d.capGbps, most: Math.round(GEN3_X4_GBPS * 10) / 10 },
    });
  return [...found, ...supplyQuestions(d)];
}

/** Cables promise more than the rating: one plug of a kind alone may draw so much. */
function supplyQuestions(
  s: Pick<SupplySpec, 'supplyW' | 'cable16PinW' | 'cables16Pin'>,
): ValueQuestion[] {
  const allowed = typeof s.cable16PinW === 'string' ? Number(s.cable16PinW) : null;
  return allowed !== null &&
    known(s.supplyW) &&
    known(s.cables16Pin) &&
    s.cables16Pin > 0 &&
    allowed >= s.supplyW
    ? [{ path: 'cable16PinW', code: 'one-lead-plugs', params: { allowed, rating: s.supplyW } }]
    : [];
}

function hostQuestions(h: HostSpec): ValueQuestion[] {
  const battery: ValueQuestion[] =
    // Cabin rules of air travel end at 100 Wh; makers stay below (common practice, no published source).
    known(h.batteryWh) && h.batteryWh > 100
      ? [{ path: 'batteryWh', code: 'big-battery', params: { said: h.batteryWh } }]
      : [];
  return [
    ...battery,
    ...h.sockets.flatMap((s: SocketSpec) => lanes(`sockets/${s.key}/lanes`, s.lanes)),
  ];
}

function screenQuestions(s: ScreenSpec): ValueQuestion[] {
  return known(s.widthPx) && known(s.heightPx) && s.heightPx > s.widthPx
    ? [
        {
          path: 'heightPx',
          code: 'upright-screen',
          params: { width: s.widthPx, height: s.heightPx },
        },
      ]
    : [];
}

/**
 * What is worth asking about the values of a part.
 * @param kind of the part
 * @param spec of the part
 * @returns questions; none where nothing is odd
 */
export function partQuestions(kind: PartKind, spec: AnySpec): ValueQuestion[] {
  switch (kind) {
    case 'cable':
      return cableQuestions(spec as CableSpec);
    case 'card':
      return cardQuestions(spec as CardSpec);
    case 'dock':
      return dockQuestions(spec as DockSpec);
    case 'host':
      return hostQuestions(spec as HostSpec);
    case 'screen':
      return screenQuestions(spec as ScreenSpec);
    case 'supply': {
      const s = spec as SupplySpec;
      return [
        ...nameAgainst(`${s.model} ${s.variant}`, 'W', 'supplyW', s.supplyW),
        ...supplyQuestions(s),
      ];
    }
    case 'adapter':
      return lanes('lanes', (spec as { lanes?: unknown }).lanes);
    default:
      return [];
  }
}

/**
 * The same card again among the other cards of a dock: a pair to compare must differ.
 * @param card name of the card as shown; null while none is chosen
 * @param others names of the other cards
 * @returns questions; none where nothing is odd
 */
export function pairQuestions(card: string | null, others: readonly string[]): ValueQuestion[] {
  return others.flatMap((name, i) =>
    name === card || others.indexOf(name) < i
      ? [{ path: `spares/${i}`, code: 'same-card' as const, params: { name } }]
      : [],
  );
}
