import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import { concatMap, map, type Observable, of, switchMap } from 'rxjs';
import { RuleBook } from '@ruddy/core/base';
import { pluralize } from '@ruddy/core/base/text';
import type { BenchReading, BenchRow } from '@ruddy/core/bench/contract';
import { STAGE_WORDS } from '@ruddy/core/bench/text';
import type { CountsReading } from '@ruddy/core/bring-up';
import { countsBetween } from '@ruddy/core/troubleshoot';
import { BenchesData } from '../setups/benches';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Acts } from '../platform/kit/ask';

/** What was read off a bench, and what was counted there when it was put under load for a while. */
export interface BenchTaken {
  readonly reading: BenchReading;
  readonly counts: CountsReading | null;
}

const SETTLE_MS = 5000;

/** Take a reading from a simulated bench of this setup: at once, under load, or over minutes of load with the counters before and after. */
@Component({
  selector: 'rb-from-bench',
  imports: [Field, MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="box" role="group" aria-label="From a bench">
      @if (benches().length === 0) {
        <span class="quiet">0 benches with this setup.</span>
        <button mat-button type="button" [disabled]="busy() !== null" (click)="lay()">
          Create a bench with it
        </button>
      } @else {
        <rb-field [meta]="benchMeta()" [value]="id()" (changed)="chosen.set($event)" />
        @if (counts()) {
          <button
            mat-stroked-button
            type="button"
            [disabled]="busy() !== null"
            (click)="take('count')"
          >
            Load it {{ counted(minutes(), 'minute') }} and count
          </button>
        } @else {
          <button
            mat-stroked-button
            type="button"
            [disabled]="busy() !== null"
            (click)="take('load')"
          >
            Read under load
          </button>
          <button mat-button type="button" [disabled]="busy() !== null" (click)="take('as-is')">
            Read as it is
          </button>
        }
        <a [routerLink]="['/bench', id()]">Go to it</a>
      }
      @if (busy(); as words) {
        <span role="status">{{ words }}</span>
      }
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
    </div>
  `,
  styles: `
    .box {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
      align-items: center;
      border: 1px dashed var(--rim);
      padding: 8px;
    }
  `,
})
export class FromBench {
  readonly counted = pluralize;
  readonly #acts = inject(Acts);
  readonly #data = inject(BenchesData);
  readonly #editor = inject(SetupEditor);
  readonly #readings = inject(LinkReadings);
  readonly #router = inject(Router);
  readonly counts = input(false);
  readonly taken = output<BenchTaken>();
  readonly benches = signal<BenchRow[]>([]);
  readonly chosen = signal<string | null>(null);
  readonly busy = signal<string | null>(null);
  readonly problem = signal<string | null>(null);
  readonly benchMeta = computed<FieldMeta>(() => ({
    label: 'Bench',
    input: 'choice',
    options: this.benches().map((b) => ({
      value: b.id,
      label: `${b.name}: ${STAGE_WORDS[b.state.stage]}`,
    })),
  }));
  readonly id = computed(() => this.chosen() ?? this.benches()[0]?.id ?? '');
  readonly minutes = computed(() => new RuleBook(this.#readings.house()).get('steps.loadMinutes'));

  constructor() {
    effect(() => {
      const setup = this.#editor.stored()?.id;
      untracked(() => {
        if (setup) this.#list(setup);
      });
    });
  }

  lay(): void {
    const setup = this.#editor.stored();
    if (!setup) return;
    this.busy.set('Creating …');
    const body = { name: `${setup.name}, bench`.slice(0, 80), setupId: setup.id };
    this.#acts.run(this.#data.lay(body), {
      line: this.problem,
      failed: 'Not created.',
      then: (b) => void this.#router.navigate(['/bench', b.id]),
      otherwise: () => this.busy.set(null),
    });
  }

  take(how: 'as-is' | 'load' | 'count'): void {
    const id = this.id();
    this.busy.set(
      how === 'count'
        ? `Under load for ${pluralize(this.minutes(), 'minute')} of bench time …`
        : 'Reading …',
    );
    const taken = how === 'count' ? this.#count(id) : this.#read(id, how === 'load');
    this.#acts.run(taken, {
      line: this.problem,
      failed: 'Nothing read.',
      otherwise: () => this.busy.set(null),
      then: (t) => {
        this.busy.set(null);
        if (!t.reading.report) {
          this.problem.set(
            'Nothing read: no system runs on that bench. Bring it up first; Go to it shows how it stands.',
          );
          return;
        }
        this.taken.emit(t);
      },
    });
  }

  #read(id: string, load: boolean): Observable<BenchTaken> {
    const ready: Observable<unknown> = load
      ? this.#data
          .act(id, { act: 'load', on: true })
          .pipe(concatMap(() => this.#data.clock(id, { stepMs: SETTLE_MS })))
      : of(null);
    return ready.pipe(
      concatMap(() => this.#data.read(id)),
      map((reading) => ({ reading, counts: null })),
    );
  }

  /** Counters before, minutes of load in steps of bench time, counters after. */
  #count(id: string): Observable<BenchTaken> {
    const kind = this.#editor.judgement()?.evaluation.predicted.link.kind ?? 'tunnel';
    const minutes = this.minutes();
    return this.#data.read(id).pipe(
      switchMap((before) =>
        this.#data.act(id, { act: 'load', on: true }).pipe(
          concatMap(() => this.#data.clock(id, { stepMs: Math.round(minutes * 60_000) })),
          concatMap(() => this.#data.read(id)),
          map((after) => {
            const downs = after.state.downs - before.state.downs;
            const counts =
              before.report && after.report
                ? countsBetween(before.report, after.report, kind, { minutes, downs })
                : null;
            return { reading: after, counts };
          }),
        ),
      ),
    );
  }

  #list(setup: string): void {
    this.#acts.read(this.#data.list(setup), {
      line: this.problem,
      then: ({ items }) => this.benches.set(items),
    });
  }
}
