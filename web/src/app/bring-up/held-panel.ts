import { ChangeDetectionStrategy, Component, computed, inject } from '@angular/core';
import { listed, partNoun } from '@ruddy/core/base/text';
import { READ_MARKS } from '@ruddy/core/bring-up';
import {
  countsText,
  MARK_WORDS,
  REASON_TEXTS,
  SUPPORT_WORDS,
  windowText,
} from '@ruddy/core/bring-up/text';
import { describePath } from '@ruddy/core/chain';
import { type OpenQuestion, questionsOf } from '@ruddy/core/plan';
import { LinkReadings } from './link-readings';
import { SetupEditor } from '../setups/setup-editor';
import { AnswerCard } from '../plan/answer-card';
import { AnswerList } from '../plan/answer-list';
import { CheckTable } from './check-table';
import { Fold } from '../platform/kit/fold';

/** What was read, held against what this chain should show: the table, remarks, reasons likeliest first. */
@Component({
  selector: 'rb-held-panel',
  imports: [Fold, CheckTable, AnswerCard, AnswerList],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (evaluation(); as e) {
      <rb-check-table [evaluation]="e" [check]="readings.check()" />
    }
    @if (marks().length > 0) {
      <ul class="marks" [attr.aria-label]="'What was read: ' + readCount()">
        @for (m of marks(); track m.key) {
          <li [class.read]="m.read">
            <span aria-hidden="true">{{ m.read ? '●' : '○' }}</span> {{ m.name }}:
            {{ m.read ? 'read' : 'not read' }}
          </li>
        }
      </ul>
    }
    @if (doubts().length > 0) {
      <h3>Contradicts the plan {{ doubts().length }}</h3>
      @for (q of doubts(); track q.path) {
        <rb-answer-card [question]="q" />
      }
    }
    @if (remarks().length > 0) {
      <ul class="remarks">
        @for (r of remarks(); track r) {
          <li>{{ r }}</li>
        }
      </ul>
    }
    @if (reasons().length > 0) {
      <h3>Reasons, likeliest first {{ reasons().length }}</h3>
      <ol class="reasons">
        @for (r of reasons(); track r.id) {
          <li>
            <p class="what">{{ r.what }}</p>
            <p class="quiet">At {{ r.part }}; {{ r.support }}.</p>
            <p>{{ r.todo }}</p>
          </li>
        }
      </ol>
    }
    @if (verify().length > 0) {
      <rb-fold
        [inner]="true"
        name="Not known yet, and it widens what is expected: {{ verifyWords() }}"
      >
        <rb-answer-list [questions]="verify()" />
      </rb-fold>
    }
  `,
  styles: `
    :host {
      display: grid;
      grid-template-columns: minmax(0, 1fr);
      gap: 12px;
    }
    ol,
    ul {
      list-style-position: inside;
      display: grid;
      gap: 8px;
    }
    .reasons li {
      padding: 4px 8px;
      border-left: 4px solid var(--ochre);
    }
    .reasons .what {
      display: inline;
      font-size: 16px;
      line-height: 24px;
      font-weight: 600;
    }
    .marks {
      display: flex;
      flex-wrap: wrap;
      gap: 4px 16px;
      list-style: none;
      font-size: 14px;
    }
    .remarks li {
      list-style: none;
      padding: 4px 8px;
      border-left: 4px solid var(--stone);
    }
  `,
})
export class HeldPanel {
  readonly #editor = inject(SetupEditor);
  readonly readings = inject(LinkReadings);
  readonly evaluation = computed(() => this.#editor.judgement()?.evaluation ?? null);
  readonly reasons = computed(() => {
    const check = this.readings.check();
    const fine = check === null || check.overall === 'healthy' || check.overall === 'not-graded';
    if (fine) return [];
    return check.reasons.map((r) => ({
      ...REASON_TEXTS[r.id],
      id: r.id,
      part: partNoun(r.part),
      support: SUPPORT_WORDS[r.support],
    }));
  });
  /** Which of the marks of a whole check are there; none of a link that has no such thing. */
  readonly marks = computed(() => {
    const read = this.readings.check()?.read;
    return read
      ? READ_MARKS.flatMap((key) =>
          read[key] === null ? [] : [{ key, name: MARK_WORDS[key], read: read[key] }],
        )
      : [];
  });
  readonly readCount = computed(
    () => `${this.marks().filter((m) => m.read).length} of ${this.marks().length}`,
  );
  /** What a reading above the expected contradicts, to be mended at once. */
  readonly doubts = computed(() => {
    const check = this.readings.check();
    if (check?.overall !== 'above') return [];
    return check.doubts.flatMap((path): OpenQuestion[] => {
      const { part, meta } = describePath(path);
      return meta ? [{ path, part, meta, area: 'link', decides: true }] : [];
    });
  });
  readonly remarks = computed(() => {
    const c = this.readings.check();
    if (!c) return [];
    return [
      ...(c.notApproved
        ? [
            'The router is there but not approved, so no card appears. Approve it in the system, "always" rather than "once".',
          ]
        : []),
      ...(c.noDriver
        ? [
            'No driver holds the card. Rates may rest; install the driver the card and system ask for, then read again.',
          ]
        : []),
      ...(c.window && c.window.whole !== true ? [windowText(c.window)] : []),
      ...(c.counts ? [countsText(c.counts)] : []),
      ...(c.measured?.corrected.length
        ? [
            `Corrected errors are flagged: ${c.measured.corrected.join(', ')}. They come before a link falls a generation.`,
          ]
        : []),
    ];
  });
  /** Questions about the link that a reading does not settle. */
  readonly verify = computed(() => {
    const e = this.evaluation();
    const doubted = new Set(this.doubts().map((q) => q.path));
    return e
      ? questionsOf(e).filter((q) => (q.area === 'link' || q.area === null) && !doubted.has(q.path))
      : [];
  });
  readonly verifyWords = computed(() =>
    listed(this.verify().map((q) => `${q.meta.label} of the ${q.part}`)),
  );
}
