import { computed, inject, Injectable, signal } from '@angular/core';
import { catchError, EMPTY, firstValueFrom } from 'rxjs';
import { v7 } from 'uuid';
import {
  type Alignment,
  type CaptureDoubt,
  type CaptureLayout,
  type Mapping,
  readsWhat,
  remembered,
  type SensorSeries,
} from '@ruddy/core/runs';
import type { Encoding } from '@ruddy/core/base/contract';
import type { ChannelBody, RunBody } from '@ruddy/core/runs/contract';
import { captureProblemText } from '@ruddy/core/runs/text';
import type { ApiError } from '../platform/api/api-client';
import type { LinesIn } from '../platform/kit/encoding-choice';
import { RunsData } from './runs';
import type { Looked, ReadFile, ReadStream, Refusal } from './capture-calls';
import { CaptureWork, Stopped } from './capture-work';

export type FileState =
  'looking' | 'confirm' | 'reading' | 'read' | 'storing' | 'stored' | 'stopped' | 'refused';
type Good = Extract<ReadFile, { ok: true }>;

/** One file on its way to be a run. */
export interface FileRow {
  readonly id: string;
  readonly file: File;
  readonly state: FileState;
  /** How much of it was read, 0 to 1. */
  readonly share: number;
  readonly why: string;
  /** Its encoding, once somebody said it; and its text in the likely ones, where that is what is missing. */
  readonly encoding: Encoding | null;
  readonly encodings: readonly LinesIn[];
  readonly layout: CaptureLayout | null;
  readonly mapping: Mapping | null;
  readonly signature: string;
  /** The columns are those confirmed for such a file before. */
  readonly known: boolean;
  readonly read: Good | null;
  /** Some rows are bad, and the person said that the rest counts. */
  readonly rest: boolean;
  /** Something about it is doubtful, and the person said that it is right. */
  readonly accepted: boolean;
  /** A log of sensors: the file whose frames it lies beside, and where. */
  readonly beside: string | null;
  readonly alignment: Alignment | null;
  readonly offsetMs: number;
  /** The cell of a session its runs belong to, and how many runs it gave. */
  readonly cell: number | null;
  readonly runs: number;
}

/** What is said of the run of a file, and the setup it was made on. */
export type Common = Omit<RunBody, 'id' | 'kind' | 'channels' | 'source' | 'result' | 'reason'> & {
  readonly setupId: string;
};

/** Files of one layout with the same doubts: they are asked about once. */
export interface DoubtfulFiles {
  readonly key: string;
  readonly files: readonly FileRow[];
  readonly doubts: readonly CaptureDoubt[];
}

/** Values of a channel on their way; `lane` of a sensor says when they begin, `shiftMs` moves that. */
interface ToStore {
  readonly channel: ChannelBody['channel'];
  readonly values: Float32Array<ArrayBuffer>;
  readonly lane: SensorSeries | null;
  readonly shiftMs: number;
}

const FRESH = {
  share: 0,
  why: '',
  encoding: null,
  encodings: [],
  layout: null,
  mapping: null,
  signature: '',
  known: false,
  read: null,
  rest: false,
  accepted: false,
  beside: null,
  alignment: null,
  offsetMs: 0,
  cell: null,
  runs: 0,
} as const;

/** Frames of a file: streams with frames, one run each. */
export const framesOf = (f: FileRow): readonly ReadStream[] =>
  f.read?.streams.filter((s) => s.frames.length > 0) ?? [];
export const lanesOf = (f: FileRow): readonly SensorSeries[] =>
  f.read?.streams.flatMap((s) => (s.frames.length > 0 ? [] : s.lanes)) ?? [];
export const isLog = (f: FileRow) => framesOf(f).length === 0 && lanesOf(f).length > 0;
/** Streams that are a run of their own: frames, or frames a second that were logged beside no capture. */
export const runsOf = (f: FileRow): readonly ReadStream[] => {
  const frames = framesOf(f);
  if (frames.length > 0 || f.beside !== null) return frames;
  return f.read?.streams.filter((s) => s.lanes.some((l) => l.sensor === 'fps')) ?? [];
};

