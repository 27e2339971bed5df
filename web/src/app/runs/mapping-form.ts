import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  input,
  output,
  signal,
  untracked,
} from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import {
  type CaptureColumn,
  type CaptureLayout,
  type ColumnRole,
  type ColumnUnit,
  type Mapping,
  readsWhat,
  ROLES,
} from '@ruddy/core/runs';
import { ROLE_WORDS } from '@ruddy/core/runs/text';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

const TIME = { ms: 'ms', s: 's', us: 'microseconds', ns: 'ns', clock: 'date or clock' } as const;
const SENSOR = {
  own: 'as named',
  kilo: 'thousands (GHz, kW, GB)',
  milli: 'thousandths (mW)',
  share: '0 to 1',
} as const;
const TIMES: readonly ColumnRole[] = ['frame', 'time', 'shown'];

/** What each column of a file holds, as proposed; somebody says whether that is right. Out: the mapping, confirmed. */
@Component({
  selector: 'rb-mapping-form',
  imports: [Cell, Rows, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ name() }}: what do the columns hold?</h3>
    <p class="hint">
      Proposed from names and values. What you confirm is remembered for files of the same layout.
    </p>
    @if (why(); as w) {
      <p class="problem" role="alert">{{ w }}</p>
    }
    <rb-rows label="Columns of the file" [columns]="columnsOfTheColumns" [rows]="columns()">
      <ng-template rbCell="column" [rbCellOf]="columns()" let-c let-i="index">{{
        title(i)
      }}</ng-template>
      <ng-template rbCell="firstValues" [rbCellOf]="columns()" let-c let-i="index"
        ><span class="sample">{{ sample(i) }}</span></ng-template
      >
      <ng-template rbCell="holds" [rbCellOf]="columns()" let-c let-i="index"
        ><select
          [attr.aria-label]="'What ' + title(i) + ' holds'"
          #role
          (change)="setRole(i, role.value)"
        >
          @for (r of roles; track r) {
            <option [value]="r" [selected]="r === c.role">{{ words[r] }}</option>
          }
        </select></ng-template
      >
      <ng-template rbCell="unit" [rbCellOf]="columns()" let-c let-i="index">
        @if (unitsOf(c.role); as units) {
          <select [attr.aria-label]="'Unit of ' + title(i)" #unit (change)="setUnit(i, unit.value)">
            @for (u of units; track u.value) {
              <option [value]="u.value" [selected]="u.value === c.unit">
                {{ u.label }}
              </option>
            }
          </select>
        }
      </ng-template>
    </rb-rows>
    <p>
      {{
        reads() === 'frames'
          ? 'Read as frames.'
          : reads() === 'log'
            ? 'Read as a log of sensors.'
            : 'Say which column holds frame times, or the time of each row.'
      }}
      <span class="hint">
        Decimal mark
        <select
          aria-label="Decimal mark"
          #mark
          (change)="decimal.set(mark.value === ',' ? ',' : '.')"
        >
          <option value="." [selected]="decimal() === '.'">point</option>
          <option value="," [selected]="decimal() === ','">comma</option>
        </select>
      </span>
    </p>
    <p>
      <button mat-flat-button type="button" [disabled]="reads() === null" (click)="confirm()">
        The columns are right: read it
      </button>
    </p>
  `,
  styles: `
    :host {
      display: grid;
      gap: 8px;
      border-left: 4px solid var(--brick);
      padding: 8px 12px;
    }
    select {
      max-width: 190px;
    }
    .wide {
      overflow-x: auto;
      max-height: 320px;
    }
    .sample {
      white-space: nowrap;
      max-width: 150px;
      overflow: hidden;
      text-overflow: ellipsis;
      font-family: 'Atkinson Hyperlegible Mono Variable', monospace;
      font-size: 13px;
    }
  `,
})
export class MappingForm {
  readonly columnsOfTheColumns: readonly ShortColumn[] = [
    { key: 'column', name: 'Column' },
    { key: 'firstValues', name: 'First values' },
    { key: 'holds', name: 'Holds' },
    { key: 'unit', name: 'Unit' },
  ];
  readonly name = input.required<string>();
  readonly layout = input.required<CaptureLayout>();
  readonly proposed = input.required<Mapping>();
  readonly why = input('');
  readonly confirmed = output<Mapping>();
  readonly roles = ROLES;
  readonly words = ROLE_WORDS;
  readonly columns = signal<readonly CaptureColumn[]>([]);
  readonly decimal = signal<'.' | ','>('.');
  readonly mapping = computed((): Mapping => ({
    ...this.proposed(),
    columns: this.columns(),
    decimal: this.decimal(),
  }));
  readonly reads = computed(() =>
    this.columns().length > 0 ? readsWhat(this.mapping(), this.layout()) : null,
  );

  constructor() {
    effect(() => {
      const { columns, decimal } = this.proposed();
      untracked(() => {
        this.columns.set(columns);
        this.decimal.set(decimal);
      });
    });
  }

  title(i: number): string {
    return this.layout().header?.[i] || `column ${i + 1}`;
  }

  sample(i: number): string {
    return this.layout()
      .sample.slice(0, 3)
      .map((r) => r[i] ?? '')
      .join('  ');
  }

  unitsOf(role: ColumnRole): { value: string; label: string }[] | null {
    if (role === 'ignore' || role === 'program' || role === 'generated') return null;
    return Object.entries(TIMES.includes(role) ? TIME : SENSOR).map(([value, label]) => ({
      value,
      label,
    }));
  }

  setRole(i: number, value: string): void {
    const role = value as ColumnRole;
    const was = this.columns()[i]?.role ?? 'ignore';
    const unit: ColumnUnit | null =
      TIMES.includes(role) === TIMES.includes(was) && was !== 'ignore'
        ? null
        : TIMES.includes(role)
          ? 'ms'
          : 'own';
    // A role that only one column may have leaves the one that had it.
    this.columns.update((all) =>
      all.map((c, k) =>
        k === i
          ? { role, unit: unit ?? c.unit }
          : c.role === role && role !== 'ignore'
            ? { ...c, role: 'ignore' as const }
            : c,
      ),
    );
  }

  setUnit(i: number, value: string): void {
    this.columns.update((all) =>
      all.map((c, k) => (k === i ? { ...c, unit: value as ColumnUnit } : c)),
    );
  }

  confirm(): void {
    this.confirmed.emit(this.mapping());
  }
}
