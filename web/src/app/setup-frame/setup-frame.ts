import {
  ChangeDetectionStrategy,
  Component,
  computed,
  DestroyRef,
  effect,
  ElementRef,
  HostListener,
  inject,
  input,
  signal,
  untracked,
  viewChild,
} from '@angular/core';
import { LiveAnnouncer } from '@angular/cdk/a11y';
import { MatButtonModule } from '@angular/material/button';
import { MatIconModule } from '@angular/material/icon';
import { MatMenuModule } from '@angular/material/menu';
import { MatTooltipModule } from '@angular/material/tooltip';
import {
  ActivatedRoute,
  NavigationEnd,
  Router,
  RouterLink,
  RouterLinkActive,
  RouterOutlet,
} from '@angular/router';
import { takeUntilDestroyed, toObservable, toSignal } from '@angular/core/rxjs-interop';
import { filter, first, map, startWith } from 'rxjs';
import { SETUP_STATES } from '@ruddy/core/setups';
import type { SetupState } from '@ruddy/core/setups/contract';
import { BridgeStrip, type StripTarget } from '../chain/strip/bridge-strip';
import { stripModel, type StripModel } from '../chain/strip/strip-model';
import { withPosterior } from '../chain/strip/strip-suspicion';
import { withOverhead } from '../chain/strip/strip-overhead';
import { bottleneckMoved } from '../chain/strip/strip-text';
import { OfflineQueue } from '../platform/queue/offline-queue';
import { BringUpRun } from '../bring-up/bring-up-run';
import { LinkReadings } from '../bring-up/link-readings';
import { Acts } from '../platform/kit/ask';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { SetupActs, STATE_NAMES } from '../plan/setup-acts';
import { PlanCost } from '../plan/plan-cost';
import { RunOverhead } from '../chain/run-overhead';
import { Posterior } from '../chain/suspicion';
import { SetupEditor } from '../setups/setup-editor';
import { FIELD_LABELS, fieldOf, type FieldPath } from '../setups/setup-patches';
import { ComparisonList } from '../setups/comparison-list';
import { Preview } from '../setups/preview';
import { Keys } from '../platform/shell/keys';
import { clock, day } from '../platform/shared/format';
import { ServerClock } from '../platform/shared/server-clock';
import { VerdictChip } from '../chain/verdict/verdict-chip';

const STRIP = 'ruddy.strip';

/** What every page about one setup shares: its name and state, what is stored, the strip, the tabs. */
@Component({
  imports: [
    RouterOutlet,
    RouterLink,
    RouterLinkActive,
    MatButtonModule,
    MatIconModule,
    MatMenuModule,
    MatTooltipModule,
    BridgeStrip,
    Field,
    VerdictChip,
  ],
  providers: [
    SetupEditor,
    LinkReadings,
    OfflineQueue,
    BringUpRun,
    Preview,
    PlanCost,
    RunOverhead,
    Posterior,
  ],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './setup-frame.html',
  styleUrl: './setup-frame.scss',
})
export class SetupFrame {
  readonly #router = inject(Router);
  readonly #route = inject(ActivatedRoute);
  readonly #clock = inject(ServerClock);
  readonly editor = inject(SetupEditor);
  readonly trial = inject(Preview);
  readonly #readings = inject(LinkReadings);
  readonly #overhead = inject(RunOverhead);
  readonly #suspicion = inject(Posterior);
  readonly run = inject(BringUpRun);
  readonly comparisonList = inject(ComparisonList);
  readonly #acts = inject(Acts);
  readonly #setups = inject(SetupActs);
  readonly #destroyed = inject(DestroyRef);
  readonly #saves = toObservable(this.editor.save);
  readonly id = input.required<string>();

