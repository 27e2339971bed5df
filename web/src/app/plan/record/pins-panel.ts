import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { pinAll, pinsLeft } from '@ruddy/core/bring-up';
import { pinWords } from '@ruddy/core/compatibility/text';
import { SOFTWARE_NAMES, SOFTWARE_ROLES, type SoftwareRole } from '@ruddy/core/parts';
import { Field } from '../../platform/kit/field';
import type { FieldMeta } from '../../platform/kit/meta';
import { SetupEditor } from '../../setups/setup-editor';

/** Versions this setup should stay at, each with its reason; Plan, Bring-up and Releases say so before one is left. */
@Component({
  selector: 'rb-pins-panel',
  imports: [Field, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <ul>
      @for (p of pins(); track p.role) {
        <li [class.left]="p.left">
          <strong>{{ p.name }} {{ p.version }}</strong>
          <span class="quiet">{{ p.reason || 'no reason given' }}</span>
          @if (p.left) {
            <span>{{ p.left }}</span>
          }
          <button
            mat-button
            type="button"
            [attr.aria-label]="'Release the pin of ' + p.name"
            (click)="release(p.role)"
          >
            Release
          </button>
        </li>
      } @empty {
        <li class="quiet">None. Pin what must not move: you are warned before it does.</li>
      }
    </ul>
    @if (free().length > 0) {
      <div class="row">
        <rb-field [meta]="version()" [control]="form.controls.role" />
        <rb-field class="why" [meta]="why" [control]="form.controls.why" />
      </div>
      <p class="row">
        <button mat-stroked-button type="button" (click)="pin()">Pin</button>
        <button mat-button type="button" (click)="all()">Pin all current versions</button>
      </p>
    } @else if (pins().length === 0) {
      <p class="hint">No version is noted yet: note them on Plan or at a step of Bring-up.</p>
    }
    <p class="hint" role="status">{{ said() }}</p>
  `,
  styles: `
    ul {
      list-style: none;
      padding: 0;
      display: grid;
      gap: 4px;
    }
    li {
      display: flex;
      flex-wrap: wrap;
      gap: 0 8px;
    }
    li.left {
      border-left: 4px solid var(--ochre);
      padding-left: 8px;
    }
    .row {
      display: flex;
      flex-wrap: wrap;
      gap: 8px;
    }
    .row rb-field {
      flex: 1;
      min-width: 160px;
    }
    .hint:empty {
      display: none;
    }
  `,
})
export class PinsPanel {
  readonly editor = inject(SetupEditor);
  readonly said = signal('');
  readonly pins = computed(() => {
    const f = this.editor.fields();
    if (!f) return [];
    const left = pinsLeft(f.pins, f.installed);
    return f.pins.map((p) => {
      const gone = left.find((l) => l.role === p.role);
      return {
        ...p,
        name: SOFTWARE_NAMES[p.role],
        left: gone ? pinWords({ ...gone, name: 'It' }) : null,
      };
    });
  });
  /** Versions that are known and not pinned. */
  readonly free = computed(() => {
    const f = this.editor.fields();
    if (!f) return [];
    return SOFTWARE_ROLES.filter(
      (r) => f.installed[r] !== '' && !f.pins.some((p) => p.role === r),
    ).map((role) => ({
      role,
      name: SOFTWARE_NAMES[role],
      version: f.installed[role],
    }));
  });

  readonly version = computed<FieldMeta>(() => ({
    label: 'Version to pin',
    input: 'choice',
    options: this.free().map((f) => ({ value: f.role, label: `${f.name} ${f.version}` })),
  }));
  readonly why: FieldMeta = {
    label: 'Reason',
    input: 'text',
    max: 300,
    placeholder: 'why it should stay',
  };
  readonly form = new FormGroup({
    role: new FormControl<SoftwareRole | null>(null),
    why: new FormControl('', { nonNullable: true }),
  });

  pin(): void {
    const f = this.editor.fields();
    const { role, why } = this.form.getRawValue();
    const version = role && f?.installed[role];
    if (!f || !role || !version) return this.said.set('Not pinned. Choose a version.');
    this.editor.change({
      pins: [...f.pins, { role, version, reason: why.trim() }],
    });
    this.said.set(`Pinned: ${SOFTWARE_NAMES[role]} ${version}.`);
    this.form.reset();
  }

  all(): void {
    const f = this.editor.fields();
    if (!f) return;
    this.editor.change({ pins: pinAll(f.pins, f.installed, this.form.getRawValue().why.trim()) });
    this.form.reset();
    this.said.set('All versions that are noted are pinned.');
  }

  release(role: SoftwareRole): void {
    const f = this.editor.fields();
    if (!f) return;
    this.editor.change({ pins: f.pins.filter((p) => p.role !== role) });
    this.said.set(`Released: ${SOFTWARE_NAMES[role]}.`);
  }
}
