import { clockMs } from './clock';
import { looksClock, looksNumeric } from './layout';
import {
  type CaptureColumn,
  type CaptureLayout,
  type ColumnRole,
  type ColumnUnit,
  isSensor,
  type Mapping,
  type Sensor,
  TIME_UNITS,
  type TimeUnit,
} from './types';

/** Words of a column's name, small, cut where letters change their case or stop. */
function wordsOf(name: string): string[] {
  return name
    .replace(/([a-z0-9])([A-Z])/g, '$1 $2')
    .replace(/\u00b5|\u03bc/g, 'u')
    .toLowerCase()
    .split(/[^a-z0-9%°]+/)
    .filter((w) => w !== '');
}

const CARD = ['gpu', 'card', 'graphics', 'vga'];
const CPU = ['cpu', 'processor', 'package'];
const has = (words: readonly string[], ...any: readonly string[]) =>
  words.some((w) => any.includes(w));

function sensorOf(w: readonly string[]): Sensor | null {
  const watts = has(w, 'power', 'watt', 'watts', 'w', 'draw');
  const clock = has(w, 'clock', 'mhz', 'ghz', 'frequency');
  const heat = has(w, 'temp', 'temperature', 'degc', 'c', '°c');
  const load = has(w, 'load', 'usage', 'utilization', 'utilisation', 'busy', '%');
  if (has(w, 'wall', 'mains', 'socket', 'meter') && watts) return 'wall-w';
  const memory = has(w, 'memory', 'mem', 'vram');
  if (memory && clock) return 'memory-mhz';
  if (memory && has(w, 'mb', 'mib', 'gb', 'used', 'usage')) return 'memory-mb';
  if (has(w, ...CPU))
    return watts ? 'cpu-w' : clock ? 'cpu-mhz' : heat ? 'cpu-c' : load ? 'cpu-load' : null;
  if (has(w, ...CARD))
    return watts ? 'card-w' : clock ? 'card-mhz' : heat ? 'card-c' : load ? 'card-load' : null;
  if (has(w, 'fps', 'framerate') || (has(w, 'frames') && has(w, 's', 'second', 'sec')))
    return 'fps';
  return null;
}

const SHOWN = ['shown', 'display', 'displayed', 'screen'];
const LASTS = ['between', 'interval', 'delta', 'duration', 'time', 'ms', 'frametime', 'change'];

/** What a column is called tells what it holds; null: its name says nothing. */
function byName(name: string): ColumnRole | null {
  const w = wordsOf(name);
  if (w.length === 0) return null;
  if (has(w, 'application', 'app', 'process', 'program', 'executable', 'exe'))
    return has(w, 'id') ? null : 'program';
  if (has(w, 'generated', 'interpolated')) return 'generated';
  const sensor = sensorOf(w);
  if (sensor) return sensor;
  if (has(w, ...SHOWN) && has(w, ...LASTS)) return 'shown';
  if (has(w, 'frametime', 'interval', 'delta', 'between')) return 'frame';
  if (has(w, 'frame') && has(w, 'time', 'ms', 'us', 'duration', 'length')) return 'frame';
  if (has(w, 'time', 'timestamp', 'elapsed', 'seconds', 'clock', 'date', 'at')) return 'time';
  if (w.length === 1 && has(w, 'ms')) return 'frame';
  return null;
}

/** Values of one column of the sample that are numbers. */
function figures(layout: CaptureLayout, column: number): number[] {
  const cells = layout.sample.map((r) => r[column] ?? '').filter(looksNumeric);
  return cells.map((c) => Number(layout.decimal === ',' ? c.replace(',', '.') : c));
}

const middle = (list: readonly number[]) =>
  [...list].sort((a, b) => a - b)[list.length >> 1] ?? NaN;
const middleStep = (list: readonly number[]) =>
  middle(list.slice(1).map((v, i) => v - (list[i] as number)));

/** A unit that the name gives: in brackets, or as its last word. */
function unitByName(name: string): ColumnUnit | null {
  const last = wordsOf(name).at(-1);
  const all = wordsOf(name);
  if (last === 'ms' || all.includes('milliseconds') || all[0] === 'ms') return 'ms';
  if (last === 'us' || all.includes('microseconds')) return 'us';
  if (last === 'ns' || all.includes('nanoseconds')) return 'ns';
  if (last === 's' || last === 'sec' || all.includes('seconds')) return 's';
  return null;
}

/** The unit that makes a usual frame last between 0.8 and 400 ms. */
function frameUnit(usual: number): ColumnUnit {
  return usual >= 400_000 ? 'ns' : usual >= 400 ? 'us' : usual >= 0.8 ? 'ms' : 's';
}

