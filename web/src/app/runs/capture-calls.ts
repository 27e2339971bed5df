import type { Encoding } from '@ruddy/core/base/contract';
import type { LinesIn } from '../platform/kit/encoding-choice';
import { oddBytes, textOf, wholeText } from './file-text';
import { sha256 } from '@noble/hashes/sha2.js';
import { bytesToHex } from '@noble/hashes/utils.js';
import {
  align,
  alignRuns,
  answerModel,
  type Alignment,
  type BadRow,
  type CaptureDoubt,
  decimateMinMax,
  type CaptureLayout,
  type CaptureProblem,
  findLayout,
  frameStats,
  type FrameStats,
  hitches,
  hundredDots,
  type MedianFrame,
  type Mapping,
  type ModelAnswer,
  type ModelQuestion,
  percentileCurve,
  proposeMapping,
  type MinMaxDecimation,
  readCaptureJson,
  type ReadCapture,
  readCaptureText,
  readDoubts,
  readsWhat,
  type Roughness,
  type SensorSeries,
  signatureOf,
  simulateFrames,
  sortedTimes,
  type Stream,
  stutters,
} from '@ruddy/core/runs';

/** Why a file is not read; of one in another encoding, how its text would be in those that are likely. */
export interface Refusal {
  readonly problem: CaptureProblem;
  readonly encodings?: readonly LinesIn[];
}

/** What the first lines of a file tell. */
export type Looked =
  | {
      readonly kind: 'table';
      readonly layout: CaptureLayout;
      readonly proposed: Mapping;
      readonly signature: string;
      readonly reads: 'frames' | 'log' | null;
    }
  | { readonly kind: 'capture' }
  | ({ readonly kind: 'problem' } & Refusal);

export interface ReadStream extends Stream {
  /** What its frames show; null for a log of sensors. */
  readonly stats: FrameStats | null;
}
export type ReadFile =
  | {
      readonly ok: true;
      readonly streams: readonly ReadStream[];
      readonly rows: number;
      readonly bad: readonly BadRow[];
      readonly badCount: number;
      /** What somebody should look at before it is stored. */
      readonly doubts: readonly CaptureDoubt[];
      /** Of the file as it lies there. */
      readonly sha256: string;
    }
  | ({ readonly ok: false } & Refusal);

/** A run ready to be drawn. */
export interface Opened {
  readonly pyramid: MinMaxDecimation;
  readonly dots: readonly number[];
  readonly curve: readonly number[];
  /** Where hitches begin, ms from the start. */
  readonly hitchesMs: readonly number[];
}
export interface Packed {
  readonly bytes: Uint8Array<ArrayBuffer>;
  readonly sha256: string;
  readonly n: number;
}

export interface SimulateAsk {
  readonly model: MedianFrame;
  readonly rough: Roughness;
  readonly n: number;
  readonly seed: number;
}
export interface Simulated {
  readonly stats: FrameStats;
  readonly pyramid: MinMaxDecimation;
}

