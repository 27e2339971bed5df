import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { firstValueFrom } from 'rxjs';
import { v7 } from 'uuid';
import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { RunsData } from './runs';

/** Which title or work was run: one that is known, or a new one by name. Out: its name. `resolve` gives the id when something is stored. */
@Component({
  selector: 'rb-title-field',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <div class="field">
      <label for="title-name">{{ kind() === 'work' ? 'Work' : 'Title' }}</label>
      <input
        id="title-name"
        list="title-names"
        maxlength="80"
        autocomplete="off"
        placeholder="known, or a new one"
        [value]="name()"
        #box
        (input)="typed.set(box.value)"
      />
      <datalist id="title-names">
        @for (p of fitting(); track p.id) {
          <option [value]="p.name"></option>
        }
      </datalist>
      @if (isNew()) {
        <span class="hint"
          >A new {{ kind() === 'work' ? 'kind of work' : 'title' }}; say in the notes which scene
          was run.</span
        >
      } @else if (scene()) {
        <span class="hint">{{ scene() }}</span>
      }
    </div>
  `,
})
export class TitleField {
  readonly #data = inject(RunsData);
  readonly kind = input<'title' | 'work'>('title');
  readonly start = input('');
  readonly typed = signal<string | null>(null);
  readonly name = computed(() => this.typed() ?? this.start());
  readonly known = signal<readonly ProfileEntry[]>([]);
  readonly fitting = computed(() => this.known().filter((p) => p.kind === this.kind()));
  readonly isNew = computed(
    () =>
      this.name().trim() !== '' &&
      !this.known().some((p) => p.name.toLowerCase() === this.name().trim().toLowerCase()),
  );
  readonly scene = computed(
    () =>
      this.known().find((p) => p.name.toLowerCase() === this.name().trim().toLowerCase())?.note ??
      '',
  );

  constructor() {
    this.#data.profiles().subscribe({
      next: (list) => this.known.set(list),
      // Without the list a name can still be typed; the server meets one it knows.
      error: () => this.known.set([]),
    });
  }

  /** The id of a title, of the one that is named where nothing else is said; a new one is made. */
  async resolve(name = this.name().trim()): Promise<string> {
    const known = this.known().find((p) => p.name.toLowerCase() === name.toLowerCase());
    return (
      known?.id ?? firstValueFrom(this.#data.addProfile({ id: v7(), name, kind: this.kind() }))
    );
  }
}
