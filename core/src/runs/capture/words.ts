import type { CaptureColumn, ColumnRole, ColumnUnit, Sensor } from './types';

/**
 * Words of a column's name, small, cut where letters change their case or stop.
 *
 * @param name name of a column
 * @returns its words
 * @example nameWords('msFrameTime [us]') // => ['ms', 'frame', 'time', 'us']
 */
export function nameWords(name: string): string[] {
  return name
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .replace(/([A-Z])([A-Z][a-z])/g, '$1 $2')
    .replace(/\u00b5|\u03bc/g, 'u')
    .toLowerCase()
    .split(/[^a-z0-9%°]+/)
    .filter((w) => w !== '');
}

const CARD = ['gpu', 'card', 'graphics', 'vga'];
const CPU = ['cpu', 'processor', 'package'];
const LATENCY = ['latency', 'lag', 'delay', 'click', 'response', 'until'];
const WAITS = ['wait', 'waiting', 'waits', 'idle'];
const SHOWN = ['shown', 'display', 'displayed', 'screen'];
const LASTS = ['between', 'interval', 'delta', 'duration', 'time', 'ms', 'frametime', 'change'];
const TIMES = ['ms', 'us', 'ns', 'milliseconds', 'microseconds', 'time', 'duration'];

const has = (words: readonly string[], ...any: readonly string[]) =>
  words.some((w) => any.includes(w));

/** What of a chip a name measures: of the card or the processor. */
function ofChip(w: readonly string[], chip: 'card' | 'cpu'): Sensor | null {
  if (has(w, 'power', 'watt', 'watts', 'w', 'mw', 'draw')) return `${chip}-w`;
  if (has(w, 'clock', 'mhz', 'ghz', 'frequency')) return `${chip}-mhz`;
  if (has(w, 'temp', 'temperature', 'degc', 'c', '°c')) return `${chip}-c`;
  if (has(w, 'load', 'usage', 'utilization', 'utilisation', '%', 'percent')) return `${chip}-load`;
  if (has(w, ...WAITS)) return null;
  if (has(w, ...TIMES)) return `${chip}-busy-ms`;
  return has(w, 'busy', 'active') ? `${chip}-load` : null;
}

function sensorOf(w: readonly string[]): Sensor | null {
  const watts = has(w, 'power', 'watt', 'watts', 'w', 'draw');
  if (has(w, ...LATENCY)) return 'latency-ms';
  if (has(w, 'wall', 'mains', 'socket', 'meter') && watts) return 'wall-w';
  if (has(w, 'memory', 'mem', 'vram')) {
    if (has(w, 'clock', 'mhz', 'ghz', 'frequency')) return 'memory-mhz';
    if (has(w, 'mb', 'mib', 'gb', 'used', 'usage')) return 'memory-mb';
  }
  if (has(w, ...CPU)) return ofChip(w, 'cpu');
  if (has(w, ...CARD)) return ofChip(w, 'card');
  if (has(w, 'fps', 'framerate') || (has(w, 'frames') && has(w, 's', 'second', 'sec')))
    return 'fps';
  return has(w, 'frame') && has(w, 'rate') ? 'fps' : null;
}

function ofPictures(w: readonly string[]): ColumnRole | null {
  if (has(w, 'generated', 'interpolated', 'frametype')) return 'generated';
  if (has(w, 'frame') && has(w, 'type', 'kind')) return 'generated';
  return null;
}

/**
 * What a column is called tells what it holds.
 *
 * @param name name of the column
 * @returns its role; null where the name says nothing
 * @example roleByName('Input latency (ms)') // => 'latency-ms'
 */
export function roleByName(name: string): ColumnRole | null {
  const w = nameWords(name);
  if (w.length === 0) return null;
  if (has(w, 'application', 'app', 'process', 'program', 'executable', 'exe'))
    return has(w, 'id') ? null : 'program';
  const told = ofPictures(w) ?? sensorOf(w);
  if (told) return told;
  if (has(w, ...SHOWN) && has(w, ...LASTS)) return 'shown';
  if (has(w, 'cumulative', 'total', 'sum') || (has(w, 'since') && has(w, 'start', 'begin')))
    return 'time';
  if (has(w, 'frametime', 'interval', 'delta', 'between', 'since')) return 'frame';
  if (has(w, 'frame') && has(w, 'time', 'ms', 'us', 'duration', 'length')) return 'frame';
  if (has(w, 'date', 'day')) return has(w, 'time') ? 'time' : 'date';
  if (has(w, 'time', 'timestamp', 'elapsed', 'seconds', 'clock', 'at')) return 'time';
  return w.length === 1 && has(w, 'ms') ? 'frame' : null;
}

/**
 * Unit of a time that the name gives: in brackets, as its last word or its first.
 *
 * @param name name of the column
 * @returns the unit; null where the name gives none
 * @example unitByName('msFrame') // => 'ms'
 */
export function unitByName(name: string): ColumnUnit | null {
  const all = nameWords(name);
  const is = (...units: string[]) => has([all[0] ?? '', all.at(-1) ?? ''], ...units);
  if (is('ms') || has(all, 'milliseconds', 'millisecond', 'msec')) return 'ms';
  if (is('us') || has(all, 'microseconds', 'microsecond', 'usec')) return 'us';
  if (is('ns') || has(all, 'nanoseconds', 'nanosecond', 'nsec')) return 'ns';
  return all.at(-1) === 's' || has(all, 'sec', 'seconds', 'second') ? 's' : null;
}

/**
 * Factor of a sensor whose name gives a unit other than its own.
 *
 * @param name name of the column
 * @param role sensor of the column
 * @returns the factor's name; `own` where the name gives none
 */
export function sensorUnitByName(name: string, role: ColumnRole): CaptureColumn['unit'] {
  if (role.endsWith('-ms')) {
    const unit = unitByName(name);
    return unit === 's' ? 'kilo' : unit === 'us' ? 'milli' : 'own';
  }
  const w = nameWords(name);
  if (has(w, 'ghz', 'kw', 'gb')) return 'kilo';
  return has(w, 'mw', 'milliwatt') ? 'milli' : 'own';
}