const HEAD_BYTES = 128 * 1024;
const isJson = (name: string, head: string) =>
  /\.json$/i.test(name) || /^\s*[[{]/.test(head.replace('\uFEFF', ''));

async function throughGzip(bytes: BufferSource, way: 'pack' | 'unpack'): Promise<ArrayBuffer> {
  const stream = new Blob([bytes])
    .stream()
    .pipeThrough<Uint8Array>(
      way === 'pack' ? new CompressionStream('gzip') : new DecompressionStream('gzip'),
    );
  return new Response(stream).arrayBuffer();
}

async function hashOf(file: Blob): Promise<string> {
  const hash = sha256.create();
  const reader = file.stream().getReader();
  for (;;) {
    const { done, value } = await reader.read();
    if (done) return bytesToHex(hash.digest());
    hash.update(value);
  }
}

/** What was read of a file, with the figures of its frames and what is doubtful about them. */
async function finished(file: Blob, read: ReadCapture): Promise<ReadFile> {
  const { streams, rows, bad, badCount } = read;
  return {
    ok: true,
    streams: streams.map((s: Stream) => ({
      ...s,
      stats: s.frames.length > 0 ? frameStats(s.frames) : null,
    })),
    rows,
    bad,
    badCount,
    doubts: readDoubts(read),
    sha256: await hashOf(file),
  };
}

/** What the columns of a table hold, and where they stand. */
interface HowToRead {
  readonly mapping: Mapping;
  readonly layout: CaptureLayout;
}

async function readTable(
  file: Blob,
  text: AsyncIterable<string> | Iterable<string>,
  how: HowToRead,
  progress?: (characters: number) => void,
): Promise<ReadFile> {
  const r = await readCaptureText(text, how.mapping, how.layout, progress);
  if (!r.ok) return { ok: false, problem: r.problem };
  return finished(file, r.value);
}

async function readJson(
  file: Blob,
  how: HowToRead | null,
  encoding: Encoding | null,
): Promise<ReadFile> {
  const json = readCaptureJson(await wholeText(file, encoding));
  if (!json.ok) return { ok: false, problem: json.problem };
  if (json.value.kind === 'capture') return finished(file, json.value.read);
  return how
    ? readTable(file, [json.value.text], how)
    : { ok: false, problem: { code: 'no-times' } };
}

/** Looks at the first lines of a file. */
async function lookAt(file: Blob, name: string, encoding: Encoding | null): Promise<Looked> {
  let head = '';
  const cut = file.size > HEAD_BYTES;
  for await (const part of textOf(file.slice(0, HEAD_BYTES), { encoding, cut })) head += part;
  if (isJson(name, head)) {
    const json = readCaptureJson(await wholeText(file, encoding));
    if (!json.ok) return { kind: 'problem', problem: json.problem };
    if (json.value.kind === 'capture') return { kind: 'capture' };
    head = json.value.text.slice(0, HEAD_BYTES);
  }
  const found = findLayout(head);
  if (!found.ok) return { kind: 'problem', problem: found.problem };
  const proposed = proposeMapping(found.value);
  return {
    kind: 'table',
    layout: found.value,
    proposed,
    signature: signatureOf(found.value),
    reads: readsWhat(proposed, found.value),
  };
}

const look = (file: Blob, name: string, encoding: Encoding | null): Promise<Looked> =>
  lookAt(file, name, encoding).catch(async (e: unknown) => ({
    kind: 'problem',
    ...(await oddBytes(file, e)),
  }));

/** How a file is read: the columns of a table, null for a capture in JSON; its encoding, null where its bytes say it. */
interface ReadAs {
  readonly how: HowToRead | null;
  readonly encoding: Encoding | null;
}

async function readWhole(
  file: Blob,
  name: string,
  { how, encoding }: ReadAs,
  progress: (share: number) => void,
): Promise<ReadFile> {
  if (how === null || isJson(name, await file.slice(0, 64).text()))
    return readJson(file, how, encoding);
  let last = 0;
  return readTable(file, textOf(file, { encoding }), how, (n) => {
    const share = Math.min(1, n / Math.max(1, file.size));
    if (share - last < 0.02) return;
    last = share;
    progress(share);
  });
}

/** Reads a whole file. `progress` hears the share that was read, 0 to 1. */
const read = (
  file: Blob,
  name: string,
  as: ReadAs,
  progress: (share: number) => void,
): Promise<ReadFile> =>
  readWhole(file, name, as, progress).catch(async (e: unknown) => ({
    ok: false,
    ...(await oddBytes(file, e)),
  }));

/** What is done in the worker. `hand`: gives buffers away instead of copying them. */
export function captureCalls(hand: <T extends object>(value: T, buffers: ArrayBuffer[]) => T) {
  return {
    look,
    read,

    /** Pack values for sending: float32, little-endian, gzip, with the SHA-256 of what is inside. */
    async pack(values: Float32Array<ArrayBuffer>): Promise<Packed> {
      const inside = new Uint8Array(values.buffer, values.byteOffset, values.byteLength);
      const bytes = new Uint8Array(await throughGzip(inside, 'pack'));
      return hand({ bytes, sha256: bytesToHex(sha256(inside)), n: values.length }, [bytes.buffer]);
    },

    /** Values as they were packed. */
    async unpack(packed: ArrayBuffer): Promise<Float32Array<ArrayBuffer>> {
      const buffer = await throughGzip(packed, 'unpack');
      return hand(new Float32Array(buffer), [buffer]);
    },

    /** Ready a run for drawing. */
    open(frames: Float32Array<ArrayBuffer>): Opened {
      const sorted = sortedTimes(frames);
      return {
        pyramid: decimateMinMax(frames),
        dots: hundredDots(sorted),
        curve: percentileCurve(sorted),
        hitchesMs: hitches(frames, stutters(frames)),
      };
    },

    /** Forecasts, limiter and advice of a title from one posterior. */
    answer(question: ModelQuestion): ModelAnswer {
      return answerModel(question);
    },

    /** Frames drawn by chance from a forecast, counted and readied for drawing. */
    simulate(ask: SimulateAsk): Simulated {
      const frames = simulateFrames(
        ask.model,
        ask.rough,
        ask.n,
        ask.seed,
      ) as Float32Array<ArrayBuffer>;
      return { stats: frameStats(frames), pyramid: decimateMinMax(frames) };
    },

    /** Where a log of sensors lies against frames. */
    align(frames: Float32Array, lane: SensorSeries): Alignment | null {
      return align(frames, lane);
    },

    /** Where a run of the same scene lies against another. */
    alignRuns(frames: Float32Array, other: Float32Array): Alignment | null {
      return alignRuns(frames, other);
    },
  };
}
export type CaptureCalls = ReturnType<typeof captureCalls>;
