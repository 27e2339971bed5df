import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import type { AreaState, Evaluation } from '@ruddy/core/plan';
import { AREA_NOUNS, AREA_STATES, coverageWords } from '@ruddy/core/plan/text';

/** A mark for each state, beside its word: read without colour, and in grey print. */
const MARKS: Record<AreaState, string> = { good: '●', care: '▲', stops: '■', open: '○', none: '–' };

/** The areas a chain is judged in, each with its state, and how many of them are known. */
@Component({
  selector: 'rb-area-row',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul aria-label="Areas">
      @for (a of shown(); track a.area) {
        <li [class]="a.state">
          <span aria-hidden="true" class="mark">{{ a.mark }}</span>
          <b>{{ a.name }}</b> {{ a.words }}
        </li>
      }
    </ul>
    <p>{{ coverage() }}</p>
  `,
  styles: `
    :host {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      align-items: baseline;
      margin-bottom: 8px;
    }
    ul {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 8px;
      list-style: none;
    }
    li {
      padding: 0 8px;
      border: 1px solid var(--line);
      border-radius: 6px;
      background: var(--sheet);
      font-size: 14px;
      line-height: 24px;
    }
    b {
      font-weight: 600;
    }
    b {
      display: inline-block;
    }
    b::first-letter {
      text-transform: uppercase;
    }
    .mark {
      margin-right: 4px;
    }
    .stops {
      border-color: var(--plum);
      background: var(--plum-tint);
    }
    .care {
      border-color: var(--ochre);
      background: var(--ochre-tint);
    }
    .open {
      border: 1px dashed var(--rim);
    }
    p {
      color: var(--ink2);
    }
  `,
})
export class AreaRow {
  readonly evaluation = input.required<Evaluation>();
  readonly shown = computed(() =>
    this.evaluation()
      .predicted.areas.filter((a) => a.state !== 'none')
      .map(({ area, state }) => ({
        area,
        state,
        mark: MARKS[state],
        name: AREA_NOUNS[area],
        words: AREA_STATES[state],
      })),
  );
  readonly coverage = computed(() => coverageWords(this.evaluation().predicted.coverage));
}
