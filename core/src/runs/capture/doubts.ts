import { figures, middle, sinceStart } from './propose';
import type { CaptureLayout, Mapping, ReadCapture, TimeUnit } from './types';
import { TIME_UNITS } from './types';
import { roleByName, unitByName } from './words';

/**
 * What makes a reading doubtful. Of the columns: nothing is called a frame time and one was taken by its values; the unit in a name does
 * not go with the values; several columns could be the frame time; a row may be a frame or a second; times since the start stand under the
 * name of a frame time. Of the frames: whole milliseconds only; the clock of the file tells another time than the frames; rows are missing;
 * the second half repeats the first; every frame is alike; a usual frame is longer or shorter than any title draws.
 */
export type CaptureDoubt =
  | { readonly code: 'guessed'; readonly column: string }
  | {
      readonly code: 'unit';
      readonly column: string;
      readonly unit: string;
      readonly value: number;
    }
  | { readonly code: 'several'; readonly columns: readonly string[] }
  | { readonly code: 'frame-or-second'; readonly column: string }
  | { readonly code: 'since-start'; readonly column: string }
  | { readonly code: 'whole-ms'; readonly frames: number }
  | { readonly code: 'clock'; readonly clockS: number; readonly framesS: number }
  | { readonly code: 'gaps'; readonly gaps: number; readonly line: number }
  | { readonly code: 'twice'; readonly frames: number }
  | { readonly code: 'alike'; readonly ms: number }
  | { readonly code: 'usual'; readonly ms: number };
export type DoubtCode = CaptureDoubt['code'];

/** A usual frame of anything that is played, ms. */
const USUAL_MS = { least: 0.8, most: 400 };

/** A column of a table with its name. */
interface Named {
  readonly name: string;
  readonly index: number;
}

function unitDoubt(layout: CaptureLayout, mapping: Mapping, at: Named): CaptureDoubt[] {
  const unit = mapping.columns[at.index]?.unit as TimeUnit;
  const value = middle(figures(layout, at.index));
  const ms = value * TIME_UNITS[unit];
  const fits = !(ms < USUAL_MS.least || ms > USUAL_MS.most);
  return fits || unitByName(at.name) !== unit
    ? []
    : [{ code: 'unit', column: at.name, unit, value }];
}

/**
 * What is doubtful about how the columns of a file are read.
 *
 * @param layout layout of the file
 * @param mapping what its columns are taken to hold
 * @returns the doubts; empty where names and values say the same
 */
export function layoutDoubts(layout: CaptureLayout, mapping: Mapping): CaptureDoubt[] {
  const named = mapping.columns.map((c, index) => ({
    ...c,
    index,
    name: layout.header?.[index] || `column ${index + 1}`,
  }));
  const frame = named.find((c) => c.role === 'frame');
  const rate = named.find((c) => c.role === 'rate');
  const time = named.find((c) => c.role === 'time');
  const byName = (c: Named) => (layout.header ? roleByName(layout.header[c.index] ?? '') : null);
  const could = named.filter((c) => byName(c) === 'frame' && !sinceStart(figures(layout, c.index)));
  return [
    ...(frame && byName(frame) === null && (layout.width > 1 || layout.header)
      ? [{ code: 'guessed' as const, column: frame.name }]
      : []),
    ...(frame ? unitDoubt(layout, mapping, frame) : []),
    ...(frame && could.length > 1
      ? [{ code: 'several' as const, columns: could.map((c) => c.name) }]
      : []),
    ...(rate && !time ? [{ code: 'frame-or-second' as const, column: rate.name }] : []),
    ...(time && !frame && byName(time) === 'frame'
      ? [{ code: 'since-start' as const, column: time.name }]
      : []),
  ];
}

/** Frames that are looked at for their resolution need at least this many. */
const ENOUGH = 30;
/** The clock of a file and its frames may differ by this share, and by what a clock in whole seconds cannot tell. */
const CLOCK = { share: 0.02, ms: 1000 };

function ofFrames(frames: Float32Array): CaptureDoubt[] {
  const n = frames.length;
  if (n < ENOUGH) return [];
  const usual = Float32Array.from(frames).sort()[n >> 1] as number;
  const first = frames[0] as number;
  const half = n / 2;
  const twice =
    Number.isInteger(half) && frames.subarray(0, half).every((v, i) => v === frames[half + i]);
  if (frames.every((v) => v === first)) return [{ code: 'alike', ms: first }];
  // Of another unit, nothing else can be told.
  if (usual < USUAL_MS.least || usual > USUAL_MS.most) return [{ code: 'usual', ms: usual }];
  return [
    ...(frames.every((v) => Number.isInteger(v)) ? [{ code: 'whole-ms' as const, frames: n }] : []),
    ...(twice ? [{ code: 'twice' as const, frames: half }] : []),
  ];
}

/**
 * What is doubtful about the frames of a file once it is read. Common practice, no published source.
 *
 * @param read what was read
 * @returns the doubts, those of the whole file once
 */
export function readDoubts(read: Pick<ReadCapture, 'streams' | 'clock'>): CaptureDoubt[] {
  const { clock } = read;
  const found = read.streams.flatMap((s) => ofFrames(s.frames));
  if (!clock) return found;
  const apart = Math.abs(clock.clockMs - clock.framesMs);
  const gaps =
    clock.gapLine === null
      ? []
      : [{ code: 'gaps' as const, gaps: clock.gaps, line: clock.gapLine }];
  const off = apart > CLOCK.ms + CLOCK.share * clock.clockMs;
  return [
    ...found,
    ...gaps,
    ...(off && gaps.length === 0
      ? [{ code: 'clock' as const, clockS: clock.clockMs / 1000, framesS: clock.framesMs / 1000 }]
      : []),
  ];
}
