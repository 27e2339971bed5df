import {
  ChangeDetectionStrategy,
  Component,
  computed,
  inject,
  input,
  output,
  signal,
} from '@angular/core';
import { PROVENANCE_LABELS, PROVENANCES } from '@ruddy/core/compatibility';
import type { LogNames } from '@ruddy/core/compatibility/contract';
import { LogData } from './log';
import type { FilterKey } from './log-keys';

export type Filters = Readonly<Partial<Record<FilterKey, string>>>;

const PARTS = [
  { key: 'host', name: 'Host' },
  { key: 'dock', name: 'Dock' },
  { key: 'card', name: 'Card' },
] as const;
const WORDS = [
  { key: 'controller', name: 'Controller', hint: 'built-in, separate, a class' },
  { key: 'system', name: 'System or build', hint: 'name, platform or build' },
  { key: 'symptom', name: 'Seen', hint: 'black screen' },
  { key: 'fix', name: 'Changed', hint: 'firmware, cable' },
] as const;

/** Finds chains by their parts, controller, system, what was seen and changed, day, and how it is known; near ones beside exact ones. */
@Component({
  selector: 'rb-log-finder',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details #fold [open]="count() > 0" (toggle)="fold.open && read()">
      <summary>
        Find by parts, system, what was seen, day{{
          count() > 0 ? ': ' + count() + (count() === 1 ? ' filter' : ' filters') : ''
        }}
      </summary>
      <div class="grid">
        @for (p of parts; track p.key) {
          <label
            >{{ p.name }}
            <input
              #box
              [attr.list]="'log-' + p.key"
              autocomplete="off"
              maxlength="100"
              [value]="filters()[p.key] ?? ''"
              (change)="set(p.key, box.value)"
            />
            <datalist [id]="'log-' + p.key">
              @for (n of names()?.[p.key] ?? []; track n) {
                <option [value]="n"></option>
              }
            </datalist>
          </label>
        }
        @for (w of words; track w.key) {
          <label
            >{{ w.name }}
            <input
              #box
              autocomplete="off"
              maxlength="100"
              [placeholder]="w.hint"
              [value]="filters()[w.key] ?? ''"
              (change)="set(w.key, box.value)"
            />
          </label>
        }
        <label
          >From day
          <input
            #since
            type="date"
            [value]="filters().since ?? ''"
            (change)="set('since', since.value)"
        /></label>
        <label
          >To day
          <input
            #until
            type="date"
            [value]="filters().until ?? ''"
            (change)="set('until', until.value)"
        /></label>
        <label
          >Known
          <select #known (change)="set('known', known.value)">
            <option value="" [selected]="!filters().known">however</option>
            @for (p of provenances; track p) {
              <option [value]="p" [selected]="filters().known === p">{{ labels[p] }}</option>
            }
            <option value="file" [selected]="filters().known === 'file'">From a file</option>
          </select>
        </label>
      </div>
      <label class="near">
        <input
          #near
          type="checkbox"
          [checked]="isNear()"
          [disabled]="!canNear()"
          (change)="nearChanged.emit(near.checked)"
        />
        Near ones too, the nearest first{{
          canNear() ? '' : ': choose a host, dock, card or port to be near to'
        }}
      </label>
      @if (count() > 0 || isNear()) {
        <button type="button" class="link" (click)="cleared.emit()">Take all filters off</button>
      }
    </details>
  `,
  styles: `
    details {
      padding: 4px 8px;
    }
    .grid {
      display: grid;
      grid-template-columns: repeat(auto-fill, minmax(180px, 1fr));
      gap: 8px 12px;
      padding: 8px 0;
    }
    .grid label {
      display: grid;
      gap: 2px;
      font-size: 13px;
    }
    .near {
      display: inline-flex;
      gap: 8px;
      align-items: center;
      min-height: 32px;
      margin-right: 16px;
    }
  `,
})
export class LogFinder {
  readonly #log = inject(LogData);
  readonly filters = input.required<Filters>();
  readonly isNear = input(false);
  readonly changed = output<Record<string, string | null>>();
  readonly nearChanged = output<boolean>();
  readonly cleared = output();
  readonly names = signal<LogNames | null>(null);
  readonly parts = PARTS;
  readonly words = WORDS;
  readonly provenances = PROVENANCES;
  readonly labels = PROVENANCE_LABELS;
  readonly count = computed(
    () =>
      Object.entries(this.filters()).filter(
        ([k, v]) => v !== '' && !['q', 'outcome', 'standard'].includes(k),
      ).length,
  );
  readonly canNear = computed(() => {
    const f = this.filters();
    return (
      Boolean(f.host ?? '') ||
      Boolean(f.dock ?? '') ||
      Boolean(f.card ?? '') ||
      Boolean(f.standard ?? '')
    );
  });

  /** Names are read when they are first needed; without them the fields still work. */
  read(): void {
    if (!this.names())
      this.#log
        .names()
        .subscribe({ next: (n) => this.names.set(n), error: () => this.names.set(null) });
  }

  set(key: FilterKey, value: string): void {
    this.changed.emit({ [key]: value.trim() || null });
  }
}
