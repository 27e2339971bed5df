import { ChangeDetectionStrategy, Component, computed, input, output } from '@angular/core';

interface Named {
  readonly key: string;
  readonly name: string;
}

/** The columns somebody chose for a list, kept on this machine; the usual ones until then. */
export function keptColumns(place: string, usual: readonly string[]): readonly string[] {
  try {
    const stored: unknown = JSON.parse(localStorage.getItem(place) ?? 'null');
    return Array.isArray(stored) && stored.length > 0 ? stored.map(String) : usual;
  } catch {
    // What is kept there is no list: the usual columns stand.
    return usual;
  }
}

/** Which columns a list shows. In: all of them, the shown ones, one that always stays. Out: the shown ones as they are now. */
@Component({
  selector: 'rb-column-chooser',
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <details>
      <summary>Columns {{ count() }} of {{ all().length }}</summary>
      <div class="menu">
        @for (c of all(); track c.key) {
          <label
            ><input
              type="checkbox"
              #box
              [checked]="shown().includes(c.key)"
              [disabled]="c.key === always()"
              (change)="show(c.key, box.checked)"
            />
            {{ c.name }}</label
          >
        }
      </div>
    </details>
  `,
  styles: `
    details {
      position: relative;
    }
    summary {
      cursor: pointer;
      min-height: 24px;
    }
    .menu {
      position: absolute;
      right: 0;
      z-index: 3;
      display: grid;
      gap: 4px;
      max-height: 320px;
      overflow: auto;
      padding: 8px 12px;
      background: var(--sheet);
      border: 1px solid var(--rim);
      white-space: nowrap;
    }
    label {
      min-height: 24px;
    }
  `,
})
export class ColumnChooser {
  readonly all = input.required<readonly Named[]>();
  readonly shown = input.required<readonly string[]>();
  readonly always = input('');
  readonly changed = output<string[]>();
  /** Kept keys may name columns another version had. */
  readonly count = computed(() => this.all().filter((c) => this.shown().includes(c.key)).length);

  show(key: string, on: boolean): void {
    const rest = this.shown().filter((k) => k !== key);
    this.changed.emit(on ? [...rest, key] : rest);
  }
}
