import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { mean } from '@ruddy/core/base';
import { agedTrend, figureText, yearlyTrend } from '@ruddy/core/base/text';
import { byAge, changedNames, overTime, sameButVersions } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { comparedText } from '@ruddy/core/runs/text';
import { pluralize, day } from '../platform/shared/format';
import { mainValue } from './run-groups';
import { TollStore } from './toll-store';

const speedOf = (r: RunEntry) => {
  const v = mainValue(r);
  return v === null ? null : r.kind === 'time' ? 1 / v : v;
};

/** The same run over versions and months, and synthetic tests by their age as % of a desktop. */
@Component({
  selector: 'rb-months-section',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details class="fold">
      <summary>{{ headline() }}</summary>
      @if (steps().length > 0) {
        <div class="wide" tabindex="0" role="region" aria-label="The same run over versions">
          <table class="list">
            <thead>
              <tr>
                <th scope="col">From</th>
                <th scope="col">What changed</th>
                <th scope="col" class="figure">Runs</th>
                <th scope="col" class="figure">Mean</th>
                <th scope="col">Against the step before</th>
              </tr>
            </thead>
            <tbody>
              @for (s of steps(); track s.from) {
                <tr>
                  <th scope="row" class="nowrap">{{ s.from }}</th>
                  <td>{{ s.changed }}</td>
                  <td class="figure">{{ s.n }}</td>
                  <td class="figure">{{ s.value }}</td>
                  <td>{{ s.against }}</td>
                </tr>
              }
            </tbody>
          </table>
        </div>
      }
      <p>{{ trendWords() }}</p>
      @if (aged().rows.length > 0) {
        <h3>Synthetic tests by age</h3>
        <ul>
          @for (r of aged().rows; track r.title) {
            <li>{{ r.title }}, {{ r.year }}: {{ share(r.percent.of) }} % of a desktop</li>
          }
        </ul>
        <p>{{ agedWords() }}</p>
      }
    </details>
  `,
  styleUrl: './section.scss',
})
export class MonthsSection {
  readonly store = inject(TollStore);
  /** Years of synthetic tests, by title id. */
  readonly years = input<ReadonlyMap<string, number>>(new Map());
  readonly time = computed(() => {
    const first = this.store.first();
    const key = first && sameButVersions(first.facts);
    const same = (this.store.all() ?? []).filter(
      (r) =>
        r.setupId === first?.setupId &&
        r.context.norm === first.context.norm &&
        r.kind === first.kind,
    );
    const dated = same.flatMap((r) => {
      const speed = speedOf(r);
      return speed !== null && sameButVersions(r.facts) === key
        ? [{ id: r.id, at: r.happenedAt, facts: r.facts, speed }]
        : [];
    });
    return overTime(dated);
  });
  readonly headline = computed(() => {
    const t = this.time();
    const n = t.steps.reduce((s, x) => s + x.runs.length, 0);
    return `Versions and months: ${pluralize(n, 'run')} under ${pluralize(t.steps.length, 'set')} of versions`;
  });
  readonly steps = computed(() => {
    const time = this.store.first()?.kind === 'time';
    return this.time().steps.map((s) => {
      const speed = mean(s.runs.map((r) => r.speed));
      return {
        from: day(s.from),
        changed: changedNames(s) || 'the first',
        n: s.runs.length,
        value: figureText(time ? 1 / speed : speed),
        against: s.against ? comparedText(s.against) : '',
      };
    });
  });
  readonly trendWords = computed(() => yearlyTrend(this.time().perYear));
  readonly aged = computed(() => {
    const years = this.years();
    const all = this.store.all() ?? [];
    const setupId = this.store.first()?.setupId;
    const tests = [...years].map(([titleId, year]) => {
      const runs = all.filter((r) => r.titleId === titleId && r.setupId === setupId);
      const speeds = (norm: boolean) =>
        runs.filter((r) => r.context.norm === norm).flatMap((r) => speedOf(r) ?? []);
      return { title: runs[0]?.title ?? '', year, here: speeds(false), desktop: speeds(true) };
    });
    return byAge(tests);
  });
  readonly agedWords = computed(() => agedTrend(this.aged().perYear));

  share(of: number): string {
    return (of * 100).toFixed(1);
  }
}
