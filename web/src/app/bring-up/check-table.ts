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
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';

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
  imports: [Cell, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-rows label="Expected and measured" [columns]="columns()" [rows]="lines()">
      <ng-template rbCell="measured" [rbCellOf]="lines()" let-l
        ><span class="measured">{{ l.measured }}</span></ng-template
      >
      <ng-template rbCell="word" [rbCellOf]="lines()" let-l
        ><span class="word" [class]="l.look">{{ l.word }}</span></ng-template
      >
    </rb-rows>
    @if (hasVirtual()) {
      <p class="quiet artefact">{{ artefact }}</p>
    }
  `,
  styles: `
    .word {
      border-left: 4px solid var(--stone);
      padding-left: 6px;
    }
    .good {
      border-color: var(--reed);
      font-weight: 600;
    }
    .bad {
      border-color: var(--plum);
      font-weight: 600;
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
  readonly columns = computed((): readonly ShortColumn<Line>[] => [
    { key: 'name', name: 'Where', text: (l) => l.name },
    { key: 'expected', name: 'Expected', text: (l) => l.expected },
    ...(this.check()
      ? [
          { key: 'measured', name: 'Measured' },
          { key: 'word', name: 'Verdict' },
        ]
      : [{ key: 'how', name: 'How to take it', text: (l: Line) => l.how }]),
  ]);
  readonly lines = computed<Line[]>(() => {
    const e = this.evaluation();
    const check = this.check();
    const of = (d: 'down' | 'up') =>
      copyLine(e, d, check?.copy && (check.copy.direction ?? 'down') === d ? check.copy : null);
    return [...this.rows().map(lineOf), of('down'), of('up')];
  });
}
