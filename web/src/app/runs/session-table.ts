import { ChangeDetectionStrategy, Component, computed, inject, output } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatMenuModule } from '@angular/material/menu';
import { Cell } from '../platform/kit/cell';
import type { Column, RowAct } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { Table } from '../platform/kit/table';
import { pluralize } from '../platform/shared/format';
import { stateOf, holdsOf } from './file-words';
import { type FileRow, RunFiles } from './run-files';
import { inPixels, RUN_FIELDS } from './run-form';
import {
  SESSION_FIELDS,
  type SessionField,
  SessionRows,
  type SessionRow,
  type SessionValues,
} from './session-rows';

const LABELS: Readonly<Record<SessionField, string>> = {
  title: 'Title',
  resolution: RUN_FIELDS.resolution.label,
  preset: RUN_FIELDS.preset.label,
  setupId: 'Measured on',
  screenPath: RUN_FIELDS.screenPath.label,
  powerMode: RUN_FIELDS.powerMode.label,
};

const WIDTHS: Readonly<Record<SessionField, number>> = {
  title: 6,
  resolution: 4.5,
  preset: 3,
  setupId: 5,
  screenPath: 5,
  powerMode: 4,
};

/**
 * The files of a session, one a row, with what is said of each. A change is for every selected row; a click on a value selects the rows that
 * have it. Nothing is stored here. Out: a file whose columns are to be looked at again.
 */
@Component({
  selector: 'rb-session-table',
  imports: [Cell, Field, MatButtonModule, MatMenuModule, Table],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './session-table.html',
  styleUrl: './session-table.scss',
})
export class SessionTable {
  readonly files = inject(RunFiles);
  readonly session = inject(SessionRows);
  readonly again = output<FileRow>();
  readonly counted = pluralize;
  readonly fields = SESSION_FIELDS;
  readonly labels = LABELS;
  readonly rows = this.session.rows;
  readonly idOf = (r: SessionRow) => r.file.id;
  readonly chosen = this.session.chosen;
  readonly ticked = computed(() => new Set(this.chosen().map((r) => r.file.id)));
  readonly columns: readonly Column<SessionRow>[] = [
    { key: 'file', name: 'File', text: (r) => r.path, wide: 9, narrow: true, wrap: true },
    {
      key: 'holds',
      name: 'Holds',
      text: (r) => holdsOf(r.file) || r.file.why,
      wide: 7,
      wrap: true,
    },
    ...SESSION_FIELDS.map((key) => ({
      key,
      name: LABELS[key],
      text: (r: SessionRow) => this.text(r, key) || 'not set',
      narrow: key === 'title' || key === 'resolution',
      wide: WIDTHS[key],
    })),
    { key: 'repeat', name: 'Repeat', text: (r) => r.repeat, wide: 3 },
    { key: 'fate', name: 'State', text: (r) => stateOf(r.file), wide: 5 },
  ];
  readonly acts: readonly RowAct<SessionRow>[] = [
    {
      icon: 'view_column',
      name: 'Columns',
      run: (r) => this.again.emit(r.file),
      may: (r) => r.file.layout !== null && r.file.state === 'read',
    },
    {
      icon: 'close',
      name: 'Leave out',
      run: (r) => this.files.remove(r.file.id),
      may: (r) => r.file.state !== 'storing',
    },
  ];
  readonly bar = computed(() =>
    SESSION_FIELDS.map((field) => {
      const shared = this.session.shared(field);
      const many = shared === undefined && this.chosen().length > 1;
      return {
        field,
        meta: this.#meta(field, many),
        // Where rows differ, an empty field stands for all their values.
        value: shared ?? (field === 'screenPath' || field === 'setupId' ? null : ''),
      };
    }),
  );

  #meta(field: SessionField, many: boolean): FieldMeta {
    const known = this.session.known();
    const options = (list: readonly string[]) => list.map((value) => ({ value, label: value }));
    const label = LABELS[field];
    const placeholder = many ? 'several values' : 'not set';
    switch (field) {
      case 'title':
        return { label, input: 'suggest', max: 80, placeholder, options: options(known.titles) };
      case 'setupId': {
        const setups = known.setups.map((s) => ({ value: s.id, label: s.name }));
        return { label, input: 'choice', options: setups, ...(many && { placeholder }) };
      }
      case 'resolution':
        return { ...RUN_FIELDS.resolution, placeholder, check: badResolution };
      case 'preset':
        return { ...RUN_FIELDS.preset, placeholder, options: options(known.presets) };
      default:
        return { ...RUN_FIELDS[field], placeholder };
    }
  }

  say(field: SessionField, value: unknown): void {
    const said = field === 'resolution' ? inPixels(String(value)) : value;
    if (field === 'setupId' && said === null) return;
    this.session.say(field, said as SessionValues[SessionField]);
  }

  /** Only a title must be said; anything else is asked for by a comparison. */
  isMissing(r: SessionRow, field: SessionField): boolean {
    return field === 'title' && this.text(r, field) === '';
  }

  text(r: SessionRow, field: SessionField): string {
    return this.session.text(r, field);
  }

  alike(r: SessionRow, field: SessionField): void {
    this.session.chooseAlike(field, r.values[field]);
  }
}

function badResolution(value: unknown): string | null {
  const px = inPixels(String(value ?? ''));
  return px === '' || /^\d{3,5}x\d{3,5}$/.test(px)
    ? null
    : 'Resolution: like 2560x1440, or nothing';
}
