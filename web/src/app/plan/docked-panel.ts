import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { pinsLeft } from '@ruddy/core/bring-up';
import { pinWords } from '@ruddy/core/compatibility/text';
import {
  attributesOf,
  installedSchema,
  settingsSchema,
  SOFTWARE_NAMES,
  type Use,
  useSchema,
  WORK,
} from '@ruddy/core/parts';
import { SetupEditor } from '../setups/setup-editor';
import { QuickAttrs, type QuickChange } from '../parts/quick-attrs';
import { Fold } from '../platform/kit/fold';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';

/** Versions installed, how the host is set while docked, what the whole is for, and notes. */
@Component({
  selector: 'rb-docked-panel',
  imports: [Field, Fold, QuickAttrs, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (editor.fields(); as f) {
      <rb-fold
        #folded
        [inner]="true"
        name="Versions installed: {{ known() }} of {{ versions.length }} known"
      >
        <rb-quick-attrs
          [fields]="versions"
          [values]="f.installed"
          (typing)="typing.set($event)"
          (changed)="setVersion($event)"
        />
        @for (p of left(); track p.role) {
          <p class="pin" role="alert">
            {{ p.words }}
            <button
              mat-button
              type="button"
              (click)="setVersion({ key: p.role, value: p.version })"
            >
              Put {{ p.version }} back
            </button>
          </p>
        }
      </rb-fold>
      @for (p of folded.open() ? [] : left(); track p.role) {
        <p class="pin">{{ p.words }}</p>
      }
      <rb-fold [inner]="true" name="Docked settings: {{ set() }} of {{ settings.length }} set">
        <rb-quick-attrs [fields]="settings" [values]="f.settings" (changed)="setSetting($event)" />
      </rb-fold>
      <rb-fold [open]="false" [inner]="true" name="Intended use: {{ useWords() }}">
        @for (u of f.uses; track $index; let i = $index) {
          <section [attr.aria-label]="work[u.work]">
            <h4>{{ work[u.work] }}</h4>
            <rb-quick-attrs [fields]="useFields" [values]="u" (changed)="setUse(i, $event)" />
            <button
              mat-button
              type="button"
              (click)="dropUse(i)"
              [attr.aria-label]="'Remove ' + work[u.work]"
            >
              Remove
            </button>
          </section>
        }
        <button
          mat-button
          type="button"
          id="add-use"
          [disabled]="f.uses.length >= 8"
          (click)="addUse()"
        >
          Add a use
        </button>
        <rb-field
          [meta]="present"
          [live]="true"
          [value]="f.present"
          (changed)="editor.change({ present: $event })"
        />
      </rb-fold>
      <rb-field
        [meta]="notes"
        [live]="true"
        [value]="f.notes"
        (changed)="editor.change({ notes: $event })"
      />
    }
  `,
  styleUrl: './loads-panel.scss',
  styles: `
    .pin {
      border-left: 4px solid var(--ochre);
      padding-left: 8px;
    }
  `,
})
export class DockedPanel {
  readonly editor = inject(SetupEditor);
  readonly versions = attributesOf(installedSchema);
  readonly settings = attributesOf(settingsSchema);
  readonly useFields = attributesOf(useSchema);
  readonly present: FieldMeta = {
    label: 'Current graphics',
    input: 'text',
    max: 300,
    placeholder: 'not set',
  };
  readonly notes: FieldMeta = { label: 'Notes', input: 'area', max: 4000 };
  readonly work = WORK;
  readonly known = computed(
    () => Object.values(this.editor.fields()?.installed ?? {}).filter((v) => v !== '').length,
  );
  /** A version that is being typed and not yet stored. */
  readonly typing = signal<QuickChange | null>(null);
  /** Pins that the versions of now leave, or what is being typed would: said before it is stored. */
  readonly left = computed(() => {
    const f = this.editor.fields();
    return f
      ? pinsLeft(f.pins, { ...f.installed, ...this.#typed() }).map((p) => ({
          ...p,
          words: pinWords({ ...p, name: SOFTWARE_NAMES[p.role] }),
        }))
      : [];
  });
  readonly set = computed(
    () => Object.values(this.editor.fields()?.settings ?? {}).filter((v) => v !== null).length,
  );
  readonly useWords = computed(() => {
    const uses = this.editor.fields()?.uses ?? [];
    return uses.length === 0 ? 'not set' : uses.map((u) => WORK[u.work].toLowerCase()).join(', ');
  });

  #typed(): Record<string, string> {
    const t = this.typing();
    return t ? { [t.key]: String(t.value) } : {};
  }

  setVersion({ key, value }: QuickChange): void {
    this.typing.set(null);
    const f = this.editor.fields();
    if (f) this.editor.change({ installed: { ...f.installed, [key]: String(value).slice(0, 60) } });
  }

  setSetting({ key, value }: QuickChange): void {
    const f = this.editor.fields();
    if (f) this.editor.change({ settings: { ...f.settings, [key]: value } });
  }

  addUse(): void {
    this.#uses((list) => [...list, useSchema.parse({ work: 'games' })]);
  }

  dropUse(index: number): void {
    this.#uses((list) => list.filter((_, i) => i !== index));
  }

  setUse(index: number, { key, value }: QuickChange): void {
    this.#uses((list) => list.map((u, i) => (i === index ? { ...u, [key]: value } : u)));
  }

  #uses(next: (list: readonly Use[]) => Use[]): void {
    this.editor.change({ uses: next(this.editor.fields()?.uses ?? []) });
  }
}
