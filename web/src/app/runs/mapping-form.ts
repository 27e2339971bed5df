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
import { Field } from '../platform/kit/field';
import { optionsOf, type FieldMeta } from '../platform/kit/meta';
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

const ROLE_OPTIONS = ROLES.map((value) => ({ value, label: ROLE_WORDS[value] }));

/** A column of the file as it is shown. */
interface Row extends CaptureColumn {
  readonly name: string;
  readonly sample: string;
  readonly roleMeta: FieldMeta;
  readonly unitMeta: FieldMeta | null;
}

function unitMeta(name: string, role: ColumnRole): FieldMeta | null {
  if (role === 'ignore' || role === 'program' || role === 'generated') return null;
  const options = optionsOf(TIMES.includes(role) ? TIME : SENSOR);
  return { label: `Unit of ${name}`, input: 'choice', options };
}

/** What each column of a file holds, as proposed; somebody says whether that is right. Out: the mapping, confirmed. */
@Component({
  selector: 'rb-mapping-form',
  imports: [Cell, Field, MatButtonModule, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h3>{{ name() }}: what do the columns hold?</h3>
    <p class="hint">
      Proposed from names and values. What you confirm is remembered for files of the same layout.
    </p>
    @if (why(); as w) {
      <p class="problem" role="alert">{{ w }}</p>
    }
    <rb-rows label="Columns of the file" [columns]="listColumns" [rows]="rows()">
      <ng-template rbCell="sample" [rbCellOf]="rows()" let-r
        ><span class="sample">{{ r.sample }}</span></ng-template
      >
      <ng-template rbCell="role" [rbCellOf]="rows()" let-r let-i="index"
        ><rb-field [meta]="r.roleMeta" [value]="r.role" (changed)="setRole(i, $event)"
      /></ng-template>
      <ng-template rbCell="unit" [rbCellOf]="rows()" let-r let-i="index">
        @if (r.unitMeta) {
          <rb-field [meta]="r.unitMeta" [value]="r.unit" (changed)="setUnit(i, $event)" />
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
    </p>
    <rb-field class="mark" [meta]="mark" [value]="decimal()" (changed)="decimal.set($event)" />
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
    .mark {
      width: 140px;
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
  readonly listColumns: readonly ShortColumn<Row>[] = [
    { key: 'column', name: 'Column', text: (r) => r.name },
    { key: 'sample', name: 'First values' },
    { key: 'role', name: 'Holds' },
    { key: 'unit', name: 'Unit' },
  ];
  readonly mark: FieldMeta = {
    label: 'Decimal mark',
    input: 'choice',
    options: optionsOf({ '.': 'point', ',': 'comma' }),
  };
  readonly name = input.required<string>();
  readonly layout = input.required<CaptureLayout>();
  readonly proposed = input.required<Mapping>();
  readonly why = input('');
  readonly confirmed = output<Mapping>();
  readonly columns = signal<readonly CaptureColumn[]>([]);
  readonly decimal = signal<'.' | ','>('.');
  readonly rows = computed((): readonly Row[] =>
    this.columns().map(({ role, unit }, i) => {
      const name = this.layout().header?.[i] || `column ${i + 1}`;
      return {
        name,
        role,
        unit,
        sample: this.#sample(i),
        roleMeta: { label: `Role of ${name}`, input: 'choice', options: ROLE_OPTIONS },
        unitMeta: unitMeta(name, role),
      };
    }),
  );
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

  #sample(i: number): string {
    return this.layout()
      .sample.slice(0, 3)
      .map((r) => r[i] ?? '')
      .join('  ');
  }

  setRole(i: number, role: ColumnRole): void {
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

  setUnit(i: number, unit: ColumnUnit): void {
    this.columns.update((all) => all.map((c, k) => (k === i ? { ...c, unit } : c)));
  }

  confirm(): void {
    this.confirmed.emit(this.mapping());
  }
}
