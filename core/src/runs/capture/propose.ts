import { clockMs } from './clock';
import { looksClock, looksDate, looksNumeric } from './layout';
import {
  type CaptureColumn,
  type CaptureLayout,
  type ColumnRole,
  type ColumnUnit,
  isSensor,
  type Mapping,
  TIME_UNITS,
  type TimeUnit,
} from './types';
import { roleByName, sensorUnitByName, unitByName } from './words';

/**
 * Values of one column of the sample that are numbers.
 *
 * @param layout layout of the file
 * @param column place of the column, from 0
 * @returns the numbers, as written, in the order of the rows
 */
export function figures(layout: CaptureLayout, column: number): number[] {
  const cells = layout.sample.map((r) => r[column] ?? '').filter(looksNumeric);
  return cells.map((c) => Number(layout.decimal === ',' ? c.replace(',', '.') : c));
}

/**
 * Middle value of a list.
 *
 * @param list numbers
 * @returns the upper of both in the middle; NaN of an empty list
 * @example middle([3, 1, 2]) // => 2
 */
export function middle(list: readonly number[]): number {
  return [...list].sort((a, b) => a - b)[list.length >> 1] ?? NaN;
}
const middleStep = (list: readonly number[]) =>
  middle(list.slice(1).map((v, i) => v - (list[i] as number)));

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
  if (role === 'rate' || !isSensor(role)) return 'own';
  if (
    role.endsWith('-load') &&
    figures(layout, column).length > 0 &&
    figures(layout, column).every((v) => v <= 1)
  )
    return 'share';
  return sensorUnitByName(name, role);
}

/** A time since the start never falls. */
function grows(list: readonly number[]): boolean {
  return (
    list.length > 2 &&
    list.every((v, i) => i === 0 || v >= (list[i - 1] as number)) &&
    list[0] !== list.at(-1)
  );
}

/** Values that tell how a column goes; of fewer, chance may be all. */
const ENOUGH = 6;
/** More falls than this share of the steps are no clock that was set back. */
const FALLING = 0.2;
const share = (list: readonly number[], is: (v: number, before: number) => boolean) =>
  list.length < ENOUGH
    ? 0
    : list.filter((v, i) => i > 0 && is(v, list[i - 1] as number)).length / (list.length - 1);
const fallsOften = (list: readonly number[]) => share(list, (v, before) => v < before) > FALLING;

/**
 * Does a column named as a frame time hold times since the start: does each value exceed the one before?
 *
 * @param list its values
 * @returns true for at least six that only grow
 * @example sinceStart([10, 20, 31, 40, 50, 61]) // => true
 */
export function sinceStart(list: readonly number[]): boolean {
  return share(list, (v, before) => v > before) === 1;
}

/** What the cells of a column are written like: a date, a time of day, or neither. */
function written(layout: CaptureLayout, column: number): 'date' | 'time' | null {
  const cells = layout.sample.map((r) => r[column] ?? '');
  if (cells.some(looksClock)) return 'time';
  return cells.some(looksDate) && cells.every((c) => c === '' || looksDate(c)) ? 'date' : null;
}

/** In a table without names: a column that only grows is a time, one of steady positive values the frames. */
function byValues(layout: CaptureLayout, column: number): ColumnRole {
  const list = figures(layout, column);
  const like = written(layout, column);
  if (like) return like;
  if (list.length < layout.sample.length * 0.8)
    return layout.width > 1 && list.length === 0 ? 'program' : 'ignore';
  if (grows(list)) return 'time';
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
  const named = columns.map((i) => proposedRole(layout, i));
  const asked = onlyOnce(named);
  // A rate without a clock is one of each frame, or of each second: somebody has to say.
  const clocked = asked.includes('frame') || asked.includes('time');
  let roles = asked.map((r): ColumnRole => (r === 'fps' && !clocked ? 'rate' : r));
  if (!clocked && !roles.includes('rate')) {
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

/** What one column seems to hold: its name says it, and its values where they say otherwise. */
function proposedRole(layout: CaptureLayout, i: number): ColumnRole {
  const name = layout.header?.[i] ?? '';
  const list = figures(layout, i);
  if (!layout.header) {
    const role = byValues(layout, i);
    // A running number is no time of a frame.
    return role === 'time' && isCounter(list) ? 'ignore' : role;
  }
  const role = roleByName(name);
  const like = written(layout, i);
  if (like) return like;
  // Times since the start under the name of a frame time.
  if (role === 'frame' && sinceStart(list)) return isCounter(list) ? 'ignore' : 'time';
  // Under the name of a time, what falls again and again is what each frame lasts.
  if (role === 'time' && fallsOften(list)) return 'frame';
  return role ?? 'ignore';
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
  if (mapping.columns.some((c) => c.role === 'frame' || c.role === 'rate')) return 'frames';
  // Rates without a clock that are none of frames are one a second.
  if (at < 0) return mapping.columns.some((c) => c.role === 'fps') ? 'log' : null;
  if (!mapping.columns.some((c) => isSensor(c.role))) return 'frames';
  const unit = mapping.columns[at]?.unit as TimeUnit;
  const clock = () =>
    layout.sample.map((r) => clockMs(r[at] ?? '')).filter((v) => !Number.isNaN(v));
  return middleStep(unit === 'clock' ? clock() : figures(layout, at)) * TIME_UNITS[unit] >=
    LOG_STEP_MS
    ? 'log'
    : 'frames';
}
