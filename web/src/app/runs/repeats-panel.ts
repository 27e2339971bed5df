import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { figureText, pluralize } from '@ruddy/core/base/text';
import type { RunClass } from '@ruddy/core/runs';
import type { RunEntry } from '@ruddy/core/runs/contract';
import { outlierText, spreadText, throttledText } from '@ruddy/core/runs/text';
import { day } from '../platform/shared/format';
import { countedRuns, mainValue, unitOf } from './run-groups';
import type { Shown } from './run-store';

type Counts = RunClass['counts'] | null;

/** A repeat of which there is something to tell. */
interface RepeatLine {
  readonly run: RunEntry;
  readonly name: string;
  readonly words: readonly string[];
  readonly counts: boolean;
  /** Somebody said whether it counts. */
  readonly said: boolean;
}

/** Are these repeats? What lies far from the others, what was left out, and whether they differ too much to be of one setting. */
@Component({
  selector: 'rb-repeats-panel',
  imports: [MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2>{{ heading() }}</h2>
    @if (spread(); as words) {
      <p class="note">{{ words }}</p>
      <p>
        <button mat-stroked-button type="button" (click)="settings.emit()">Set them apart</button>
      </p>
    }
    <ul>
      @for (l of lines(); track l.run.id) {
        <li>
          <strong>{{ l.name }}</strong>
          @for (w of l.words; track w) {
            {{ w }}
          }
          <span class="row">
            <button
              mat-button
              type="button"
              class="small"
              [attr.aria-label]="(l.counts ? 'Leave out: ' : 'Count all the same: ') + l.name"
              (click)="say.emit({ run: l.run, counts: !l.counts })"
            >
              {{ l.counts ? 'Leave it out' : 'Count it all the same' }}
            </button>
            @if (l.said) {
              <button
                mat-button
                type="button"
                class="small"
                [attr.aria-label]="'Let the figures decide: ' + l.name"
                (click)="say.emit({ run: l.run, counts: null })"
              >
                Let the figures decide
              </button>
            }
            <button
              mat-button
              type="button"
              class="small"
              [attr.aria-label]="'Show ' + l.name"
              (click)="show.emit(l.run)"
            >
              Show it
            </button>
          </span>
        </li>
      }
    </ul>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      grid-template-columns: minmax(0, 1fr);
    }
    ul {
      display: grid;
      gap: 8px;
      list-style: none;
      padding: 0;
    }
    .note {
      border-left: 4px solid var(--ochre);
      background: var(--ochre-tint);
      padding: 4px 8px;
    }
    p,
    li {
      font-size: 13px;
      line-height: 18px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
    }
  `,
})
export class RepeatsPanel {
  readonly shown = input.required<Shown>();
  /** What a person says of a run; null takes back what was said. */
  readonly say = output<{ run: RunEntry; counts: Counts }>();
  readonly show = output<RunEntry>();
  /** The settings of the repeats are to be looked at. */
  readonly settings = output();
  readonly heading = computed(() => {
    const { group, letter } = this.shown();
    const left = group.runs.length - countedRuns(group).length;
    const count = pluralize(group.runs.length, 'repeat');
    return `${letter}: ${count}${left > 0 ? `, ${left} left out` : ''}`;
  });
  readonly spread = computed(() => {
    const { group, run } = this.shown();
    const spread = group.classes.get(run.id)?.spread;
    return spread ? spreadText(spread, unitOf(run)) : '';
  });
  readonly lines = computed(() => repeatLines(this.shown().group.runs, this.shown().group.classes));
}

/** The repeats of which there is something to tell. */
export function repeatLines(
  runs: readonly RunEntry[],
  classes: ReadonlyMap<string, RunClass>,
): RepeatLine[] {
  return runs.flatMap((run): RepeatLine[] => {
    const its = classes.get(run.id);
    if (!its) return [];
    const said = run.context.counts !== null;
    const words = [
      ...(its.outlier ? [outlierText(its.outlier, its.repeats.length)] : []),
      ...(its.heldAlone === null || its.repeats.length < 2
        ? []
        : [`Looks held to ${figureText(its.heldAlone)} frames/s; most of its repeats do not.`]),
      ...(its.throttled ? [`It ${throttledText(its.throttled)}.`] : []),
      ...(its.counts
        ? said
          ? ['Counted by hand.']
          : []
        : [said ? 'Left out by hand.' : 'Left out.']),
    ];
    if (words.length === 0) return [];
    const value = mainValue(run);
    const name = `${day(run.happenedAt)}${value === null ? '' : `, ${figureText(value)} ${unitOf(run)}`}:`;
    return [{ run, name, words, counts: its.counts, said }];
  });
}