/** What a row says of a file that is not read, and its likely texts where its encoding is what is missing. */
const refusalOf = ({ problem, encodings = [] }: Refusal) => ({
  why: captureProblemText(problem),
  encodings,
});

/** Mean of a series over what was measured. */
function meanOf(values: Float32Array): number {
  const known = values.filter((v) => !Number.isNaN(v));
  return known.reduce((a, b) => a + b, 0) / known.length;
}

/** Kind and result of the run of a stream: its frames, or the mean of the rates that were logged. */
function resultOf(s: ReadStream): Pick<RunBody, 'kind' | 'result'> {
  const rates = s.lanes.find((l) => l.sensor === 'fps');
  if (s.frames.length > 0 || !rates) return { kind: 'frames' };
  return { kind: 'score', result: { value: meanOf(rates.values), unit: 'frames/s' } };
}

/** When a run was made, as its file has it, and never in the future. */
function writtenAt(r: FileRow, s: ReadStream, now: string): string {
  const ms = Math.min(s.startedMs ?? r.file.lastModified, Date.parse(now));
  return new Date(ms).toISOString();
}

/**
 * Files on their way to be runs. Each is looked at, its columns confirmed (or known), read in the worker, and stored; whatever happens to
 * one does not touch the others. Nothing is stored before `store`.
 */
@Injectable()
export class RunFiles {
  readonly #data = inject(RunsData);
  readonly #work = inject(CaptureWork);
  readonly rows = signal<readonly FileRow[]>([]);
  /** Columns that were confirmed before, by the layout they belong to. */
  #known: ReadonlyMap<string, Mapping> = new Map();
  readonly open = computed(() => this.rows().find((r) => r.state === 'confirm') ?? null);
  readonly busy = computed(() =>
    this.rows().some((r) => ['looking', 'reading', 'storing'].includes(r.state)),
  );
  /** Runs that would be stored now. */
  readonly ready = computed(() =>
    this.rows().reduce((n, r) => n + (this.storable(r) ? runsOf(r).length : 0), 0),
  );
  readonly logs = computed(() => this.rows().filter((r) => r.state === 'read' && isLog(r)));
  readonly captures = computed(() =>
    this.rows().filter((r) => r.state === 'read' && framesOf(r).length > 0),
  );

  /** Doubtful files that nobody has looked at, one question for those of a layout. */
  readonly doubtful = computed((): readonly DoubtfulFiles[] => {
    const groups = new Map<string, DoubtfulFiles>();
    for (const r of this.rows()) {
      const doubts = r.state === 'read' && !r.accepted ? (r.read?.doubts ?? []) : [];
      if (doubts.length === 0) continue;
      const key = [r.signature, ...new Set(doubts.map((d) => d.code))].join('\u0001');
      groups.set(key, { key, doubts, files: [...(groups.get(key)?.files ?? []), r] });
    }
    return [...groups.values()];
  });

  storable(r: FileRow): boolean {
    const good = r.read?.badCount === 0 || r.rest;
    const sure = r.read?.doubts.length === 0 || r.accepted;
    return r.state === 'read' && runsOf(r).length > 0 && good && sure;
  }

  /** The doubtful files are right as they were read. */
  accept(group: DoubtfulFiles): void {
    for (const f of group.files) this.patch(f.id, { accepted: true });
  }

  /** Take files in. Those of a known layout are read at once, the others wait for their columns to be confirmed. */
  async add(files: readonly File[]): Promise<void> {
    const rows = files.map((file): FileRow => ({ id: v7(), file, state: 'looking', ...FRESH }));
    this.rows.update((all) => [...all, ...rows]);
    const kept = await firstValueFrom(this.#data.mappings()).then(
      (list) => list.map((m) => [m.signature, m.mapping as unknown as Mapping] as const),
      // Without the list, every file is asked about.
      () => [],
    );
    // What was confirmed meanwhile is newer than the list.
    this.#known = new Map([...kept, ...this.#known]);
    for (const r of rows) await this.#look(r);
  }

  /** Looks at a file again, in the encoding somebody said. */
  async readAs(id: string, encoding: Encoding): Promise<void> {
    this.patch(id, { encoding, encodings: [], state: 'looking', why: '' });
    const r = this.#row(id);
    if (r) await this.#look(r);
  }

