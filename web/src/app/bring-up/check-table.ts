import { ChangeDetectionStrategy, Component, computed, input } from '@angular/core';
import { formatWhole, percent, rate } from '@ruddy/core/base/text';
import {
  type CheckRow,
  compareReading,
  type CopyGrade,
  type LinkCheck,
} from '@ruddy/core/bring-up';
import { ARTEFACT_TEXT, GRADE_WORDS, ROW_NAMES, ROW_WORDS } from '@ruddy/core/bring-up/text';
import type { Evaluation } from '@ruddy/core/plan';

interface Line {
  name: string;
  expected: string;
  measured: string;
  word: string;
  look: 'good' | 'bad' | 'quiet';
  how: string;
}

const HOW: Record<CheckRow['key'], string> = {
  router: 'at any time',
  host: 'under load',
  virtual: 'ignore it',
  card: 'under load',
  inside: 'ignore it',
};
const NOTHING = { router: null, host: null, card: null, inside: null, virtual: false };

function spanText(gen: number | string | null, lanes: number | string | null): string {
  return [lanes === null ? '' : `×${lanes}`, gen === null ? '' : `Gen${gen}`]
    .filter((s) => s !== '')
    .join(' ');
}

function expectedText(r: CheckRow): string {
  const { gen, lanes, laneGbps } = r.expected;
  if (r.key === 'router')
    return laneGbps && lanes
      ? `${formatWhole(laneGbps)} Gb/s × ${formatWhole(lanes)} lanes`
      : 'not known';
  return spanText(gen && formatWhole(gen), lanes && formatWhole(lanes)) || 'not known';
}

function measuredText(r: CheckRow): string {
  const { gen, lanes, laneGbps } = r.seen;
  if (r.key === 'router')
    return laneGbps === null && lanes === null
      ? ''
      : `${laneGbps ?? '?'} Gb/s × ${lanes ?? '?'} lanes`;
  return spanText(gen, lanes);
}

function lineOf(r: CheckRow): Line {
  const look =
    r.state === 'as-expected'
      ? 'good'
      : r.state === 'below' || r.state === 'above'
        ? 'bad'
        : 'quiet';
  return {
    name: ROW_NAMES[r.key],
    expected: expectedText(r),
    measured: measuredText(r) || '–',
    word: ROW_WORDS[r.state],
    look,
    how: HOW[r.key],
  };
}

function copyLine(e: Evaluation, direction: 'down' | 'up', copy: CopyGrade | null): Line {
  const expected = e.predicted.link.readouts.copy?.[direction];
  const from = e.predicted.link.readouts.healthyFrom?.[direction];
  const graded = copy && copy.grade !== 'not-graded' && copy.share;
  const word = !copy
    ? 'not read'
    : copy.grade === 'not-graded'
      ? 'kept, not graded'
      : copy.grade === 'open' && copy.ends
        ? `${GRADE_WORDS[copy.ends.atHigh]} or ${GRADE_WORDS[copy.ends.atLow]}`
        : copy.grade;
  return {
    name: direction === 'down' ? 'Copy rate, host to card' : 'Copy rate, card to host',
    expected: expected
      ? `${rate(expected)} Gb/s${from && from.hi > 0 ? `, healthy from ${rate(from)}` : ''}`
      : 'not known',
    measured: copy?.gbps
      ? `${copy.gbps.toFixed(1)} Gb/s${graded && copy.share ? `, ${percent(copy.share)} %` : ''}`
      : '–',
    word,
    how: 'pinned memory, under load',
    look: copy?.grade === 'healthy' ? 'good' : graded ? 'bad' : 'quiet',
  };
}

/** What this chain should show, and what was read, pair by pair. Without readings it is the list of what to look for. */
@Component({
  selector: 'rb-check-table',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="wide" tabindex="0" role="region" aria-label="Expected and measured">
      <table class="list">
        <thead>
          <tr>
            <th scope="col">Where</th>
            <th scope="col">Expected</th>
            @if (check()) {
              <th scope="col">Measured</th>
              <th scope="col">Verdict</th>
            } @else {
              <th scope="col">How to take it</th>
            }
          </tr>
        </thead>
        <tbody>
          @for (l of lines(); track l.name) {
            <tr [class]="l.look">
              <th scope="row">{{ l.name }}</th>
              <td>{{ l.expected }}</td>
              @if (check()) {
                <td class="measured">{{ l.measured }}</td>
                <td class="word">{{ l.word }}</td>
              } @else {
                <td class="quiet">{{ l.how }}</td>
              }
            </tr>
          }
        </tbody>
      </table>
    </div>
    @if (hasVirtual()) {
      <p class="quiet artefact">{{ artefact }}</p>
    }
  `,
  styles: `
    tbody th {
      font-weight: 400;
    }
    .good .word {
      border-left: 4px solid var(--reed);
      font-weight: 600;
    }
    .bad .word {
      border-left: 4px solid var(--plum);
      font-weight: 600;
    }
    .quiet .word {
      border-left: 4px solid var(--stone);
    }
    .measured {
      color: var(--teal);
      font-weight: 600;
    }
    .artefact {
      margin-top: 8px;
    }
  `,
})
export class CheckTable {
  readonly evaluation = input.required<Evaluation>();
  readonly check = input<LinkCheck | null>(null);
  readonly artefact = ARTEFACT_TEXT;
  readonly rows = computed(
    () =>
      this.check()?.rows ??
      compareReading(this.evaluation().predicted.link.readouts, NOTHING, null),
  );
  readonly hasVirtual = computed(() => this.rows().some((r) => r.key === 'virtual'));
  readonly lines = computed<Line[]>(() => {
    const e = this.evaluation();
    const check = this.check();
    const of = (d: 'down' | 'up') =>
      copyLine(e, d, check?.copy && (check.copy.direction ?? 'down') === d ? check.copy : null);
    return [...this.rows().map(lineOf), of('down'), of('up')];
  });
}
