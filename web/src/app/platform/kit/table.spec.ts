import { TestbedHarnessEnvironment } from '@angular/cdk/testing/testbed';
import { Component, signal } from '@angular/core';
import { TestBed } from '@angular/core/testing';
import { MatIconTestingModule } from '@angular/material/icon/testing';
import type { Sort } from '@angular/material/sort';
import { keptColumns, sortedRows, type Column, type RowAct } from './columns';
import { Table } from './table';
import { TableHarness } from './testing/table-harness';

interface Cable {
  readonly id: string;
  readonly name: string;
  readonly metres: number | null;
}
const CABLES: readonly Cable[] = [
  { id: 'a', name: 'Cable 10', metres: 2 },
  { id: 'b', name: 'Cable 9', metres: null },
  { id: 'c', name: 'cable 8', metres: 0.7 },
];
const COLUMNS: readonly Column<Cable>[] = [
  { key: 'name', name: 'Name', text: (c) => c.name, sort: (c) => c.name },
  { key: 'metres', name: 'Length, m', text: (c) => String(c.metres ?? ''), sort: (c) => c.metres },
  { key: 'id', name: 'Id', text: (c) => c.id, usual: false },
];

@Component({
  imports: [Table],
  template: `<rb-table
    label="Cables"
    place="ruddy.test.columns"
    [selectable]="true"
    [(selected)]="selected"
    [columns]="columns"
    [rows]="rows()"
    [keyOf]="keyOf"
    [acts]="acts"
    [(sort)]="sort"
    empty="No cables yet."
  />`,
})
class Host {
  readonly columns = COLUMNS;
  readonly rows = signal<readonly Cable[] | null>(CABLES);
  readonly selected = signal<ReadonlySet<string>>(new Set());
  readonly sort = signal<Sort>({ active: '', direction: '' });
  readonly keyOf = (c: Cable): string => c.id;
  readonly done: string[] = [];
  readonly acts: readonly RowAct<Cable>[] = [
    { icon: 'delete', name: 'Delete', run: (c) => this.done.push(c.id) },
  ];
}

const names = (sort: Sort) => sortedRows(CABLES, COLUMNS, sort).map((c) => c.id);

describe('rows sorted in memory', () => {
  it('compare text by its numbers and without case', () => {
    expect(names({ active: 'name', direction: 'asc' })).toEqual(['c', 'b', 'a']);
  });
  it('put empty values last in both directions', () => {
    expect(names({ active: 'metres', direction: 'asc' })).toEqual(['c', 'a', 'b']);
    expect(names({ active: 'metres', direction: 'desc' })).toEqual(['a', 'c', 'b']);
  });
  it('stay as they are without a column', () => {
    expect(names({ active: 'gone', direction: 'asc' })).toEqual(['a', 'b', 'c']);
  });
});

it('kept columns that no longer exist are dropped', () => {
  localStorage.setItem('ruddy.test.columns', '["gone","id"]');
  expect(keptColumns('ruddy.test.columns', COLUMNS)).toEqual(['id']);
  localStorage.setItem('ruddy.test.columns', 'no list');
  expect(keptColumns('ruddy.test.columns', COLUMNS)).toEqual(['name', 'metres']);
});

describe('a table', () => {
  async function shown() {
    localStorage.removeItem('ruddy.test.columns');
    TestBed.configureTestingModule({ imports: [MatIconTestingModule] });
    const fixture = TestBed.createComponent(Host);
    const table = await TestbedHarnessEnvironment.loader(fixture).getHarness(TableHarness);
    await fixture.whenStable();
    return { host: fixture.componentInstance, table, fixture };
  }

  it('asks for an order when a head is pressed', async () => {
    const { host, table } = await shown();
    await table.sortBy('Length, m');
    expect(host.sort()).toEqual({ active: 'metres', direction: 'asc' });
  });

  it('selects all rows, also those out of view', async () => {
    const { host, table } = await shown();
    await table.select('Select all');
    expect([...host.selected()]).toEqual(['a', 'b', 'c']);
  });

  it('shows a column that is chosen and keeps it', async () => {
    const { table } = await shown();
    await table.column('Id');
    expect(localStorage.getItem('ruddy.test.columns')).toBe('["name","metres","id"]');
  });

  it('says so when it is empty', async () => {
    const { host, fixture } = await shown();
    host.rows.set([]);
    await fixture.whenStable();
    expect((fixture.nativeElement as HTMLElement).textContent).toContain('No cables yet.');
  });
});
