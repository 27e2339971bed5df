import { gunzipSync, gzipSync } from 'node:zlib';
import { checked, parseJson } from '@ruddy/core/base';
import { readPositions } from '@ruddy/core/bench/contract';
import { deviceTree, hostDraft, measure, readReport } from '@ruddy/core/bring-up';
import { chainSchema } from '@ruddy/core/chain';
import { guardCell, PART_SCHEMAS, unguardCell } from '@ruddy/core/parts';
import { evaluate } from '@ruddy/core/plan';
import { verdictSentence } from '@ruddy/core/plan/text';
import { findLayout, proposeMapping, readCaptureJson, readCaptureText } from '@ruddy/core/runs';
import { captureSchema } from '@ruddy/core/runs/contract';
import { ROUTES } from '../../src/app';
import { FeedProblem } from '../../src/workshop/feeds/address';
import { capturesOf, readBundle } from '../../src/workshop/bundle-file';
import { readFeed } from '../../src/workshop/feeds/read';
import { HttpProblem } from '../../src/platform/http/problem';
import { unstorable } from '../../src/platform/http/storable';
import { valuesOf } from '../../src/runs/captures';
import { judge } from '../../src/parts/import-judge';
import { readCsv, readJson } from '../../src/parts/import-read';
import { readLogHead, readLogJson } from '../../src/compatibility/log-read';
import { decodeCursor } from '../../src/platform/db/paging';
import * as samples from './samples';

/** What is read from outside: where it starts from, how it is broken, and what reads it. Anything but an answer or a refusal is a crash. */
export interface Target {
  name: string;
  /** How samples are broken: as text, as JSON by its places, or as bytes. */
  how: 'text' | 'json' | 'bytes';
  samples: readonly string[];
  read(input: string): unknown;
}

const step = () => Promise.resolve();
const json = parseJson;

/** A refusal of ours, with words; everything else that is thrown is a crash. */
export function isRefusal(error: unknown): boolean {
  return (
    error instanceof HttpProblem ||
    error instanceof FeedProblem ||
    (error instanceof SyntaxError && /JSON/.test(error.message))
  );
}

async function capture(text: string): Promise<void> {
  const found = findLayout(text.slice(0, 100_000));
  if (!found.ok) return;
  const mapping = proposeMapping(found.value);
  await readCaptureText(
    [text.slice(0, text.length >> 1), text.slice(text.length >> 1)],
    mapping,
    found.value,
  );
}

function report(text: string): void {
  const r = readReport(text);
  if (!r.ok) return;
  deviceTree(r.report.devices);
  hostDraft(r.report);
  for (const kind of ['tunnel', 'direct'] as const) measure(r.report, { kind });
}

/** A chain that passes the border is judged: whatever it holds, there is a verdict and a sentence. */
function chain(text: string): void {
  const parsed = checked(chainSchema, json(text));
  if (parsed.success) verdictSentence(evaluate({ chain: parsed.data, context: samples.context }));
}

const bodies = ROUTES.flatMap(({ contract: { body, bytes, text } }) =>
  body && !bytes && !text ? [body] : [],
);

/** Every body of every route, whatever it is sent: an answer of the schema, never an error of its own. */
function body(text: string): void {
  const value = json(text);
  if (unstorable(value) !== null) return;
  // The same beginning is of the same body, however long it is.
  const sum = [...text.slice(0, 64)].reduce((a, c) => a + c.charCodeAt(0), 0);
  const b = bodies[sum % bodies.length];
  if (b) checked(b, value);
}

function cell(text: string): void {
  const guarded = guardCell(text);
  if (/^[=+\-@\t\r]/.test(guarded)) throw new Error('a cell that begins a formula');
  if (unguardCell(guarded) !== text) throw new Error('a cell that does not come back');
}

export const TARGETS: readonly Target[] = [
  { name: 'capture, CSV', how: 'text', samples: samples.captures, read: capture },
  {
    name: 'capture, JSON',
    how: 'json',
    samples: samples.captureJson,
    read: (t) => [readCaptureJson(t), checked(captureSchema, json(t))],
  },
  {
    name: 'capture, packed',
    how: 'bytes',
    samples: [pack([16.7, 16.6, 33.4])],
    read: (t) => valuesOf(Buffer.from(t, 'latin1'), 3),
  },
  { name: 'system listing', how: 'text', samples: samples.listings, read: report },
  { name: 'system report', how: 'json', samples: samples.reports, read: report },
  { name: 'parts, CSV', how: 'text', samples: samples.partCsv, read: (t) => parts(t, true) },
  { name: 'parts, JSON', how: 'json', samples: samples.partBundles, read: (t) => parts(t, false) },
  {
    name: 'bundle',
    how: 'json',
    samples: samples.bundles,
    read: bundle,
  },
  { name: 'log, JSON', how: 'json', samples: samples.logs, read: log },
  { name: 'feed, JSON', how: 'json', samples: samples.feedJson, read: readFeed },
  { name: 'feed, Atom', how: 'text', samples: samples.feedAtom, read: readFeed },
  {
    name: 'part',
    how: 'json',
    samples: samples.specs,
    read: (t) => Object.values(PART_SCHEMAS).map((s) => checked(s, json(t))),
  },
  { name: 'chain', how: 'json', samples: samples.chains, read: chain },
  {
    name: 'body of a route',
    how: 'json',
    samples: [...samples.bodies, ...samples.bundles],
    read: body,
  },
  {
    name: 'cursor',
    how: 'text',
    samples: ['WyJhIiwiYiJd', 'WzEsMl0'],
    read: (t) => decodeCursor(t, 2),
  },
  {
    name: 'stream position',
    how: 'text',
    samples: ['bench/0190f7a0-0000-7000-8000-000000000001:12'],
    read: readPositions,
  },
  { name: 'cell', how: 'text', samples: ['=1+1', "'=a", '-2', 'K-02 a', '\tx'], read: cell },
];

async function parts(text: string, csv: boolean): Promise<void> {
  const file = () => [text];
  const { entries } = csv ? await readCsv(file, 'cable', step) : await readJson(file, step);
  for (const e of entries.slice(0, 50)) judge(e, null);
}

/** A file of everything: its lists whole, values of runs one after another. */
async function bundle(text: string): Promise<void> {
  const file = () => [text];
  await readBundle(file);
  for await (const c of capturesOf(file)) void c;
}

async function log(text: string): Promise<void> {
  const file = () => [text];
  for await (const entry of readLogJson(file, await readLogHead(file))) void entry;
}

function pack(values: readonly number[]): string {
  const packed = gzipSync(Buffer.from(Float32Array.from(values).buffer));
  if (gunzipSync(packed).length !== values.length * 4)
    throw new Error('the sample itself is wrong');
  return packed.toString('latin1');
}
