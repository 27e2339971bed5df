import { NgTemplateOutlet } from '@angular/common';
import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { figureText } from '@ruddy/core/base/text';
import { eightyBand, type NoForecast, type TitleForecast } from '@ruddy/core/runs';
import {
  basisText,
  fpsText,
  missingText,
  restsOnText,
  shortOverheadText,
} from '@ruddy/core/runs/text';
import { Fold } from '../platform/kit/fold';

const FOLDED = 5;
/** A limit that holds at least this share of what may be is told. */
const HELD = 0.5;
type Row = TitleForecast | NoForecast;
const known = (f: Row): f is TitleForecast => !('missing' in f);
const same = (a: Row, b: Row) => a.titleId === b.titleId && a.resolution === b.resolution;

/** What the link and the way back to a panel cost a frame. */
function costText({ overhead, forecast }: TitleForecast): string {
  if (!overhead) return '';
  const back = overhead.panelMs
    ? `, way back to the panel ${shortOverheadText(eightyBand(overhead.panelMs))} ms`
    : '';
  const held = forecast.capped >= HELD ? ', held by the limit' : '';
  return `Link overhead ${shortOverheadText(eightyBand(overhead.ms))} ms a frame${back}${held}`;
}

/** Frames to expect of titles that are known, with the link overhead in them; while a change is tried, what they were before. */
@Component({
  selector: 'rb-frames-panel',
  imports: [Fold, NgTemplateOutlet],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Frames{{ size() ? ', ' + size() : '' }}</h3>
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
    @if (rows().length > 0) {
      <p class="hint">Frames/s, and where 80 of 100 such runs lie.</p>
    }
    <ng-template #row let-r>
      <p class="line">
        <span>{{ r.title }}</span>
        <span class="figure">{{ r.fps }}</span>
      </p>
      <p class="hint">{{ r.cost }}</p>
      @if (r.was) {
        <p class="was">{{ r.was }}</p>
      }
    </ng-template>
    @for (r of rows().slice(0, folded); track r.key) {
      <ng-container [ngTemplateOutlet]="row" [ngTemplateOutletContext]="{ $implicit: r }" />
    } @empty {
      <p class="quiet">
        @if (waiting()) {
          Computing what to expect …
        } @else {
          No title is known well enough. Measure one on Runs, or state its start values there.
        }
      </p>
    }
    @if (rows().length > folded) {
      <rb-fold [inner]="true" name="{{ rows().length - folded }} more predicted">
        @for (r of rows().slice(folded); track r.key) {
          <ng-container [ngTemplateOutlet]="row" [ngTemplateOutletContext]="{ $implicit: r }" />
        }
      </rb-fold>
    }
    @if (rows().length > 0) {
      <rb-fold [inner]="true" name="What this rests on">
        @for (r of rows(); track r.key) {
          <p class="hint">{{ r.title }}: {{ r.basis }}</p>
        }
      </rb-fold>
    }
    @if (open().length > 0) {
      <rb-fold
        [inner]="true"
        name="{{ open().length }} more {{
          open().length === 1 ? 'title' : 'titles'
        }} cannot be predicted"
      >
        @for (o of open(); track o) {
          <p class="hint">{{ o }}</p>
        }
      </rb-fold>
    }
  `,
  styles: `
    .line {
      display: flex;
      justify-content: space-between;
      gap: 8px;
    }
    .figure {
      white-space: nowrap;
      font-weight: 600;
    }
    .was {
      font-size: 12px;
      line-height: 16px;
    }
  `,
})
export class FramesPanel {
  readonly folded = FOLDED;
  readonly forecasts = input.required<readonly Row[]>();
  readonly before = input<readonly Row[] | null>(null);
  readonly waiting = input(false);
  readonly problem = input<string | null>(null);
  readonly #sizes = computed(() => [...new Set(this.forecasts().map((f) => f.resolution))]);
  /** In the heading where there is one size, else with each title. */
  readonly size = computed(() => (this.#sizes().length === 1 ? (this.#sizes()[0] ?? '') : ''));
  readonly rows = computed(() =>
    this.forecasts()
      .filter(known)
      .map((f) => this.#row(f)),
  );
  readonly open = computed(() => [
    ...new Set(
      this.forecasts().flatMap((f) => ('missing' in f ? [`${f.title}: ${missingText(f)}`] : [])),
    ),
  ]);

  #row(f: TitleForecast) {
    const { fps } = f.forecast;
    const was = (this.before() ?? []).filter(known).find((o) => same(o, f));
    const changed = was && figureText(was.forecast.fps.mid) !== figureText(fps.mid);
    return {
      key: `${f.titleId} ${f.resolution}`,
      title: this.size() ? f.title : `${f.title}, ${f.resolution}`,
      fps: fpsText(fps),
      cost: costText(f),
      was: changed ? `was ${fpsText(was.forecast.fps)}` : '',
      basis: `${basisText(f.forecast)}. ${restsOnText(f.restsOn)}`,
    };
  }
}
