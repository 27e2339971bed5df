import {
  computed,
  DestroyRef,
  inject,
  Injectable,
  signal,
  type WritableSignal,
} from '@angular/core';
import { takeUntilDestroyed } from '@angular/core/rxjs-interop';
import { catchError, debounceTime, EMPTY, of, Subject, switchMap, tap } from 'rxjs';
import { v7 } from 'uuid';
import { EVALUATED_FIELDS, NO_SLOTS, setupFields } from '@ruddy/core/setups';
import type { Setup, SetupPatch } from '@ruddy/core/setups/contract';
import { ApiError } from '../platform/api/api-client';
import {
  applyPatch,
  conflicts,
  fieldsOf,
  isEmpty,
  mergeFields,
  patchBetween,
  type FieldPath,
  type Fields,
} from './setup-patches';
import { SetupsData, type Chosen, type Judgement } from './setups';

export type SaveState =
  | { kind: 'saved'; at: string }
  | { kind: 'unsaved' }
  | { kind: 'saving' }
  | { kind: 'failed'; why: string }
  | { kind: 'conflict'; theirs: Setup; fields: FieldPath[] };

const SAVE_AFTER_MS = 800;
const key = (id: string) => `ruddy.unsent.${id}`;

interface Unsent {
  base: Setup;
  fields: Fields;
}

/** The edits of a setup that could not be sent, or null. */
function unsent(id: string): Unsent | null {
  const kept = localStorage.getItem(key(id));
  if (!kept) return null;
  const { base, fields } = JSON.parse(kept) as Unsent;
  // Kept by an older page, it lacks what came since: the empty values stand in.
  return {
    base: { ...base, ...setupFields(base), slots: { ...NO_SLOTS, ...base.slots } },
    fields: { ...fields, ...setupFields(fields), slots: { ...NO_SLOTS, ...fields.slots } },
  };
}

/**
 * One setup being edited: what is stored, what the person has now, and its judgement. Saves 800 ms
 * after the last change and on leaving; edits that were not sent wait in local storage.
 */
@Injectable()
export class SetupEditor {
  readonly #data = inject(SetupsData);
  readonly #session = v7();
  #lastChange = '';
  readonly #changed = new Subject<void>();
  readonly #opening = new Subject<string>();
  readonly #judge = new Subject<Chosen>();
  readonly #undo = signal<Fields[]>([]);
  readonly #redo = signal<Fields[]>([]);

