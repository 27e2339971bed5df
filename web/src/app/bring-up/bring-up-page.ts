import { ChangeDetectionStrategy, Component, computed, effect, inject, input, viewChild } from '@angular/core';
import type { ReadingEntry } from '@ruddy/core/api';
import { describePath } from '@ruddy/core/schema';
import { linkCheckHeadline, REASON_TEXTS, SUPPORT_WORDS } from '@ruddy/core/texts';
import { LinkReadings } from '../data/link-readings';
import { SetupEditor } from '../data/setup-editor';
import { clock, day, orEmpty } from '../shared/format';
import { Keys } from '../shell/keys';
import { CheckTable } from './check-table';
import { ReadingFields } from './reading-fields';

const PARTS: Record<string, string> = {
  host: 'the host',
  socket: 'the host port',
  path: 'the cable',
  dock: 'the dock',
  card: 'the card',
  loads: 'what hangs on the dock',
};

/** The link check: what came up held against what this chain should show. The steps of bring-up come round it later. */
@Component({
  imports: [ReadingFields, CheckTable],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bring-up-page.html',
  styleUrl: './bring-up-page.scss',
})
export class BringUpPage {
  readonly editor = inject(SetupEditor);
  readonly readings = inject(LinkReadings);
  /** `1` when Plan sent a person here to paste. */
  readonly paste = input('', { transform: orEmpty });
  readonly fields = viewChild(ReadingFields);

  readonly evaluation = computed(() => this.editor.judgement()?.evaluation ?? null);
  readonly sentence = computed(() => {
    const e = this.evaluation();
    return e ? linkCheckHeadline(this.readings.check(), e) : 'Judging the chain …';
  });
  readonly isDraft = computed(() => this.readings.draft() !== null);
  readonly reasons = computed(() => {
    const check = this.readings.check();
    const fine = check === null || check.overall === 'healthy' || check.overall === 'not-graded';
    if (fine) return [];
    return check.reasons.map((r) => ({
      ...REASON_TEXTS[r.id],
      id: r.id,
      part: PARTS[r.part] ?? r.part,
      support: SUPPORT_WORDS[r.support],
    }));
  });
  readonly remarks = computed(() => {
    const c = this.readings.check();
    if (!c) return [];
    return [
      ...(c.notApproved
        ? ['The router is there but not approved, so no card appears. Approve it in the system, "always" rather than "once".']
        : []),
      ...(c.noDriver
        ? ['No driver holds the card. Rates may rest; install the driver the card and system ask for, then read again.']
        : []),
      ...(c.measured?.window && c.measured.window.nowMB < c.measured.window.mostMB
        ? [
            `The card's memory window is ${c.measured.window.nowMB} MB of ${c.measured.window.mostMB} MB: fine for the link, some titles gain from the whole.`,
          ]
        : []),
      ...(c.measured?.corrected.length
        ? [`Corrected errors are flagged: ${c.measured.corrected.join(', ')}. They come before a link falls a generation.`]
        : []),
    ];
  });
  readonly verify = computed(() =>
    (this.evaluation()?.toVerify ?? []).flatMap(({ path }) => {
      const { part, meta } = describePath(path);
      return meta ? [`${meta.label} of the ${part}`] : [];
    }),
  );

  constructor() {
    inject(Keys).bind([
      // Ten keys, one line in the list of keys.
      ...[...'0123456789'].map((d) => ({
        key: d,
        what: d === '0' ? 'A digit goes into the copy rate' : '',
        run: () => this.fields()?.digit(d),
      })),
      { key: 'p', what: 'Paste a report', run: () => this.fields()?.box().focus() },
    ]);
    effect(() => {
      const [paste, fields] = [this.paste(), this.fields()];
      if (paste === '1' && fields) queueMicrotask(() => fields.box().focus());
    });
  }

  when(e: ReadingEntry): string {
    return `${day(e.happenedAt.slice(0, 10))}, ${clock(e.happenedAt)}`;
  }
}
