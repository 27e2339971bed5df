import { ChangeDetectionStrategy, Component, input, output, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Choice } from '../../platform/shared/choice';

const REASONS = ['typed wrongly', 'another setup', 'did not happen so'].map((r) => ({
  value: r,
  label: r,
}));

/** Take a fact back, with a reason: chosen, or in words. Both stay on record. */
@Component({
  selector: 'rb-take-back',
  imports: [Choice, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (!open()) {
      <button
        type="button"
        class="link"
        (click)="open.set(true)"
        [attr.aria-label]="'Take back ' + what()"
      >
        Take back
      </button>
    } @else {
      <div class="box">
        <p class="hint">It stays on record and no longer counts. Why?</p>
        <rb-choice label="Why it is taken back" [options]="reasons" (chosen)="say($event)" />
        <div class="own">
          <input
            #words
            aria-label="Why, in words"
            maxlength="300"
            autocomplete="off"
            (keydown.enter)="say(words.value)"
          />
          <button mat-stroked-button type="button" (click)="say(words.value)">Take it back</button>
          <button mat-button type="button" (click)="open.set(false)">Leave it</button>
        </div>
        @if (empty()) {
          <p class="problem" role="alert">Reason: say why it is taken back</p>
        }
      </div>
    }
  `,
  styles: `
    .box {
      display: grid;
      gap: 4px;
      padding: 4px 0;
    }
    .own {
      display: flex;
      gap: 4px;
      flex-wrap: wrap;
    }
  `,
})
export class TakeBack {
  /** "the reading of 3 Nov". */
  readonly what = input.required<string>();
  readonly said = output<string>();
  readonly open = signal(false);
  readonly empty = signal(false);
  readonly reasons = REASONS;

  say(words: string | null): void {
    const reason = (words ?? '').trim();
    this.empty.set(reason === '');
    if (reason === '') return;
    this.open.set(false);
    this.said.emit(reason);
  }
}
