import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  Injectable,
  input,
  signal,
  type ResourceRef,
  type WritableSignal,
} from '@angular/core';
import { rxResource } from '@angular/core/rxjs-interop';
import type { FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import { MatSnackBar } from '@angular/material/snack-bar';
import { finalize, type Observable, type Subscription } from 'rxjs';
import { ApiError } from '../api/api-client';
import { refused } from './problems';

/**
 * A reading from the server, repeated whenever what it depends on changes. The newest question wins; `reload()` asks again.
 *
 * @param load the call
 * @param by what the call depends on; undefined asks nothing
 * @example readonly rows = ask((q) => this.parts.list(q), () => this.filter())
 */
export function ask<T, P = true>(
  load: (by: P) => Observable<T>,
  by: () => P | undefined = () => true as P,
): ResourceRef<T | undefined> {
  return rxResource({ params: by, stream: ({ params }) => load(params as P) });
}

/** Value of a reading; undefined while it has none. `value()` of a failed resource throws, this does not. */
export function valueOf<T>(resource: ResourceRef<T | undefined>): T | undefined {
  return resource.hasValue() ? resource.value() : undefined;
}

/** State of a reading: a progress bar, or the server's reason with "Try again". */
@Component({
  selector: 'rb-state',
  imports: [MatProgressBarModule, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (of().isLoading()) {
      <mat-progress-bar mode="indeterminate" [attr.aria-label]="'Loading ' + what()" />
    }
    @if (why(); as text) {
      <div class="problem" role="alert">
        {{ text }}
        <button mat-button type="button" (click)="of().reload()">Try again</button>
      </div>
    }
  `,
})
export class State {
  readonly of = input.required<ResourceRef<unknown>>();
  /** What is read, as in "Loading the log". */
  readonly what = input.required<string>();
  readonly why = computed(() => this.of().error()?.message ?? null);
}

/** Where a page says why something failed; null while nothing did. */
type Line = WritableSignal<string | null>;

/** What an act reports, and what follows it. */
interface ActReport<T> {
  /** Sentence once it is done. */
  readonly done?: string;
  readonly undo?: () => void;
  /** Sentence before the server's reason when it failed; "Not saved." without. */
  readonly failed?: string;
  /** Line of the page that says why it failed, in place of the snack bar; emptied at the start. */
  readonly line?: Line;
  /** True while it runs. */
  readonly running?: WritableSignal<boolean>;
  /** Gets the answer. */
  readonly then?: (answer: T) => void;
  /** Runs after a failure. */
  readonly otherwise?: (error: unknown) => void;
}

/** Where a reading that is no `ask` says that it failed. */
interface ReadReport<T> {
  readonly line: Line;
  /** Sentence before the server's reason; without, the reason alone. */
  readonly failed?: string;
  readonly then: (answer: T) => void;
  readonly otherwise?: (error: unknown) => void;
}

const SHOWN_MS = 6000;
const UNDO_MS = 12_000;

/** What the server says is wrong with single values, or why it refused the whole. */
function whyOf(e: unknown): string {
  if (e instanceof ApiError && e.problem.errors?.length)
    return e.problem.errors.map((x) => x.message).join('; ');
  return e instanceof Error ? e.message : String(e);
}

/** Acts on the server: counted while they run, reported in a snack bar, with Undo where there is one. */
@Injectable({ providedIn: 'root' })
export class Acts {
  readonly #bar = inject(MatSnackBar);
  /** Number of acts that run. */
  readonly busy = signal(0);

  /**
   * Runs a call and reports it. Unsubscribing stops it and reports nothing.
   * @example acts.run(this.data.clone(id, body), { failed: 'Not cloned.', then: () => this.open(body.id) })
   */
  run<T>(call: Observable<T>, report: ActReport<T> = {}): Subscription {
    return this.#run(call, report, (e) => {
      const words = `${report.failed ?? 'Not saved.'} ${whyOf(e)}`;
      if (report.line) report.line.set(words);
      else this.say(words);
    });
  }

  /**
   * Sends a form. What the server refuses stands at the fields; the rest, or that it was not reached, in `line` above the form. The form
   * keeps its content.
   * @example acts.send(this.form, this.data.add(body), { line: this.problem, done: 'Logged.', then: () => this.form.reset() })
   */
  send<T>(
    form: FormGroup,
    call: Observable<T>,
    report: ActReport<T> & { readonly line: Line },
  ): Subscription {
    return this.#run(call, report, (e) => {
      const rest = e instanceof ApiError ? refused(form, e.problem) : [whyOf(e)];
      const failed = report.failed ?? 'Not saved.';
      report.line.set(`${failed} ${rest.join('; ') || 'See the marked fields.'}`);
    });
  }

  /**
   * Takes an answer into what a page or a service holds itself. A page that only shows it uses `ask`, which can be tried again.
   * @example acts.read(this.data.list(id), { line: this.problem, then: ({ items }) => this.rows.set(items) })
   */
  read<T>(
    call: Observable<T>,
    { line, failed = '', then, otherwise }: ReadReport<T>,
  ): Subscription {
    return call.subscribe({
      next: then,
      error: (e: unknown) => {
        line.set(`${failed} ${whyOf(e)}`.trim());
        otherwise?.(e);
      },
    });
  }

  #run<T>(call: Observable<T>, report: ActReport<T>, failed: (e: unknown) => void): Subscription {
    const { done, running } = report;
    this.busy.update((n) => n + 1);
    running?.set(true);
    report.line?.set(null);
    const ended = finalize<T>(() => {
      this.busy.update((n) => n - 1);
      running?.set(false);
    });
    return call.pipe(ended).subscribe({
      next: (answer) => {
        if (done !== undefined) this.say(done, report.undo);
        report.then?.(answer);
      },
      error: (e: unknown) => {
        failed(e);
        report.otherwise?.(e);
      },
    });
  }

  /** Shows a sentence, with Undo where it is given. */
  say(words: string, undo?: () => void, name = 'Undo'): void {
    const bar = this.#bar.open(words, undo ? name : 'Close', {
      duration: undo ? UNDO_MS : SHOWN_MS,
      politeness: 'polite',
    });
    if (undo) bar.onAction().subscribe(undo);
  }
}
