import { computed, inject, Injectable, type Signal, signal } from '@angular/core';
import { toObservable, toSignal } from '@angular/core/rxjs-interop';
import {
  catchError,
  distinctUntilChanged,
  EMPTY,
  map,
  of,
  startWith,
  switchMap,
  timer,
} from 'rxjs';
import type { ApiError } from '../platform/api/api-client';
import { Preview } from '../setups/preview';
import { applyPatch, type Fields } from '../setups/setup-patches';
import { SetupEditor } from '../setups/setup-editor';
import {
  type FramesQuestion,
  framesQuestion,
  type FramesToExpect,
  SetupsData,
} from '../setups/setups';

/** The link has no frames to tell before a card is chosen. */
const enough = ({ slots }: Fields) => slots.host !== null && slots.card !== null;
/** Edits come in bursts. */
const SETTLED_MS = 150;

/** Frames to expect of the setup that is open, and of what a change that is tried would make of it. */
@Injectable()
export class PlanFrames {
  readonly #editor = inject(SetupEditor);
  readonly #data = inject(SetupsData);
  readonly #trial = inject(Preview);
  readonly problem = signal<string | null>(null);
  readonly #own = this.#frames(this.#editor.fields);
  readonly #tried = this.#frames(
    computed(() => {
      const fields = this.#editor.fields();
      const trying = this.#trial.now();
      return fields && trying ? applyPatch(fields, trying.patch) : null;
    }),
  );
  /** Null until they are computed, and where too little is chosen. */
  readonly shown = computed(() => (this.#trial.now() ? this.#tried() : this.#own()));
  /** What they are, while a change is tried. */
  readonly before = computed(() => (this.#trial.now() ? this.#own() : null));
  readonly waiting = computed(() => {
    const fields = this.#editor.fields();
    return fields !== null && enough(fields) && this.shown() === null && this.problem() === null;
  });

  #frames(fields: Signal<Fields | null>): Signal<FramesToExpect | null> {
    const questions = toObservable(fields).pipe(
      map((f) => (f && enough(f) ? framesQuestion(f) : null)),
      distinctUntilChanged((a, b) => JSON.stringify(a) === JSON.stringify(b)),
    );
    // Frames of another chain never stand beside this one while its own are computed.
    const asked = questions.pipe(
      switchMap((q) =>
        q
          ? timer(SETTLED_MS).pipe(
              switchMap(() => this.#ask(q)),
              startWith(null),
            )
          : of(null),
      ),
    );
    return toSignal(asked, { initialValue: null });
  }

  #ask(question: FramesQuestion) {
    this.problem.set(null);
    return this.#data.forecasts(question).pipe(
      catchError((e: ApiError) => {
        this.problem.set(`Frames could not be computed: ${e.message}`);
        return EMPTY;
      }),
    );
  }
}
