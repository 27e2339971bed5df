import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatTooltipModule } from '@angular/material/tooltip';
import { figureText } from '@ruddy/core/base/text';
import { type FrameForecast, type MedianFrame, roughnessOf } from '@ruddy/core/runs';
import {
  bandsText,
  basisText,
  fpsText,
  scoreText,
  settledText,
  widthTexts,
} from '@ruddy/core/runs/text';
import { CaptureWork, Stopped } from './capture-work';
import type { Simulated } from './capture-calls';
import { SimulatedTrace } from './simulated-trace';
import { ModelStore } from './model-store';
import { TitleRuns } from './title-runs';
import { day, pluralize } from '../platform/shared/format';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const FRAMES = 20_000;

/** Frames to expect of this title on this setup at sizes and paths nobody ran, how earlier forecasts held, and a run drawn by chance. */
@Component({
  selector: 'rb-forecast-section',
  imports: [Cell, Rows, Fold, MatButtonModule, MatTooltipModule, SimulatedTrace],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [(open)]="opened" [name]="headline()">
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
      @if (model.here() === null) {
        <p class="quiet">Frames are forecast once the resolution of this run is known.</p>
      }
      <rb-rows label="Frames to expect" [columns]="framesToExpectColumns" [rows]="rows()">
        <ng-template rbCell="at" [rbCellOf]="rows()" let-r>{{ r.resolution }}</ng-template>
        <ng-template rbCell="picture" [rbCellOf]="rows()" let-r>{{ r.picture }}</ng-template>
        <ng-template rbCell="frames" [rbCellOf]="rows()" let-r
          ><span class="nowrap" [matTooltip]="r.detail" tabindex="0">{{ r.words }}</span
          ><span class="visually-hidden">{{ r.detail }}</span></ng-template
        >
        <ng-template rbCell="overhead" [rbCellOf]="rows()" let-r>{{ r.overhead }}</ng-template>
        <ng-template rbCell="restsOn" [rbCellOf]="rows()" let-r>{{ r.basis }}</ng-template>
        <ng-template rbCell="lows" [rbCellOf]="rows()" let-r>
          <button
            mat-button
            type="button"
            [attr.aria-label]="'Draw a run at ' + r.resolution + ', ' + r.picture"
            (click)="draw(r.median, r.resolution)"
          >
            Draw a run
          </button>
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
        <h3>Forecasts and their runs</h3>
        @for (w of widths(); track w) {
          <p>{{ w }}</p>
        }
        @for (t of titles(); track t) {
          <p>{{ t }}</p>
        }
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
    { key: 'frames', name: 'Frames/s (80 of 100)', figure: true },
    { key: 'overhead', name: 'Link overhead, ms', figure: true },
    { key: 'restsOn', name: 'Rests on' },
    { key: 'lows', name: 'Lows' },
  ];
  readonly #work = inject(CaptureWork);
  readonly store = inject(TitleRuns);
  readonly model = inject(ModelStore);
  readonly opened = signal(false);
  readonly problem = signal<string | null>(null);
  readonly drawing = signal(false);
  readonly drawn = signal<{ name: string; words: string; rough: string; run: Simulated } | null>(
    null,
  );
  readonly frames = FRAMES;
  readonly headline = computed(() => {
    const s = this.store.settled();
    const newest = s?.items.find((i) => i.titleId === this.store.first()?.titleId);
    const score = s ? scoreText(s.score) : 'Reading …';
    return newest
      ? `Forecast against run: ${settledText(newest)}. ${score}`
      : `Forecast against run: ${score}`;
  });
  readonly rows = computed(() => {
    const answer = this.model.answer();
    if (!answer) return [];
    return this.model.asked().map((asked, i) => {
      const forecast = answer.forecasts[i] as FrameForecast;
      const overhead = answer.overheads[i] ?? null;
      return {
        key: `${asked.size} ${asked.panel}`,
        resolution: asked.size,
        picture: asked.panel ? "host's panel" : 'screen on the card',
        words: fpsText(forecast.fps),
        detail: bandsText(forecast.fps),
        overhead: overhead ? figureText(overhead.ms.mid, 2) : '–',
        basis: basisText(forecast),
        median: answer.medians[i] as MedianFrame,
      };
    });
  });
  readonly widths = computed(() => {
    const settled = this.store.settled();
    return settled ? widthTexts(settled.score) : [];
  });
  /** By title, where more than one has met its run. */
  readonly titles = computed(() => {
    const list = this.store.settled()?.titles ?? [];
    return list.length < 2 ? [] : list.map((t) => `${t.title}. ${scoreText(t.score)}`);
  });
  readonly held = computed(() =>
    (this.store.settled()?.items ?? []).map(
      (p) =>
        `${p.title}, ${settledText(p)} frames/s${p.panel ? ', on the panel' : ''}; forecast on ${day(p.madeAt)} from ${pluralize(p.evidence, 'piece')} of evidence`,
    ),
  );

  /** Draw a run of the forecast in the worker, as rough as the runs of this title were. */
  async draw(median: MedianFrame, name: string): Promise<void> {
    const like = this.store.first()?.stats ?? null;
    const rough = roughnessOf(like, median.downGbps);
    this.drawing.set(true);
    this.problem.set(null);
    try {
      const run = await this.#work.run((w) =>
        w.simulate({ model: median, rough, n: FRAMES, seed: 0.5 }),
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
