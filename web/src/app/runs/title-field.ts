import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { catchError, firstValueFrom, of } from 'rxjs';
import { v7 } from 'uuid';
import type { ProfileEntry } from '@ruddy/core/runs/contract';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { RunsData } from './runs';

/** The id of a title or work by its name; a new one is made. */
export async function titleId(
  data: RunsData,
  known: readonly ProfileEntry[],
  said: Pick<ProfileEntry, 'name' | 'kind'>,
): Promise<string> {
  const found = known.find((p) => p.name.toLowerCase() === said.name.toLowerCase());
  return found?.id ?? firstValueFrom(data.addProfile({ id: v7(), ...said }));
}

/** Which title or work was run: one that is known, or a new one by name. Out: its name. `resolve` gives the id when something is stored. */
@Component({
  selector: 'rb-title-field',
  imports: [Field],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <rb-field [meta]="meta()" [live]="true" [value]="name()" (changed)="typed.set($event)" />
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
  readonly meta = computed<FieldMeta>(() => ({
    label: this.kind() === 'work' ? 'Work' : 'Title',
    input: 'suggest',
    max: 80,
    placeholder: 'known, or a new one',
    help: this.isNew()
      ? `A new ${this.kind() === 'work' ? 'kind of work' : 'title'}; say in the notes which scene was run.`
      : this.scene(),
    options: this.fitting().map((p) => ({ value: p.name, label: p.name })),
  }));
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
    // Without the list a name can still be typed; the server meets one it knows.
    this.#data
      .profiles()
      .pipe(catchError(() => of([])))
      .subscribe((list) => this.known.set(list));
  }

  /** The id of a title, of the one that is named where nothing else is said; a new one is made. */
  resolve(name = this.name().trim()): Promise<string> {
    return titleId(this.#data, this.known(), { name, kind: this.kind() });
  }
}
