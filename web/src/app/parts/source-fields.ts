import { ChangeDetectionStrategy, Component, inject, input, output } from '@angular/core';
import { type SourceNote, VALUE_SOURCES, type ValueSource } from '@ruddy/core/parts';
import { ServerClock } from '../platform/shared/server-clock';

/** Where one value came from: the kind of source, the day and a word about it. In: the note, or null. Out: the note as it is now. */
@Component({
  selector: 'rb-source-fields',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="source" role="group" [attr.aria-label]="'Where ' + name() + ' came from'">
      <select #from [attr.aria-label]="'Source of ' + name()" (change)="choose(from.value)">
        <option value="" [selected]="!source()?.from">from?</option>
        @for (s of kinds; track s[0]) {
          <option [value]="s[0]" [selected]="s[0] === source()?.from">{{ s[1] }}</option>
        }
      </select>
      @if (source()?.from) {
        <input
          #on
          type="date"
          [value]="source()!.on"
          [max]="today()"
          [attr.aria-label]="'Day of ' + name()"
          (change)="say({ on: on.value })"
        />
        <input
          #note
          maxlength="200"
          placeholder="note"
          [value]="source()!.note"
          [attr.aria-label]="'Note on ' + name()"
          (change)="say({ note: note.value.trim() })"
        />
      }
    </div>
  `,
  styles: `
    .source {
      display: flex;
      flex-wrap: wrap;
      gap: 4px;
    }
    select,
    input {
      font-size: 12px;
      height: 24px;
      max-width: 120px;
    }
  `,
})
export class SourceFields {
  readonly #clock = inject(ServerClock);
  readonly name = input.required<string>();
  readonly source = input<SourceNote | null>(null);
  readonly changed = output<SourceNote | null>();
  readonly kinds = Object.entries(VALUE_SOURCES);
  readonly today = () => this.#clock.today();

  choose(from: string): void {
    const kept = this.source()?.kept ?? false;
    const note = {
      from: (from || null) as ValueSource | null,
      on: this.source()?.on || this.today(),
      note: this.source()?.note ?? '',
      kept,
    };
    this.changed.emit(
      from === '' && !kept ? null : from === '' ? { ...note, on: '', note: '' } : note,
    );
  }

  say(change: Partial<SourceNote>): void {
    const now = this.source();
    if (now) this.changed.emit({ ...now, ...change });
  }
}
