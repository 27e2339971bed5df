import { DestroyRef, inject, Injectable, signal } from '@angular/core';
import { type Observable, type Subscription, tap } from 'rxjs';
import type { Encoding } from '@ruddy/core/base/contract';
import type { PartKind } from '@ruddy/core/parts';
import type { RowOutcome, ImportRow, Job } from '@ruddy/core/parts/contract';
import { CatalogueData } from './catalogue';
import { followJob } from '../platform/api/follow-job';
import { Live } from '../platform/api/live';
import { Acts } from '../platform/kit/ask';
import { asksEncoding } from '../platform/kit/encoding-choice';

const PAGE = 200;

/**
 * One file on its way in. In: a file, its kind, tried or stored. Out: the job as it goes, the fates of rows a page at a time, and what
 * went wrong. Another start forgets the one before; leaving the page stops watching, not the work.
 */
@Injectable()
export class ImportRun {
  readonly #acts = inject(Acts);
  readonly #data = inject(CatalogueData);
  readonly #live = inject(Live);
  readonly job = signal<Job | null>(null);
  readonly problem = signal<string | null>(null);
  readonly rows = signal<ImportRow[]>([]);
  readonly next = signal<number | null>(null);
  readonly fate = signal<RowOutcome | null>(null);
  /** The server could not tell the encoding of the file. */
  readonly asksEncoding = signal(false);
  #asking: Subscription | null = null;
  #reading = false;

  constructor() {
    inject(DestroyRef).onDestroy(() => this.#asking?.unsubscribe());
  }

  start(file: File, kind: PartKind, mode: 'try' | 'store', encoding: Encoding | null): void {
    this.begin(this.#data.import(file, { kind, mode, name: file.name, encoding }));
  }

  /** Follow a job that has just been asked for. */
  begin(asked: Observable<Job>): void {
    this.#asking?.unsubscribe();
    this.job.set(null);
    this.problem.set(null);
    this.rows.set([]);
    this.next.set(null);
    this.asksEncoding.set(false);
    const followed = followJob(this.#live, asked).pipe(
      tap({ error: (e: unknown) => this.asksEncoding.set(asksEncoding(e)) }),
    );
    this.#asking = this.#acts.read(followed, {
      line: this.problem,
      then: (job) => {
        this.job.set(job);
        if (job.state !== 'running') this.#finished(job);
      },
    });
  }

  cancel(): void {
    const job = this.job();
    if (job)
      this.#acts.run(this.#data.cancel(job.id), {
        line: this.problem,
        failed: 'Not cancelled.',
        then: (now) => this.job.set(now),
      });
  }

  /** Show the rows of one fate, or of all. */
  show(fate: RowOutcome | null): void {
    this.fate.set(fate);
    this.rows.set([]);
    this.next.set(null);
    this.#read(0);
  }

  /** The last rows came into view. */
  more(): void {
    const next = this.next();
    if (next !== null) this.#read(next);
  }

  #finished(job: Job): void {
    if (job.state === 'done' && job.result)
      this.show(
        job.result.fates.wrong > 0
          ? 'wrong'
          : job.result.fates.asks > 0 && job.kind.startsWith('log')
            ? 'asks'
            : null,
      );
  }

  #read(after: number): void {
    const job = this.job();
    if (!job || this.#reading) return;
    this.#reading = true;
    const fate = this.fate();
    this.#acts.read(this.#data.fates(job.id, { after, limit: PAGE, ...(fate && { fate }) }), {
      line: this.problem,
      otherwise: () => (this.#reading = false),
      then: ({ items, next }) => {
        this.#reading = false;
        if (fate !== this.fate() || job.id !== this.job()?.id) return this.#read(0);
        this.rows.update((rows) => (after === 0 ? items : [...rows, ...items]));
        this.next.set(next);
      },
    });
  }
}
