import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { type Docked, dockedSchema } from '@ruddy/core/setups';
import { SetupEditor } from '../setups/setup-editor';
import { Choice } from '../platform/kit/choice';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Rows } from '../platform/kit/rows';

type State = 'docked' | 'undocked';
type Key = keyof Docked['docked'];

interface Row {
  readonly key: Key | 'internalGraphics';
  readonly label: string;
  readonly meta: Readonly<Record<State, FieldMeta>>;
}
function row(key: Row['key'], label: string, unit?: string): Row {
  const of = (s: State): FieldMeta => ({
    label: `${label} ${s}`,
    input: unit === undefined ? 'text' : 'number',
    placeholder: 'not noted',
    ...(unit === undefined && { max: 300 }),
    ...(unit && { unit }),
  });
  return { key, label, meta: { docked: of('docked'), undocked: of('undocked') } };
}

const ROWS: readonly Row[] = [
  row('powerMode', 'Power mode'),
  row('sustainedW', 'Sustained power', 'W'),
  row('minutesW', 'Two-minute power', 'W'),
  row('peakW', 'Peak power', 'W'),
  row('tempLimitC', 'Temperature limit', '°C'),
  row('sharedGB', 'Shared memory', 'GB'),
  row('resolution', 'Resolution'),
  row('scalingPercent', 'Scaling', '%'),
  row('note', 'Note'),
  row('internalGraphics', 'Internal graphics'),
];
const ON_OFF = [
  { value: 'on', label: 'On' },
  { value: 'off', label: 'Off' },
];

/** How the host is set docked and undocked, side by side, so that what comes back wrong is put right quickly. */
@Component({
  selector: 'rb-profiles-panel',
  imports: [Cell, Choice, Field, Rows],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    @if (docked(); as d) {
      <rb-rows label="Host, docked and undocked" [columns]="columns" [rows]="rows">
        @for (s of states; track s) {
          <ng-template [rbCell]="s" [rbCellOf]="rows" let-r>
            @if (r.key === 'internalGraphics') {
              <rb-choice
                [label]="'Internal graphics ' + s"
                [options]="onOff"
                [value]="s === 'docked' ? inside() : d.undocked.internalGraphics"
                (chosen)="s === 'docked' ? setInside($event) : setUndockedInside($event)"
              />
            } @else {
              <rb-field
                [meta]="r.meta[s]"
                [value]="$any(d)[s][r.key]"
                (changed)="set(s, r.key, $event)"
              />
            }
          </ng-template>
        }
      </rb-rows>
      @if (problem(); as why) {
        <p class="problem" role="alert">Not saved: {{ why }}</p>
      }
    }
  `,
  styles: `
    :host {
      display: block;
      min-width: 0;
    }
  `,
})
export class ProfilesPanel {
  readonly #editor = inject(SetupEditor);
  readonly rows = ROWS;
  readonly columns: readonly ShortColumn<Row>[] = [
    { key: 'host', name: 'Host', text: (r) => r.label },
    { key: 'docked', name: 'docked' },
    { key: 'undocked', name: 'undocked' },
  ];
  readonly states = ['docked', 'undocked'] as const;
  readonly onOff = ON_OFF;
  readonly problem = signal<string | null>(null);
  readonly docked = computed(() => this.#editor.fields()?.docked ?? null);
  readonly inside = computed(() => {
    const v = this.#editor.fields()?.settings.internalGraphics;
    return typeof v === 'string' ? v : null;
  });

  set(s: State, key: Row['key'], value: unknown): void {
    const d = this.docked();
    if (!d) return;
    const next = dockedSchema.safeParse({ ...d, [s]: { ...d[s], [key]: value } });
    this.problem.set(next.error?.issues[0]?.message ?? null);
    if (next.success) this.#editor.change({ docked: next.data });
  }

  setInside(value: string | null): void {
    const f = this.#editor.fields();
    if (f)
      this.#editor.change({
        settings: { ...f.settings, internalGraphics: value as 'on' | 'off' | null },
      });
  }

  setUndockedInside(value: string | null): void {
    const d = this.docked();
    if (d)
      this.#editor.change({
        docked: {
          ...d,
          undocked: { ...d.undocked, internalGraphics: value as 'on' | 'off' | null },
        },
      });
  }
}