function unitOf(layout: CaptureLayout, column: number, role: ColumnRole): ColumnUnit {
  const name = layout.header?.[column] ?? '';
  if (role === 'frame' || role === 'shown')
    return unitByName(name) ?? frameUnit(middle(figures(layout, column)));
  if (role === 'time') {
    if (layout.sample.some((r) => looksClock(r[column] ?? ''))) return 'clock';
    const list = figures(layout, column);
    const step = middleStep(list);
    // A log steps by whole seconds or their tenths, frames by what a frame lasts.
    return (
      unitByName(name) ??
      (step >= 0.2 && step <= 10 && !list.some((v) => v > 1e6) && layout.width > 2
        ? 's'
        : frameUnit(step))
    );
  }
  const words = wordsOf(name);
  if (words.includes('ghz') || words.includes('kw') || words.includes('gb')) return 'kilo';
  if (words.includes('mw') || words.includes('milliwatt')) return 'milli';
  if (
    role.endsWith('-load') &&
    figures(layout, column).length > 0 &&
    figures(layout, column).every((v) => v <= 1)
  )
    return 'share';
  return 'own';
}

/** In a table without names: a column that only grows is a time, one of steady positive values the frames. */
function byValues(layout: CaptureLayout, column: number): ColumnRole {
  const list = figures(layout, column);
  if (layout.sample.some((r) => looksClock(r[column] ?? ''))) return 'time';
  if (list.length < layout.sample.length * 0.8)
    return layout.width > 1 && list.length === 0 ? 'program' : 'ignore';
  const grows =
    list.length > 2 &&
    list.every((v, i) => i === 0 || v >= (list[i - 1] as number)) &&
    list[0] !== list.at(-1);
  if (grows) return 'time';
  return list.every((v) => v > 0) ? 'frame' : 'ignore';
}

/** A role that only one column may have goes to the first that asked for it. */
function onlyOnce(roles: readonly ColumnRole[]): ColumnRole[] {
  return roles.map((r, i) => (roles.indexOf(r) === i ? r : 'ignore'));
}

/**
 * Proposes what each column holds, from its name and its values. The user confirms it before the file is read.
 *
 * @param layout layout of the file
 * @returns the mapping
 */
export function proposeMapping(layout: CaptureLayout): Mapping {
  const columns = Array.from({ length: layout.width }, (_, i) => i);
  const named = columns.map((i): ColumnRole => {
    const role = layout.header ? byName(layout.header[i] ?? '') : byValues(layout, i);
    // A running number is no time of a frame.
    if (!layout.header && role === 'time' && isCounter(figures(layout, i))) return 'ignore';
    return role ?? 'ignore';
  });
  let roles = onlyOnce(named);
  if (!roles.includes('frame') && !roles.includes('time')) {
    const guess = columns.find((i) => roles[i] === 'ignore' && byValues(layout, i) === 'frame');
    roles = roles.map((r, i) => (i === guess ? 'frame' : r));
  }
  const { delimiter, decimal, comment, skip, header } = layout;
  return {
    delimiter,
    decimal,
    comment,
    skip,
    header: header !== null,
    columns: roles.map((role, i): CaptureColumn => ({ role, unit: unitOf(layout, i, role) })),
  };
}

function isCounter(list: readonly number[]): boolean {
  return (
    list.length > 2 &&
    list.every((v, i) => Number.isInteger(v) && (i === 0 || v === (list[i - 1] as number) + 1))
  );
}

/**
 * Signature of a layout: a confirmed mapping is proposed again for files of the same signature.
 *
 * @param layout layout of the file
 * @returns delimiter, decimal mark and column names, or the number of columns; at most 2000 characters
 */
export function signatureOf(layout: CaptureLayout): string {
  const names = layout.header?.map((h) => h.toLowerCase()).join('|') ?? `no names, ${layout.width}`;
  return `${layout.delimiter === '\t' ? 'tab' : layout.delimiter}${layout.decimal}${names}`.slice(
    0,
    2000,
  );
}

/**
 * Applies a stored mapping to a file of the same signature; its number of lines before the table may differ.
 *
 * @param mapping the stored mapping
 * @param layout layout of the file
 * @returns the mapping for this file
 */
export function remembered(mapping: Mapping, layout: CaptureLayout): Mapping {
  return { ...mapping, skip: layout.skip, comment: layout.comment };
}

/** Rows that come no faster than this are a log of sensors; frames come faster. */
const LOG_STEP_MS = 90;

/**
 * Kind of data that a mapping reads.
 *
 * @param mapping the mapping
 * @param layout layout of the file, whose sample shows the step between rows
 * @returns frames, only sensors over time, or null for neither
 */
export function readsWhat(mapping: Mapping, layout: CaptureLayout): 'frames' | 'log' | null {
  const at = mapping.columns.findIndex((c) => c.role === 'time');
  if (mapping.columns.some((c) => c.role === 'frame')) return 'frames';
  if (at < 0) return null;
  if (!mapping.columns.some((c) => isSensor(c.role))) return 'frames';
  const unit = mapping.columns[at]?.unit as TimeUnit;
  const clock = () =>
    layout.sample.map((r) => clockMs(r[at] ?? '')).filter((v) => !Number.isNaN(v));
  return middleStep(unit === 'clock' ? clock() : figures(layout, at)) * TIME_UNITS[unit] >=
    LOG_STEP_MS
    ? 'log'
    : 'frames';
}
