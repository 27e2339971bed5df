import { ChangeDetectionStrategy, Component, computed, inject, input } from '@angular/core';
import { mean } from '@ruddy/core/base';
import { agedTrend, figureText, yearlyTrend } from '@ruddy/core/base/text';
import { byAge, changedNames, overTime, sameButVersions } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { comparedText } from '@ruddy/core/runs/text';
import { pluralize, day } from '../platform/shared/format';
import { mainValue } from './run-groups';
import { TitleRuns } from './title-runs';
import { Fold } from '../platform/kit/fold';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const speedOf = (r: RunEntry) => {
  const v = mainValue(r);
  return v === null ? null : r.kind === 'time' ? 1 / v : v;
};

/** The same run over versions and months, and synthetic tests by their age as % of a desktop. */
@Component({
  selector: 'rb-months-section',
  imports: [Cell, Rows, Fold],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-fold [name]="headline()">
      @if (steps().length > 0) {
        <rb-rows label="The same run over versions" [columns]="theSameRunColumns" [rows]="steps()">
          <ng-template rbCell="from" [rbCellOf]="steps()" let-s
            ><span class="nowrap">{{ s.from }}</span></ng-template
          >
          <ng-template rbCell="whatChanged" [rbCellOf]="steps()" let-s>{{ s.changed }}</ng-template>
          <ng-template rbCell="runs" [rbCellOf]="steps()" let-s>{{ s.n }}</ng-template>
          <ng-template rbCell="mean" [rbCellOf]="steps()" let-s>{{ s.value }}</ng-template>
          <ng-template rbCell="againstTheStep" [rbCellOf]="steps()" let-s>{{
            s.against
          }}</ng-template>
        </rb-rows>
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
    </rb-fold>
  `,
  styleUrl: './section.scss',
})
export class MonthsSection {
  readonly theSameRunColumns: readonly ShortColumn[] = [
    { key: 'from', name: 'From' },
    { key: 'whatChanged', name: 'What changed' },
    { key: 'runs', name: 'Runs', figure: true },
    { key: 'mean', name: 'Mean', figure: true },
    { key: 'againstTheStep', name: 'Against the step before' },
  ];
  readonly store = inject(TitleRuns);
  /** Years of synthetic tests, by title id. */
  readonly years = input<ReadonlyMap<string, number>>(new Map());
  readonly time = computed(() => {
    const first = this.store.first();
    const key = first && sameButVersions(first.facts);
    const same = (this.store.all() ?? []).filter(
      (r) =>
        r.setupId === first?.setupId &&
        r.context.norm === first.context.norm &&
        r.kind === first.kind &&
        this.#counts(r),
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
      const runs = all.filter(
        (r) => r.titleId === titleId && r.setupId === setupId && this.#counts(r),
      );
      const speeds = (norm: boolean) =>
        runs.filter((r) => r.context.norm === norm).flatMap((r) => speedOf(r) ?? []);
      return { title: runs[0]?.title ?? '', year, here: speeds(false), desktop: speeds(true) };
    });
    return byAge(tests);
  });
  readonly agedWords = computed(() => agedTrend(this.aged().perYear));

  #counts(r: RunEntry): boolean {
    const its = this.store.classes().get(r.id);
    return its === undefined || (its.counts && its.capFps === null);
  }

  share(of: number): string {
    return (of * 100).toFixed(1);
  }
}
