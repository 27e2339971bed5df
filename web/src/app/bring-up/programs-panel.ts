import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { FORCED_BY, type Program, USED_CARD } from '@ruddy/core/setups';
import { SetupEditor } from '../setups/setup-editor';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
import { Choice } from '../platform/kit/choice';
import { Field } from '../platform/kit/field';

/** Which card each program uses, and what made it. */
@Component({
  selector: 'rb-programs-panel',
  imports: [Choice, Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @for (p of programs(); track $index; let i = $index) {
      <section [attr.aria-label]="p.name">
        <h4>{{ p.name }}</h4>
        <rb-choice
          [label]="p.name + ' uses'"
          [options]="uses"
          [value]="p.uses"
          (chosen)="change(i, { uses: $any($event) })"
          [named]="true"
        />
        <rb-choice
          [label]="p.name + ' forced by'"
          [options]="forced"
          [value]="p.forced"
          [clearable]="false"
          (chosen)="change(i, { forced: $any($event) })"
          [named]="true"
        />
        <button mat-button type="button" (click)="drop(i)" [attr.aria-label]="'Remove ' + p.name">
          Remove
        </button>
      </section>
    } @empty {
      <p class="quiet">0 programs noted.</p>
    }
    <div class="add">
      <rb-field
        [meta]="nameMeta"
        [live]="true"
        [value]="name()"
        (changed)="name.set($event)"
        (keydown.enter)="$event.preventDefault(); add()"
      />
      <button mat-stroked-button type="button" (click)="add()">Add program</button>
    </div>
    @if (problem(); as why) {
      <p class="problem" role="alert">{{ why }}</p>
    }
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
    }
    section {
      display: grid;
      gap: 8px;
      justify-items: start;
    }
    .add {
      display: flex;
      gap: 8px;
      align-items: end;
      flex-wrap: wrap;
    }
  `,
})
export class ProgramsPanel {
  readonly #editor = inject(SetupEditor);
  readonly uses = optionsOf(USED_CARD);
  readonly forced = optionsOf(FORCED_BY);
  readonly nameMeta: FieldMeta = { label: 'Program or title', input: 'text', max: 80 };
  readonly name = signal('');
  readonly problem = signal<string | null>(null);
  readonly programs = computed(() => this.#editor.fields()?.docked.programs ?? []);

  add(): void {
    const name = this.name().trim();
    if (name === '') return this.problem.set('Program: must not be empty');
    if (this.programs().some((p) => p.name.toLowerCase() === name.toLowerCase()))
      return this.problem.set(`${name} is on the list`);
    if (this.programs().length >= 60) return this.problem.set('Programs: at most 60');
    this.problem.set(null);
    this.name.set('');
    this.#put([...this.programs(), { name, uses: null, forced: 'nothing', note: '' }]);
  }

  change(index: number, change: Partial<Program>): void {
    this.#put(this.programs().map((p, i) => (i === index ? { ...p, ...change } : p)));
  }

  drop(index: number): void {
    this.#put(this.programs().filter((_, i) => i !== index));
  }

  #put(programs: Program[]): void {
    const d = this.#editor.fields()?.docked;
    if (d) this.#editor.change({ docked: { ...d, programs } });
  }
}