  readonly stored = signal<Setup | null>(null);
  readonly fields = signal<Fields | null>(null);
  readonly judgement = signal<Judgement | null>(null);
  readonly judging = signal<string | null>(null);
  readonly save = signal<SaveState>({ kind: 'unsaved' });
  readonly loadProblem = signal<ApiError | null>(null);
  readonly canUndo = computed(() => this.#undo().length > 0);
  readonly canRedo = computed(() => this.#redo().length > 0);

  constructor() {
    this.#opening
      .pipe(
        // Only the setup opened last is shown, whichever answers first.
        switchMap((id) =>
          this.#data.one(id).pipe(
            catchError((e: ApiError) => {
              this.loadProblem.set(e);
              return EMPTY;
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe((s) => this.#opened(s));
    this.#changed
      .pipe(debounceTime(SAVE_AFTER_MS), takeUntilDestroyed())
      .subscribe(() => this.flush());
    this.#judge
      .pipe(
        switchMap((f) =>
          this.#data.judge(f).pipe(
            tap((j) => {
              this.judgement.set(j);
              this.judging.set(null);
            }),
            catchError((e: ApiError) => {
              this.judging.set(e.message);
              return of(null);
            }),
          ),
        ),
        takeUntilDestroyed(),
      )
      .subscribe();
    inject(DestroyRef).onDestroy(() => this.flush());
  }

  open(id: string): void {
    this.flush();
    this.stored.set(null);
    this.fields.set(null);
    this.judgement.set(null);
    this.loadProblem.set(null);
    this.#undo.set([]);
    this.#redo.set([]);
    this.save.set({ kind: 'unsaved' });
    this.#opening.next(id);
  }

  /** Look again, for example after an outcome was logged. */
  refresh(): void {
    const f = this.fields();
    if (f) this.#judge.next(f);
  }

  /** Take over what a fact changed on the server. Edits that are not saved yet stay, on the newer revision. */
  adopt(theirs: Setup): void {
    const base = this.stored();
    const mine = this.fields();
    if (
      !base ||
      !mine ||
      base.id !== theirs.id ||
      theirs.rev <= base.rev ||
      this.save().kind === 'conflict'
    )
      return;
    const onto = (f: Fields) => mergeFields(base, f, theirs, () => 'mine');
    const merged = onto(mine);
    // Undoing an edit must not take back what the fact changed.
    this.#undo.update((list) => list.map(onto));
    this.#redo.update((list) => list.map(onto));
    this.stored.set(theirs);
    this.#become(merged);
    if (isEmpty(patchBetween(theirs, merged)) && this.save().kind !== 'saving') this.#saved(theirs);
  }

  change(patch: SetupPatch): void {
    const now = this.fields();
    if (!now) return;
    const next = applyPatch(now, patch);
    if (isEmpty(patchBetween(now, next))) return;
    // Letters typed into the notes one after another are undone together.
    const kind = Object.keys(patch).join();
    const typed = kind === 'notes' || kind === 'present';
    if (!typed || this.#lastChange !== kind) this.#undo.update((u) => [...u.slice(-49), now]);
    this.#lastChange = kind;
    this.#redo.set([]);
    this.#become(next);
  }

  undo(): void {
    this.#step(this.#undo, this.#redo);
  }

  redo(): void {
    this.#step(this.#redo, this.#undo);
  }

  /** Send what is not stored yet, now. */
  flush(): void {
    const stored = this.stored();
    const now = this.fields();
    const state = this.save();
    if (!stored || !now || state.kind === 'saving' || state.kind === 'conflict') return;
    const patch = patchBetween(stored, now);
    if (isEmpty(patch)) {
      if (state.kind !== 'saved') this.#saved(stored);
      return;
    }
    this.save.set({ kind: 'saving' });
    this.#data
      .patch(stored.id, { ...patch, session: this.#session }, stored.rev)
      .pipe(
        catchError((e: ApiError) => {
          this.#refused(stored.id, e);
          return EMPTY;
        }),
      )
      .subscribe((s) => this.#stored(s));
  }

  /** Settle a conflict: whose value stands, field by field. Makes a new revision. */
  settle(pick: (p: FieldPath) => 'mine' | 'theirs'): void {
    const base = this.stored();
    const mine = this.fields();
    const state = this.save();
    if (!base || !mine || state.kind !== 'conflict') return;
    const onto = (f: Fields) => mergeFields(base, f, state.theirs, pick);
    const merged = onto(mine);
    // What was stored meanwhile by somebody else is no step of this person's: undoing an edit must not take it back.
    this.#undo.update((list) => list.map(onto));
    this.#redo.update((list) => list.map(onto));
    this.stored.set(state.theirs);
    this.save.set({ kind: 'unsaved' });
    this.#become(merged);
    this.flush();
  }

  #opened(s: Setup): void {
    const waiting = unsent(s.id);
    this.stored.set(s);
    this.#saved(s);
    if (waiting && !isEmpty(patchBetween(waiting.base, waiting.fields))) {
      // Edited here before, stored elsewhere since: the older base makes the conflict visible.
      this.stored.set(waiting.base);
      this.#become(waiting.fields);
      this.flush();
      return;
    }
    this.fields.set(fieldsOf(s));
    this.#judge.next(s);
  }

  #become(next: Fields): void {
    const chain = (f: Fields | null) =>
      JSON.stringify([f?.slots, ...EVALUATED_FIELDS.map((name) => f?.[name])]);
    const chainChanged = chain(this.fields()) !== chain(next);
    this.fields.set(fieldsOf(next));
    this.#keep();
    if (this.save().kind !== 'saving' && this.save().kind !== 'conflict')
      this.save.set({ kind: 'unsaved' });
    if (chainChanged) this.#judge.next(next);
    this.#changed.next();
  }

  #step(from: WritableSignal<Fields[]>, to: WritableSignal<Fields[]>): void {
    const list = from();
    const target = list[list.length - 1];
    const now = this.fields();
    if (!target || !now) return;
    from.set(list.slice(0, -1));
    to.update((l) => [...l, now]);
    this.#become(target);
  }

  /** What is not sent yet waits in local storage, with what it was edited from. */
  #keep(): void {
    const stored = this.stored();
    if (stored)
      localStorage.setItem(key(stored.id), JSON.stringify({ base: stored, fields: this.fields() }));
  }

  #saved(s: Setup): void {
    localStorage.removeItem(key(s.id));
    this.save.set({ kind: 'saved', at: s.savedAt });
  }

  #stored(s: Setup): void {
    if (this.stored()?.id !== s.id) {
      this.#storedElsewhere(s);
      return;
    }
    this.stored.set(s);
    const now = this.fields();
    if (now && isEmpty(patchBetween(s, now))) this.#saved(s);
    else {
      this.save.set({ kind: 'unsaved' });
      this.#keep();
      this.#changed.next();
    }
  }

  /** The answer for a setup that is no longer open: only what waits for it is looked at. */
  #storedElsewhere(s: Setup): void {
    const waiting = unsent(s.id);
    if (!waiting) return;
    if (isEmpty(patchBetween(s, waiting.fields))) localStorage.removeItem(key(s.id));
    else localStorage.setItem(key(s.id), JSON.stringify({ base: s, fields: waiting.fields }));
  }

  #refused(id: string, e: ApiError): void {
    // Refused after another setup was opened: the edit waits in local storage for its own.
    if (this.stored()?.id !== id) return;
    const base = this.stored();
    const mine = this.fields();
    const theirs =
      e.code === 'stale-revision' ? (e.problem.current as Setup | undefined) : undefined;
    if (!theirs || !base || !mine) {
      this.save.set({ kind: 'failed', why: e.message });
      return;
    }
    const fields = conflicts(base, mine, theirs);
    this.save.set({ kind: 'conflict', theirs, fields });
    // Nothing clashes: both sides' changes stand together without asking.
    if (fields.length === 0) this.settle(() => 'mine');
  }
}
