import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { CauseId, TestId } from '@ruddy/core/base';
import { CAUTION_TEXTS } from '@ruddy/core/bring-up/text';
import { after, CAUSES, posterior, type Says, TESTS } from '@ruddy/core/troubleshoot';
import {
  bitWords,
  CAUSE_WORDS,
  cautionsOfTest,
  offerReason,
  suspicionPercent,
  TEST_WORDS,
} from '@ruddy/core/troubleshoot/text';
import { pluralize } from '../platform/shared/format';
import { TroubleStore } from './trouble-store';
import { Fold } from '../platform/kit/fold';

const SHOWN = 8;

/** The next test with its reason in numbers, the other safe ones, and what is too risky for a test. */
@Component({
  selector: 'rb-next-panel',
  imports: [Fold, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './next-panel.html',
  styleUrl: './next-panel.scss',
})
export class NextPanel {
  readonly store = inject(TroubleStore);
  /** The test that is looked at; the best one where none was chosen. */
  readonly chosen = input<TestId | null>(null);
  readonly choose = output<TestId | null>();
  readonly mend = output<CauseId>();
  readonly why = signal(false);
  readonly words = TEST_WORDS;
  readonly causes = CAUSE_WORDS;
  readonly cautions = CAUTION_TEXTS;
  readonly bits = bitWords;
  readonly counted = pluralize;

  readonly offers = computed(() => this.store.advice()?.offers ?? []);
  readonly offer = computed(
    () => this.offers().find((o) => o.test === this.chosen()) ?? this.offers()[0] ?? null,
  );
  readonly said = computed(() => {
    const o = this.offer();
    const net = this.store.net();
    return o && net ? cautionsOfTest(o.test, net.facts).map((c) => CAUTION_TEXTS[c]) : [];
  });
  readonly reason = computed(() => {
    const o = this.offer();
    return o ? offerReason(this.offers(), o) : '';
  });
  /** What both answers would make of the suspects. */
  readonly then = computed(() => {
    const o = this.offer();
    const net = this.store.net();
    const s = this.store.standing();
    if (!o || !net || !s) return null;
    const p = posterior(net, s.clues);
    const line = (yes: boolean) => {
      const a = after(net, p, o.test, yes);
      return `most suspect then: ${CAUSE_WORDS[a.cause].what}, ${suspicionPercent(a.p)}`;
    };
    return { yes: line(true), no: line(false), likely: suspicionPercent(o.yes) };
  });
  readonly others = computed(() => this.offers().filter((o) => o.test !== this.offer()?.test));
  readonly shown = computed(() => this.others().slice(0, SHOWN));
  readonly more = computed(() => this.others().length - this.shown().length);
  /** Suspects whose fix is too risky to be tried as a test. */
  readonly risky = computed(() =>
    (this.store.advice()?.suspects ?? [])
      .filter((s) => CAUSES[s.cause].fix.risk >= 2 && s.p >= 0.02)
      .map((s) => ({ ...s, what: CAUSE_WORDS[s.cause].what, percent: suspicionPercent(s.p) })),
  );

  minutes(test: TestId): string {
    return pluralize(TESTS[test].minutes, 'minute');
  }

  say(says: Says): void {
    const o = this.offer();
    if (!o) return;
    this.choose.emit(null);
    this.store.answer(o.test, says);
  }
}
