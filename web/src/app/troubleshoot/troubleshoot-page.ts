import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router } from '@angular/router';
import {
  CAUSE_IDS,
  type CauseId,
  SYMPTOM_IDS,
  type SymptomId,
  type TestId,
} from '@ruddy/core/base';
import { CAUSES, type FixResult, PICTURE_FIRST, type TroubleNote } from '@ruddy/core/troubleshoot';
import { noteWords, searchHeadline, SYMPTOM_WORDS } from '@ruddy/core/troubleshoot/text';
import { SetupEditor } from '../setups/setup-editor';
import { pluralize, day } from '../platform/shared/format';
import { Keys } from '../platform/shell/keys';
import { CausePanel } from './cause-panel';
import { CloseForm } from './close-form';
import { FixPanel } from './fix-panel';
import { NextPanel } from './next-panel';
import { PictureFirst } from './picture-first';
import { SeenPanel } from './seen-panel';
import { SuspectsPanel } from './suspects-panel';
import { SymptomList } from './symptom-list';
import { TroubleStore } from './trouble-store';
import { Fold } from '../platform/kit/fold';

const PICTURE = 'ruddy.picture';
type View =
  | { kind: 'next' }
  | { kind: 'fix'; cause: CauseId }
  | { kind: 'cause'; cause: CauseId }
  | { kind: 'close'; cause: CauseId | null };

/** What to try next: what is seen, the cheapest safe test and why, who is suspected how much, and the fix with its caution. */
@Component({
  imports: [
    Fold,
    MatButtonModule,
    SymptomList,
    SeenPanel,
    NextPanel,
    SuspectsPanel,
    CausePanel,
    FixPanel,
    CloseForm,
    PictureFirst,
  ],
  providers: [TroubleStore],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './troubleshoot-page.html',
  styleUrl: './troubleshoot-page.scss',
})
export class TroubleshootPage {
  readonly counted = pluralize;
  readonly store = inject(TroubleStore);
  readonly editor = inject(SetupEditor);
  readonly #router = inject(Router);
  /** What a failed step or an alarm saw: symptoms separated by commas, and where it comes from. */
  readonly see = input<string>();
  readonly from = input<string>();
  /** A cause that is opened. */
  readonly cause = input<string>();

