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

/** Versions installed, how the host is set while docked, what the whole is for, and notes. */
@Component({
  selector: 'rb-docked-panel',
  imports: [QuickAttrs, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (editor.fields(); as f) {
      <details #folded>
        <summary>Versions installed: {{ known() }} of {{ versions.length }} known</summary>
        <rb-quick-attrs
          [fields]="versions"
          [values]="f.installed"
          prefix="installed"
          (typing)="typing.set($event)"
          (changed)="setVersion($event)"
        />
        @for (p of left(); track p.role) {
          <p class="pin" role="alert">
            {{ p.words }}
            <button
              type="button"
              class="link"
              (click)="setVersion({ key: p.role, value: p.version })"
            >
              Put {{ p.version }} back
            </button>
          </p>
        }
      </details>
      @for (p of folded.open ? [] : left(); track p.role) {
        <p class="pin">{{ p.words }}</p>
      }
      <details>
        <summary>Docked settings: {{ set() }} of {{ settings.length }} set</summary>
        <rb-quick-attrs
          [fields]="settings"
          [values]="f.settings"
          prefix="setting"
          (changed)="setSetting($event)"
        />
      </details>
      <details [open]="false">
        <summary>What it is for: {{ useWords() }}</summary>
        @for (u of f.uses; track $index; let i = $index) {
          <fieldset>
            <legend>{{ work[u.work] }}</legend>
            <rb-quick-attrs
              [fields]="useFields"
              [values]="u"
              [prefix]="'use-' + i"
              (changed)="setUse(i, $event)"
            />
            <button
              type="button"
              class="link"
              (click)="dropUse(i)"
              [attr.aria-label]="'Take off ' + work[u.work]"
            >
              Take it off
            </button>
          </fieldset>
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
        <div class="field">
          <label for="present">Graphics used so far</label>
          <input
            #present
            id="present"
            maxlength="300"
            autocomplete="off"
            placeholder="not said"
            [value]="f.present"
            (input)="editor.change({ present: present.value })"
          />
        </div>
      </details>
      <div class="field">
        <label for="notes">Notes</label>
        <textarea
          id="notes"
          rows="3"
          maxlength="4000"
          #notes
          [value]="f.notes"
          (input)="editor.change({ notes: notes.value })"
        ></textarea>
      </div>
    }
  `,
  styleUrl: './loads-panel.scss',
  styles: `
    .pin {
      border-left: 4px solid var(--ochre);
      padding-left: 8px;
    }
    textarea {
      resize: vertical;
    }
    textarea,
    #present {
      width: 100%;
    }
  `,
})
export class DockedPanel {
  readonly editor = inject(SetupEditor);
  readonly versions = attributesOf(installedSchema);
  readonly settings = attributesOf(settingsSchema);
  readonly useFields = attributesOf(useSchema);
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
    return uses.length === 0 ? 'not said' : uses.map((u) => WORK[u.work].toLowerCase()).join(', ');
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
