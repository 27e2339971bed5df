import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { estimateText, figureText } from '@ruddy/core/base/text';
import type { Evaluation } from '@ruddy/core/plan';
import type { Forecast, NoForecast } from '@ruddy/core/runs';
import { FORECAST_BASIS, missingText } from '@ruddy/core/runs/text';
import { Fold } from '../platform/kit/fold';

const FOLDED = 5;
type Row = (Forecast | NoForecast) & { readonly resolution: string };
const known = (f: Row): f is Extract<Row, Forecast> => !('missing' in f);

/** Frames to expect of titles that are known, with the toll in them; while a change is tried, what they were before. */
@Component({
  selector: 'rb-frames-panel',
  imports: [Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>Frames{{ size() ? ', ' + size() : '' }}</h3>
    @for (r of rows(); track r.key) {
      <p class="line">
        <span>{{ r.title }}</span>
        <span class="figure">{{ r.fps }}</span>
      </p>
      <p class="hint">{{ r.toll }}</p>
      @if (r.was) {
        <p class="was">{{ r.was }}</p>
      }
    } @empty {
      <p class="quiet">
        No title is known well enough. Measure one on Runs and calibrate it, or state its start
        values there.
      </p>
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
  readonly evaluation = input.required<Evaluation>();
  readonly before = input<Evaluation | null>(null);
  readonly #sizes = computed(() => [
    ...new Set(this.evaluation().predicted.forecasts.map((f) => f.resolution)),
  ]);
  /** In the heading where there is one size, else with each title. */
  readonly size = computed(() => (this.#sizes().length === 1 ? (this.#sizes()[0] ?? '') : ''));
  readonly rows = computed(() => {
    const old = this.before()?.predicted.forecasts ?? [];
    return this.evaluation()
      .predicted.forecasts.filter(known)
      .slice(0, FOLDED)
      .map((f) => {
        const was = old.find((o) => o.titleId === f.titleId && o.resolution === f.resolution);
        const changed = was && known(was) && figureText(was.fps.mid) !== figureText(f.fps.mid);
        const longest =
          f.terms.cpu > f.terms.card
            ? `processor ${figureText(f.terms.cpu, 2)}`
            : `card ${figureText(f.terms.card, 2)}`;
        const holds = {
          toll: `, ${longest} ms`,
          saturated: ', held by the link',
          capped: ', held by a limit',
        }[f.regime];
        const back = f.backMs.mid > 0 ? `, way back ${figureText(f.backMs.mid, 2)} ms` : '';
        return {
          key: `${f.titleId} ${f.resolution}`,
          title: this.size() ? f.title : `${f.title}, ${f.resolution}`,
          fps: estimateText(f.fps, 0),
          toll: `frames/s expected; link overhead ${figureText(f.tollMs.mid, 2)} ms${holds}${back}`,
          was: changed && known(was) ? `was ${figureText(was.fps.mid)}` : '',
          basis: `${FORECAST_BASIS[f.basis]}; measured: ${f.fitted.join(', ') || 'nothing'}; assumed: ${f.assumed.join(', ') || 'nothing'}`,
        };
      });
  });
  readonly open = computed(() => [
    ...new Set(
      this.evaluation().predicted.forecasts.flatMap((f) =>
        'missing' in f ? [`${f.title}: ${missingText(f)}`] : [],
      ),
    ),
  ]);
}