  /** An address that is none, or none any more. */
  readonly lost = (status: number) => status === 404 || status === 400 || status === 422;
  readonly labels = FIELD_LABELS;
  readonly chosenStrip = signal<'full' | 'slim' | null>(
    localStorage.getItem(STRIP) as 'full' | 'slim' | null,
  );
  readonly scrolledPast = signal(false);
  readonly box = viewChild<ElementRef<HTMLElement>>('box');
  readonly nameMeta: FieldMeta = {
    label: 'Setup name',
    input: 'text',
    max: 80,
    check: (name) => (String(name ?? '').trim() === '' ? 'Enter a name' : null),
  };
  readonly stateMeta: FieldMeta = {
    label: 'State',
    input: 'choice',
    options: SETUP_STATES.map((s) => ({ value: s, label: STATE_NAMES[s] })),
  };
  readonly url = toSignal(
    this.#router.events.pipe(
      filter((e) => e instanceof NavigationEnd),
      map((e) => e.urlAfterRedirects),
      startWith(this.#router.url),
    ),
    { initialValue: this.#router.url },
  );
  /** Full on Plan, Troubleshoot and at the link check, slim on ordinary steps, Runs, Record and the sheet, unless the person chose. */
  readonly slim = computed(() => {
    const small =
      /\/(runs|record|sheet)/.test(this.url()) ||
      (this.url().includes('/bring-up') && !this.run.atLink());
    return (this.chosenStrip() ?? (small ? 'slim' : 'full')) === 'slim';
  });
  /** "Bring-up 9/17" while an attempt is going on. */
  readonly steps = computed(() => {
    const p = this.run.progress();
    return this.run.attempt() ? ` ${p.done + p.skipped}/${p.n}` : '';
  });
  readonly model = computed(() => {
    const j = this.trial.shown();
    const f = this.editor.fields();
    if (!j || !f) return null;
    const model = stripModel(
      f.name,
      j.chain,
      j.evaluation,
      this.url().includes('/bring-up') ? this.#readings.check() : undefined,
    );
    const overhead = this.url().includes('/runs') ? this.#overhead.shown() : null;
    const suspicion = this.url().includes('/troubleshoot') ? this.#suspicion.shown() : null;
    if (suspicion) return withPosterior(model, suspicion);
    return overhead ? withOverhead(model, overhead) : model;
  });
  readonly saveWords = computed(() => {
    const s = this.editor.save();
    switch (s.kind) {
      case 'saved':
        return `saved ${this.#clock.isToday(s.at) ? clock(s.at) : day(s.at)}`;
      case 'unsaved':
        return 'not saved yet';
      case 'saving':
        return 'saving …';
      case 'failed':
        return `not saved: ${s.why}`;
      case 'conflict':
        return 'changed elsewhere';
    }
  });
  readonly clash = computed(() => {
    const s = this.editor.save();
    const mine = this.editor.fields();
    return s.kind === 'conflict' && mine
      ? s.fields.map((path) => ({
          path,
          mine: this.#shown(fieldOf(mine, path)),
          theirs: this.#shown(fieldOf(s.theirs, path)),
        }))
      : [];
  });
  readonly picks = signal<Partial<Record<FieldPath, 'mine' | 'theirs'>>>({});

  constructor() {
    effect(() => {
      const id = this.id();
      untracked(() => this.editor.open(id));
    });
    effect((onCleanup) => {
      const el = this.box()?.nativeElement;
      if (!el || typeof IntersectionObserver === 'undefined') return;
      const watch = new IntersectionObserver(([seen]) => {
        const past =
          seen !== undefined && !seen.isIntersecting && seen.boundingClientRect.bottom < 0;
        this.scrolledPast.set(past);
        // What gets the focus is scrolled clear of the strip that follows.
        document.documentElement.style.scrollPaddingTop = past ? '72px' : '';
      });
      watch.observe(el);
      onCleanup(() => {
        watch.disconnect();
        document.documentElement.style.scrollPaddingTop = '';
      });
    });
    const announcer = inject(LiveAnnouncer);
    let said: StripModel | null = null;
    effect(() => {
      const now = this.model();
      const words = said && now && this.editor.canUndo() ? bottleneckMoved(said, now) : null;
      if (words) void announcer.announce(words, 'polite');
      said = now ?? said;
    });
    inject(Keys).bind([
      { key: '\\', what: 'Diagram full or compact', run: () => this.switchStrip() },
      { key: 'x', what: 'Add this setup to the comparison, or remove it', run: () => this.aside() },
      { key: 'Ctrl+Z', what: 'Undo', run: () => this.editor.undo() },
      { key: 'Ctrl+Shift+Z', what: 'Redo', run: () => this.editor.redo() },
    ]);
  }

  @HostListener('window:beforeunload')
  leaving(): void {
    this.editor.flush();
  }

  rename(name: string): void {
    this.editor.change({ name: name.trim() });
  }

  setState(state: SetupState): void {
    this.editor.change({ state });
  }

  /** Undo gives it the state it had. */
  archive(): void {
    const f = this.editor.fields();
    if (!f) return;
    this.editor.change({ state: 'retired' });
    this.#acts.say(`Archived ${f.name}.`, () => this.editor.change({ state: f.state }));
  }

  /** Adds the setup to the comparison, or removes it. */
  aside(): void {
    const name = this.editor.fields()?.name;
    if (name === undefined) return;
    this.comparisonList.toggle({ id: this.id(), name });
    const there = this.comparisonList.has(this.id());
    this.#acts.say(there ? `Added ${name} to the comparison.` : `Removed ${name} from it.`);
  }

  share(): void {
    this.editor.flush();
    this.#setups.share({ id: this.id(), name: this.editor.fields()?.name ?? '' });
  }

  switchStrip(): void {
    const next = this.slim() ? 'full' : 'slim';
    this.chosenStrip.set(next);
    localStorage.setItem(STRIP, next);
  }

  clone(): void {
    const f = this.editor.fields();
    const id = this.id();
    if (!f) return;
    this.editor.flush();
    // The server clones what it has stored: an edit on its way there belongs to the clone, too.
    this.#saves
      .pipe(
        first((s) => s.kind !== 'unsaved' && s.kind !== 'saving'),
        takeUntilDestroyed(this.#destroyed),
      )
      .subscribe(() => this.#setups.clone({ id, name: f.name }));
  }

  /** A part or hop of the strip was opened: the Plan page shows it. */
  open(target: StripTarget): void {
    const queryParams =
      target.kind === 'pier' ? { part: target.key, open: null } : { open: 'link', part: null };
    void this.#router.navigate(['plan'], {
      relativeTo: this.#route,
      queryParams,
      queryParamsHandling: 'merge',
    });
  }

  clashMeta(c: { path: FieldPath; mine: string; theirs: string }): FieldMeta {
    const options = [
      { value: 'mine', label: `Mine: ${c.mine}` },
      { value: 'theirs', label: `Stored: ${c.theirs}` },
    ];
    return { label: this.labels[c.path], input: 'toggle', options };
  }

  pick(path: FieldPath, whose: 'mine' | 'theirs'): void {
    this.picks.update((p) => ({ ...p, [path]: whose }));
  }

  settle(): void {
    const picks = this.picks();
    this.editor.settle((p) => picks[p] ?? 'mine');
    this.picks.set({});
  }

  retry(): void {
    this.editor.flush();
  }

  #shown(value: unknown): string {
    if (value === null || value === '') return 'nothing';
    if (typeof value === 'object' && !Array.isArray(value)) return 'other values';
    return typeof value === 'string' && !/^[0-9a-f-]{36}$/.test(value) ? value : 'another part';
  }
}
