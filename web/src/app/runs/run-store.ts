import { computed, inject, Injectable, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import type { Sensor, SensorSeries } from '@ruddy/core/runs';
import type { Channel, RunEntry } from '@ruddy/core/runs/contract';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import type { Opened } from './capture-calls';
import { CaptureWork, Stopped } from './capture-work';
import { countedRuns, groupRuns, LETTERS, LOOKS, valuesOf, type RunGroup } from './run-groups';

/** A group that is looked at, under its letter. */
export interface Shown {
  readonly letter: string;
  readonly look: (typeof LOOKS)[number];
  readonly group: RunGroup;
  /** The repeat that is drawn. */
  readonly run: RunEntry;
  readonly averages: readonly number[];
}

/** The runs of a setup, those that are looked at, and their values as they arrive. */
@Injectable()
export class RunStore {
  readonly #data = inject(RunsData);
  readonly #work = inject(CaptureWork);
  readonly runs = signal<readonly RunEntry[] | null>(null);
  readonly problem = signal<string | null>(null);
  /** Ids of the runs that are drawn, in the order of their letters. */
  readonly chosen = signal<readonly string[]>([]);
  readonly opened = signal<ReadonlyMap<string, Opened>>(new Map());
  readonly lanes = signal<ReadonlyMap<string, readonly SensorSeries[]>>(new Map());
  readonly groups = computed(() => groupRuns(this.runs() ?? []));
  readonly shown = computed(() =>
    this.chosen().flatMap((id, i): Shown[] => {
      const group = this.groups().find((g) => g.runs.some((r) => r.id === id));
      const run = group?.runs.find((r) => r.id === id);
      if (!group || !run || i >= LETTERS.length) return [];
      const averages = countedRuns(group).flatMap((r) => valuesOf(r).average ?? []);
      return [
        { letter: LETTERS[i] as string, look: LOOKS[i] as Shown['look'], group, run, averages },
      ];
    }),
  );
  #setupId = '';

  async load(setupId: string): Promise<void> {
    this.#setupId = setupId;
    this.problem.set(null);
    try {
      const runs = await firstValueFrom(this.#data.all({ setupId }));
      if (setupId === this.#setupId) this.runs.set(runs);
    } catch (e) {
      this.problem.set((e as ApiError).message);
    }
  }

  reload(): Promise<void> {
    return this.load(this.#setupId);
  }

  /** A run came back with something new said of it. */
  replace(run: RunEntry): void {
    this.runs.update((all) => all?.map((r) => (r.id === run.id ? run : r)) ?? null);
  }

  /** Fetch and ready what is looked at and not here yet. */
  async open(run: RunEntry): Promise<void> {
    if (run.kind !== 'frames' || this.opened().has(run.id)) return;
    try {
      const packed = await firstValueFrom(this.#data.channel(run.id, 'frames'));
      const opened = await this.#work.run(async (w) => w.open(await w.unpack(packed)));
      this.opened.update((m) => new Map(m).set(run.id, opened));
    } catch (e) {
      if (!(e instanceof Stopped))
        this.problem.set(`The frames of a run could not be read: ${(e as Error).message}`);
    }
  }

  /** Fetch the sensors of a run. */
  async openLanes(run: RunEntry): Promise<void> {
    if (this.lanes().has(run.id)) return;
    const list: SensorSeries[] = [];
    this.lanes.update((m) => new Map(m).set(run.id, list));
    try {
      for (const c of run.channels) {
        if (c.channel === 'frames' || c.channel === 'shown' || c.dtMs === null) continue;
        const packed = await firstValueFrom(this.#data.channel(run.id, c.channel as Channel));
        const values = await this.#work.run((w) => w.unpack(packed));
        list.push({ sensor: c.channel as Sensor, t0Ms: c.t0Ms, dtMs: c.dtMs, values });
      }
      this.lanes.update((m) => new Map(m).set(run.id, [...list]));
    } catch (e) {
      this.lanes.update((m) => {
        const next = new Map(m);
        next.delete(run.id);
        return next;
      });
      if (!(e instanceof Stopped))
        this.problem.set(`The sensors of a run could not be read: ${(e as Error).message}`);
    }
  }

  /** Unpacked values of a channel, for a file. */
  async values(run: RunEntry, channel: Channel): Promise<Float32Array> {
    const packed = await firstValueFrom(this.#data.channel(run.id, channel));
    return this.#work.run((w) => w.unpack(packed));
  }
}
