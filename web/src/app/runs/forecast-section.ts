import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { firstValueFrom } from 'rxjs';
import { figureText } from '@ruddy/core/base/text';
import { type Forecast, roughnessOf } from '@ruddy/core/runs';
import type { ForecastRow } from '@ruddy/core/runs/contract';
import {
  FORECAST_BASIS,
  forecastText,
  heldText,
  missingText,
  scoreText,
} from '@ruddy/core/runs/text';
import type { ApiError } from '../platform/api/api-client';
import { RunsData } from './runs';
import { CaptureWork, Stopped } from './capture-work';
import type { Simulated } from './capture-calls';
import { SimulatedTrace } from './simulated-trace';
import { TollStore } from './toll-store';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const SIZES = ['1280x800', '1920x1080', '2560x1440', '3840x2160'] as const;
const FRAMES = 20_000;

/** Frames to expect of this title on this setup at sizes and paths nobody ran, how earlier predictions held, and a run drawn by chance. */
@Component({
  selector: 'rb-forecast-section',
  imports: [Cell, Rows, Fold, MatButtonModule, SimulatedTrace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [(open)]="opened" [name]="headline()">
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      <rb-rows label="Frames to expect" [columns]="framesToExpectColumns" [rows]="rows()">
        <ng-template rbCell="at" [rbCellOf]="rows()" let-r>{{ r.resolution }}</ng-template>
        <ng-template rbCell="picture" [rbCellOf]="rows()" let-r>{{ r.picture }}</ng-template>
        <ng-template rbCell="framesS95" [rbCellOf]="rows()" let-r
          ><span class="nowrap">{{ r.words }}</span></ng-template
        >
        <ng-template rbCell="linkOverheadMs" [rbCellOf]="rows()" let-r>{{ r.toll }}</ng-template>
        <ng-template rbCell="restsOn" [rbCellOf]="rows()" let-r>{{ r.basis }}</ng-template>
        <ng-template rbCell="lows" [rbCellOf]="rows()" let-r>
          @if (r.forecast; as f) {
            <button
              mat-button
              type="button"
              [attr.aria-label]="'Draw a run at ' + r.resolution + ', ' + r.picture"
              (click)="draw(f, r.resolution)"
            >
              Draw a run
            </button>
          }
        </ng-template>
      </rb-rows>
      @if (drawing()) {
        <p class="row">
          <span class="quiet" role="status"
            >Drawing {{ frames.toLocaleString('en') }} frames …</span
          >
          <button mat-stroked-button type="button" (click)="stop()">Stop</button>
        </p>
      }
      @if (drawn(); as d) {
        <h3>{{ d.name }}, {{ frames.toLocaleString('en') }} frames drawn by chance</h3>
        <p>{{ d.words }}</p>
        <rb-simulated-trace [pyramid]="d.run.pyramid" />
        <p class="hint">{{ d.rough }}</p>
      }
      @if (held().length > 0) {
        <h3>Predictions and their runs</h3>
        <ul>
          @for (h of held(); track h) {
            <li>{{ h }}</li>
          }
        </ul>
      }
    </rb-fold>
  `,
  styleUrl: './section.scss',
})
export class ForecastSection {
  readonly framesToExpectColumns: readonly ShortColumn[] = [
    { key: 'at', name: 'At' },
    { key: 'picture', name: 'Picture' },
    { key: 'framesS95', name: 'Frames/s (95 %)', figure: true },
    { key: 'linkOverheadMs', name: 'Link overhead, ms', figure: true },
    { key: 'restsOn', name: 'Rests on' },
    { key: 'lows', name: 'Lows' },
  ];
  readonly #data = inject(RunsData);
  readonly #work = inject(CaptureWork);
  readonly store = inject(TollStore);
  readonly setupId = input.required<string>();
  /** A calibration was made: what was expected is asked for again. */
  readonly again = input(0);
  readonly opened = signal(false);
  readonly problem = signal<string | null>(null);
  readonly forecasts = signal<readonly (ForecastRow & { panel: boolean })[]>([]);
  readonly drawing = signal(false);
  readonly drawn = signal<{ name: string; words: string; rough: string; run: Simulated } | null>(
    null,
  );
  readonly frames = FRAMES;
  readonly headline = computed(() => {
    const p = this.store.predictions();
    const newest = p?.items.find((i) => i.title === this.store.first()?.title);
    const score = p ? scoreText(p.score) : 'Reading …';
    return newest
      ? `Prediction against run: ${heldText(newest)}. ${score}`
      : `Prediction against run: ${score}`;
  });
  readonly rows = computed(() =>
    this.forecasts().map((f) => {
      const known = 'missing' in f ? null : f;
      return {
        key: `${f.resolution} ${f.panel}`,
        resolution: f.resolution,
        picture: f.panel ? "host's panel" : 'screen on the card',
        words: known
          ? forecastText(known)
          : missingText(f as Extract<ForecastRow, { missing: unknown }>),
        toll: known ? figureText(known.tollMs.mid, 2) : '–',
        basis: known
          ? `${FORECAST_BASIS[known.basis]}; assumed: ${known.assumed.join(', ') || 'nothing'}`
          : '',
        forecast: known,
      };
    }),
  );
  readonly held = computed(() =>
    (this.store.predictions()?.items ?? []).map(
      (p) =>
        `${p.title}, ${heldText(p)} frames/s${p.panel ? ', on the panel' : ''}; calibrated ${p.fitMadeAt.slice(0, 10)}`,
    ),
  );

  constructor() {
    effect(() => {
      const run = this.store.first();
      // Read so that the question is asked again when they change.
      this.setupId();
      this.again();
      if (this.opened() && run)
        untracked(() => void this.#ask(run.titleId, run.settings.powerMode));
    });
  }

  async #ask(titleId: string, powerMode: string): Promise<void> {
    this.problem.set(null);
    this.drawn.set(null);
    try {
      const ask = (panel: boolean) =>
        firstValueFrom(
          this.#data.forecasts(this.setupId(), {
            titleIds: [titleId],
            resolutions: [...SIZES],
            panel,
            powerMode,
          }),
        );
      const [outside, inside] = await Promise.all([ask(false), ask(true)]);
      this.forecasts.set([
        ...outside.map((f) => ({ ...f, panel: false })),
        ...inside.map((f) => ({ ...f, panel: true })),
      ]);
    } catch (e) {
      this.problem.set(`Nothing could be predicted: ${(e as ApiError).message}`);
    }
  }

  /** Draw a run of the forecast in the worker, as rough as the runs of this title were. */
  async draw(f: Forecast, name: string): Promise<void> {
    const like = this.store.first()?.stats ?? null;
    const rough = roughnessOf(like, f.model.rig.downGbps);
    this.drawing.set(true);
    this.problem.set(null);
    try {
      const run = await this.#work.run((w) =>
        w.simulate({ model: f.model, rough, n: FRAMES, seed: 0.5 }),
      );
      const { averageFps, low1, low01 } = run.stats;
      this.drawn.set({
        name,
        run,
        words: `Average ${figureText(averageFps)}, 1 % low ${figureText(low1.at)} (99th) / ${figureText(low1.frames)} (slowest 1 %), 0.1 % low ${figureText(low01.at)} frames/s.`,
        rough: `As rough as ${like ? 'the run that is looked at' : 'is usual'}: each stage scatters by ${(rough.jitter * 100).toFixed(1)} %, ${figureText(rough.burstsPerS * 60, 2)} bursts a minute of ${figureText(rough.burstMB)} MB. The same seed gives the same frames.`,
      });
    } catch (e) {
      if (!(e instanceof Stopped))
        this.problem.set(`The run could not be drawn: ${(e as Error).message}`);
    } finally {
      this.drawing.set(false);
    }
  }

  stop(): void {
    this.#work.stop();
  }
}