  async #look(r: FileRow): Promise<void> {
    const seen = await this.#guarded(r.id, () =>
      this.#work.run((w) => w.look(r.file, r.file.name, r.encoding) as Promise<Looked>),
    );
    if (!seen) return;
    if (seen.kind === 'problem') return this.patch(r.id, { state: 'refused', ...refusalOf(seen) });
    if (seen.kind === 'capture') return this.#read(r.id, null);
    const { layout, signature, proposed } = seen;
    const before = this.#known.get(signature);
    const mapping = before ? remembered(before, layout) : proposed;
    this.patch(r.id, { layout, signature, mapping, known: before !== undefined, state: 'confirm' });
    if (before && readsWhat(mapping, layout)) await this.#read(r.id, { mapping, layout });
  }

  /** The columns of a file are as said: read it, and remember them for the next of its kind. */
  async confirm(id: string, mapping: Mapping): Promise<void> {
    const r = this.#row(id);
    if (!r?.layout) return;
    this.patch(id, { mapping });
    await this.#read(id, { mapping, layout: r.layout });
    if (this.#row(id)?.state !== 'read') return;
    // Those that are still being looked at need not be asked about either.
    this.#known = new Map(this.#known).set(r.signature, mapping);
    const columns = mapping.columns.map(({ role, unit }) => ({ role, unit }));
    this.#data
      .keepMapping({ signature: r.signature, mapping: { ...mapping, columns } })
      // It is asked for again next time; nothing of this file is lost.
      .pipe(catchError(() => EMPTY))
      .subscribe();
    // Files of the same layout in this batch need not be asked about.
    for (const other of this.rows())
      if (other.state === 'confirm' && other.signature === r.signature && other.layout)
        await this.#read(other.id, {
          mapping: remembered(mapping, other.layout),
          layout: other.layout,
        });
  }

  /** Ask for the columns of a file once more. */
  again(id: string): void {
    const r = this.#row(id);
    if (r?.layout) this.patch(id, { state: 'confirm', read: null, why: '' });
  }

  async #read(id: string, how: { mapping: Mapping; layout: CaptureLayout } | null): Promise<void> {
    const r = this.#row(id);
    if (!r) return;
    this.patch(id, { state: 'reading', share: 0, read: null, accepted: false });
    const told = this.#work.told((share) => this.patch(id, { share }));
    const as = { how, encoding: r.encoding };
    const read = await this.#guarded(id, () =>
      this.#work.run((w) => w.read(r.file, r.file.name, as, told) as Promise<ReadFile>),
    );
    if (!read) return;
    if (!read.ok)
      return this.patch(id, {
        state: how && read.problem.code !== 'encoding' ? 'confirm' : 'refused',
        ...refusalOf(read),
      });
    this.patch(id, { state: 'read', share: 1, read, why: '' });
    await this.#settle();
  }

  /** A log lies beside the frames of its batch; where there are several, beside the first, until the person says otherwise. */
  async #settle(): Promise<void> {
    const first = this.captures()[0];
    for (const log of this.logs())
      if (first && log.beside === null) await this.lay(log.id, first.id);
  }

  /** Lay a log beside the frames of a file: where it fits best is found and can be moved. */
  async lay(id: string, beside: string | null): Promise<void> {
    this.patch(id, { beside, alignment: null, offsetMs: 0 });
    const log = this.#row(id);
    const frames = beside === null ? undefined : this.#row(beside);
    const stream = frames && framesOf(frames)[0];
    const lanes = log ? lanesOf(log) : [];
    const lane =
      lanes.find((l) => l.sensor === 'card-w') ??
      lanes.find((l) => l.sensor === 'card-load') ??
      lanes[0];
    if (!stream || !lane) return;
    const found = await this.#guarded(id, () =>
      this.#work.run((w) => w.align(stream.frames, lane)),
    );
    this.patch(id, { alignment: found, offsetMs: found?.clear ? found.offsetMs : 0 });
  }

  patch(id: string, change: Partial<FileRow>): void {
    this.rows.update((all) => all.map((r) => (r.id === id ? { ...r, ...change } : r)));
  }

  remove(id: string): void {
    this.rows.update((all) =>
      all.filter((r) => r.id !== id).map((r) => (r.beside === id ? { ...r, beside: null } : r)),
    );
  }

  /** Stop what is being looked at or read; what was read before stays. */
  stop(): void {
    this.#work.stop();
  }

  /**
   * Store every run that is ready; `common` for each file. Gives the ids of the runs. What is refused says why and stays in the table. A run is dated as somebody said,
   * else by the file's own clock, else by when the file was written, which is never after `now`.
   */
  async store(now: string, common: (f: FileRow) => Common): Promise<readonly string[]> {
    const stored: string[] = [];
    for (const r of this.rows().filter((x) => this.storable(x))) {
      this.patch(r.id, { state: 'storing', why: '' });
      try {
        for (const s of runsOf(r)) {
          const said = common(r);
          const at = said.happenedAt ?? writtenAt(r, s, now);
          stored.push(await this.#storeOne(r, s, { ...said, happenedAt: at }));
        }
        this.patch(r.id, { state: 'stored', runs: runsOf(r).length });
      } catch (e) {
        this.patch(r.id, { state: 'read', why: `Not stored: ${(e as ApiError).message}` });
      }
    }
    for (const l of this.logs())
      if (this.#row(l.beside ?? '')?.state === 'stored') this.patch(l.id, { state: 'stored' });
    return stored;
  }

  async #storeOne(r: FileRow, s: ReadStream, said: Common): Promise<string> {
    const { setupId, ...common } = said;
    const channels: ChannelBody[] = [];
    for (const c of this.#channelsOf(r, s)) {
      if (channels.some((x) => x.channel === c.channel)) continue;
      const packed = await this.#work.run((w) => w.pack(c.values));
      await firstValueFrom(this.#data.send(packed.sha256, packed.n, packed.bytes));
      channels.push({
        channel: c.channel,
        t0Ms: (c.lane?.t0Ms ?? 0) + c.shiftMs,
        dtMs: c.lane?.dtMs ?? null,
        n: packed.n,
        sha256: packed.sha256,
      });
    }
    const source = {
      name: r.file.name.slice(0, 200),
      bytes: r.file.size,
      sha256: r.read?.sha256 ?? '',
      program: s.program.slice(0, 120),
    };
    const id = v7();
    await firstValueFrom(
      this.#data.add(setupId, { ...common, ...resultOf(s), id, channels, source }),
    );
    return id;
  }

  /** What is stored of a stream: its frames, the pictures shown, its sensors, and those of logs that lie beside it. */
  #channelsOf(r: FileRow, s: ReadStream): readonly ToStore[] {
    const plain = (channel: 'frames' | 'shown', values: Float32Array | null): ToStore[] =>
      values && values.length > 0
        ? [{ channel, values: values as Float32Array<ArrayBuffer>, lane: null, shiftMs: 0 }]
        : [];
    const beside = this.logs().filter((l) => l.beside === r.id);
    const lanes = [
      ...s.lanes.map((lane) => ({ lane, shiftMs: 0 })),
      ...beside.flatMap((l) => lanesOf(l).map((lane) => ({ lane, shiftMs: l.offsetMs }))),
    ];
    return [
      ...plain('frames', s.frames),
      ...plain('shown', s.shown),
      ...lanes.map(({ lane, shiftMs }) => ({
        channel: lane.sensor,
        values: lane.values as Float32Array<ArrayBuffer>,
        lane,
        shiftMs,
      })),
    ];
  }

  #row(id: string): FileRow | undefined {
    return this.rows().find((r) => r.id === id);
  }

  async #guarded<T>(id: string, work: () => Promise<T>): Promise<T | null> {
    try {
      return await work();
    } catch (e) {
      if (e instanceof Stopped)
        this.patch(id, { state: 'stopped', why: 'Stopped; nothing of it is stored.' });
      else
        this.patch(id, {
          state: 'refused',
          why: `The file could not be read: ${(e as Error).message}`,
        });
      return null;
    }
  }
}
