import { parseJson } from '../../base';
import {
  type BadRow,
  type CaptureResult,
  LONGEST_FRAME_MS,
  MAX_FRAMES,
  type ReadCapture,
  type Sensor,
  SENSOR_IDS,
  type SensorSeries,
} from './types';

/** What JSON held: a capture in the open format, or a table whose columns are to be named like those of any other. */
export type JsonCapture =
  | { readonly kind: 'capture'; readonly read: ReadCapture }
  | { readonly kind: 'table'; readonly text: string };

const refuse = (where: string, why: string): CaptureResult<never> => ({
  ok: false,
  problem: { code: 'json', where, why },
});
type Json = Record<string, unknown>;
/** A bad value as it is shown: cut, and nothing for what cannot be told in a line. */
const cellText = (v: unknown) => (JSON.stringify(v) ?? '').slice(0, 60);
const isObject = (x: unknown): x is Json =>
  typeof x === 'object' && x !== null && !Array.isArray(x);

/**
 * Reads JSON: the open format `ruddy-bridge/capture` (schema at `/api/schemas/capture`), a bare list of frame times in ms,
 * or a list of rows with named fields, which becomes a table.
 *
 * @param text the whole file
 * @returns the capture or the table as text, or the problem with its place
 */
export function readCaptureJson(text: string): CaptureResult<JsonCapture> {
  let json: unknown;
  try {
    json = parseJson(text);
  } catch (e) {
    return refuse('the file', `is not JSON: ${(e as Error).message}`);
  }
  if (Array.isArray(json)) {
    if (json.length === 0) return { ok: false, problem: { code: 'empty' } };
    return isObject(json[0]) ? table(json) : capture({ frameMs: json });
  }
  if (!isObject(json)) return refuse('the file', 'holds neither a list nor an object');
  if (json['format'] === 'ruddy-bridge/capture') {
    if (json['version'] !== 1) return refuse('version', 'this program reads version 1');
    return capture(json);
  }
  const rows = Object.values(json).find((v) => Array.isArray(v) && v.length > 0 && isObject(v[0]));
  return rows
    ? table(rows as unknown[])
    : refuse('format', 'is not "ruddy-bridge/capture", and no list of rows was found');
}

/** Rows with named fields, written as a table with tabs. */
function table(rows: readonly unknown[]): CaptureResult<JsonCapture> {
  const names = Object.keys(rows[0] as Json);
  const cell = (v: unknown) =>
    typeof v === 'string' || typeof v === 'number' || typeof v === 'boolean'
      ? String(v).replace(/[\t\r\n"]/g, ' ')
      : '';
  const lines = rows.map((r) => names.map((n) => cell(isObject(r) ? r[n] : '')).join('\t'));
  return {
    ok: true,
    value: { kind: 'table', text: `${names.map(cell).join('\t')}\n${lines.join('\n')}\n` },
  };
}

function times(list: unknown, where: string, bad: BadRow[]): CaptureResult<Float32Array> {
  if (!Array.isArray(list)) return refuse(where, 'is not a list of times in ms');
  if (list.length > MAX_FRAMES)
    return { ok: false, problem: { code: 'too-many', most: MAX_FRAMES } };
  const good = new Float32Array(list.length);
  let n = 0;
  for (const [i, v] of list.entries()) {
    const why =
      typeof v !== 'number'
        ? 'not-a-number'
        : v <= 0
          ? 'not-above-0'
          : v > LONGEST_FRAME_MS
            ? 'too-long'
            : null;
    if (why === null) good[n++] = v as number;
    else bad.push({ line: i + 1, column: null, value: cellText(v), why });
  }
  return { ok: true, value: good.slice(0, n) };
}

function lane(x: unknown, where: string): CaptureResult<SensorSeries> {
  if (!isObject(x)) return refuse(where, 'is not an object');
  const { sensor, t0Ms, dtMs, values } = x;
  if (!SENSOR_IDS.includes(sensor as Sensor))
    return refuse(`${where}/sensor`, `is none of ${SENSOR_IDS.join(', ')}`);
  if (typeof dtMs !== 'number' || !(dtMs > 0))
    return refuse(`${where}/dtMs`, 'is not a number above 0');
  if (!Array.isArray(values)) return refuse(`${where}/values`, 'is not a list');
  const numbers = Float32Array.from(values, (v) => (typeof v === 'number' ? v : NaN));
  return {
    ok: true,
    value: {
      sensor: sensor as Sensor,
      t0Ms: typeof t0Ms === 'number' ? t0Ms : 0,
      dtMs,
      values: numbers,
    },
  };
}

function capture(json: Json): CaptureResult<JsonCapture> {
  const bad: BadRow[] = [];
  const frames = times(json['frameMs'] ?? [], 'frameMs', bad);
  if (!frames.ok) return frames;
  const shown =
    json['shownMs'] === undefined || json['shownMs'] === null
      ? null
      : times(json['shownMs'], 'shownMs', bad);
  if (shown && !shown.ok) return shown;
  const list = json['sensors'] ?? [];
  if (!Array.isArray(list)) return refuse('sensors', 'is not a list');
  const lanes: SensorSeries[] = [];
  for (const [i, s] of list.entries()) {
    const read = lane(s, `sensors/${i}`);
    if (!read.ok) return read;
    lanes.push(read.value);
  }
  if (frames.value.length === 0 && lanes.length === 0 && bad.length === 0)
    return { ok: false, problem: { code: 'no-rows' } };
  const started = typeof json['startedAt'] === 'string' ? Date.parse(json['startedAt']) : NaN;
  const stream = {
    program: typeof json['program'] === 'string' ? json['program'] : '',
    frames: frames.value,
    shown: shown?.value ?? null,
    lanes,
    startedMs: Number.isNaN(started) ? null : started,
  };
  const rows = frames.value.length + bad.length;
  return {
    ok: true,
    value: {
      kind: 'capture',
      read: {
        streams: [stream],
        rows,
        bad: bad.slice(0, 200),
        badCount: bad.length,
        clock: null,
      },
    },
  };
}