  readonly draft = signal<readonly SymptomId[]>([]);
  readonly chosen = signal<TestId | null>(null);
  readonly view = signal<View>({ kind: 'next' });
  readonly #pictured = signal<readonly string[]>(
    JSON.parse(sessionStorage.getItem(PICTURE) ?? '[]') as string[],
  );
  readonly symptomWords = SYMPTOM_WORDS;
  readonly causeCount = computed(() => this.store.net()?.causes.length ?? CAUSE_IDS.length);

  readonly seen = computed(() => this.store.standing()?.clues.symptoms ?? this.draft());
  /** A black screen or a host that stands still: a picture comes before any diagnosis. */
  readonly pictureFirst = computed(() => {
    const t = this.store.current();
    return (
      t !== null &&
      this.seen().some((s) => PICTURE_FIRST.includes(s)) &&
      !this.#pictured().includes(t.id)
    );
  });
  readonly headline = computed(() => {
    const t = this.store.current();
    const a = this.store.advice();
    if (this.store.troubles() === null) return 'Reading the searches of this setup …';
    if (!t) {
      const n = this.draft().length;
      return n === 0
        ? `What do you see? 0 of ${SYMPTOM_IDS.length} chosen; ${this.causeCount()} causes can be on this chain.`
        : `${pluralize(n, 'thing')} seen: look for the cause among ${this.causeCount()} that this chain can have.`;
    }
    if (this.pictureFirst()) return 'First get a picture back, in 4 steps; the cause comes after.';
    return a ? searchHeadline(a, CAUSES[a.top.cause].fix.minutes) : 'Judging the chain …';
  });
  readonly past = computed(() =>
    this.store.past().map((t) => {
      const last = t.notes[t.notes.length - 1]?.note as TroubleNote | undefined;
      const first = t.notes[0]?.note as TroubleNote | undefined;
      return {
        id: t.id,
        head: `${day(t.at)}: ${last ? noteWords(last) : ''}`,
        lines: [first, ...t.notes.slice(1).map((n) => n.note as TroubleNote)].flatMap((n) =>
          n ? [noteWords(n)] : [],
        ),
      };
    }),
  );
  readonly waiting = computed(
    () => this.store.outbox.waiting().filter((w) => w.path.startsWith('troubles')).length,
  );
  readonly minutes = computed(() => this.store.standing()?.minutesSpent ?? 0);
  readonly fixing = computed(() => {
    const v = this.view();
    if (v.kind !== 'next') return v;
    const a = this.store.advice();
    // Likely enough to fix: the fix stands there without being asked for, unless a test was chosen.
    return a?.now === 'fix' && this.chosen() === null && !this.#tests()
      ? ({ kind: 'fix', cause: a.top.cause } as const)
      : v;
  });
  /** The person wants tests although a fix is offered. */
  readonly #tests = signal(false);

  constructor() {
    effect(() => {
      const troubles = this.store.troubles();
      const net = this.store.net();
      const see = this.see();
      if (troubles === null || !net || !see) return;
      untracked(() => this.#arrive(see));
    });
    effect(() => {
      const c = CAUSE_IDS.find((x) => x === this.cause());
      untracked(() => {
        if (c) this.view.set({ kind: 'cause', cause: c });
        else if (this.view().kind === 'cause') this.view.set({ kind: 'next' });
      });
    });
    effect(() => this.store.quiet.set(this.pictureFirst()));
    // Something new was noted: what is offered by itself may be offered again.
    effect(() => {
      void this.store.current()?.notes.length;
      untracked(() => this.#tests.set(false));
    });
    const top = () => this.store.advice()?.offers[0]?.test ?? null;
    const say = (says: 'yes' | 'no' | 'cannot') => {
      const test = this.chosen() ?? top();
      if (test && this.fixing().kind === 'next' && !this.pictureFirst()) {
        this.chosen.set(null);
        this.store.answer(test, says);
      }
    };
    inject(Keys).bind([
      { key: 'y', what: 'Saw it: the first answer of the test', run: () => say('yes') },
      { key: 'n', what: "Didn't: the second answer of the test", run: () => say('no') },
      { key: 'c', what: "Can't do this test", run: () => say('cannot') },
      { key: 's', what: 'To what you see', run: () => document.getElementById('seen-h')?.focus() },
      {
        key: 'w',
        what: 'Why: open the likeliest cause',
        run: () => this.openCause(this.store.advice()?.top.cause ?? null),
      },
      {
        key: 'f',
        what: 'The fix of the likeliest cause',
        run: () => this.mend(this.store.advice()?.top.cause ?? null),
      },
    ]);
  }

  /** From a failed step, an alarm or a symptom: what is known is filled in, and a search begins where none is open. */
  #arrive(see: string): void {
    const symptoms = see.split(',').flatMap((s) => SYMPTOM_IDS.filter((x) => x === s));
    const [kind, what] = (this.from() ?? '').split(':');
    const known = (['step', 'alarm'] as const).find((k) => k === kind) ?? 'symptom';
    const now = this.store.current();
    if (!now) this.store.open(symptoms, { kind: known, what: what ?? '' });
    else {
      const all = [...new Set([...this.seen(), ...symptoms])];
      if (all.length > this.seen().length) this.store.see(all);
    }
    void this.#router.navigate([], {
      queryParams: { see: null, from: null },
      queryParamsHandling: 'merge',
      replaceUrl: true,
    });
  }

  begin(): void {
    this.store.open(this.draft());
    this.draft.set([]);
    this.show({ kind: 'next' });
    // The list was long: what comes now stands at the top.
    scrollTo({ top: 0 });
  }

  picture(back: boolean): void {
    const t = this.store.current();
    if (!t) return;
    if (!back && !this.seen().includes('host-dead')) this.store.see([...this.seen(), 'host-dead']);
    this.#pictured.update((l) => [...l, t.id]);
    sessionStorage.setItem(PICTURE, JSON.stringify(this.#pictured()));
  }

  openCause(cause: CauseId | null): void {
    if (cause === null) return;
    this.view.set({ kind: 'cause', cause });
    void this.#router.navigate([], { queryParams: { cause }, queryParamsHandling: 'merge' });
  }

  mend(cause: CauseId | null): void {
    if (cause === null || cause === 'none-of-these') return;
    this.show({ kind: 'fix', cause });
  }

  /** Back to the tests, also where a fix is offered by itself. */
  tests(): void {
    this.#tests.set(true);
    this.show({ kind: 'next' });
  }

  choose(test: TestId | null): void {
    this.chosen.set(test);
  }

  fixed(cause: CauseId, result: FixResult): void {
    this.#tests.set(false);
    this.show(
      result === 'solved'
        ? { kind: 'close', cause }
        : result === 'stopped'
          ? { kind: 'close', cause: null }
          : { kind: 'next' },
    );
  }

  show(view: View): void {
    this.view.set(view);
    if (this.cause())
      void this.#router.navigate([], {
        queryParams: { cause: null },
        queryParamsHandling: 'merge',
      });
  }

  closed(): void {
    this.#tests.set(false);
    this.show({ kind: 'next' });
  }
}
