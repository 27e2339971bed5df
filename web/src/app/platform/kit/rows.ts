import { NgTemplateOutlet } from '@angular/common';
import {
  ChangeDetectionStrategy,
  Component,
  computed,
  contentChildren,
  input,
  signal,
} from '@angular/core';
import { MatSortModule, type Sort } from '@angular/material/sort';
import { MatTableModule } from '@angular/material/table';
import { Cell } from './cell';
import { sortedRows, type ShortColumn } from './columns';

/** Columns that a phone can show side by side. */
const BESIDE = 3;

/**
 * A short table: every row is drawn, as high as its text. A long list is an `rb-table`. The first column heads its row. On a phone a row
 * of many columns is a card: the first cell above, the others below it with their names.
 */
@Component({
  selector: 'rb-rows',
  imports: [NgTemplateOutlet, MatSortModule, MatTableModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  host: { class: 'dense' },
  template: `
    <div class="wide" tabindex="0" role="region" [attr.aria-label]="label()">
      @for (columnsNow of [keys().join()]; track columnsNow) {
        <table
          mat-table
          role="table"
          [class.cards]="columns().length > beside"
          [dataSource]="ordered()"
          [attr.aria-label]="label()"
          matSort
          matSortDisableClear
          (matSortChange)="sort.set($event)"
        >
          @for (c of columns(); track c.key; let first = $first) {
            <ng-container [matColumnDef]="c.key">
              <th
                mat-header-cell
                *matHeaderCellDef
                role="columnheader"
                [class.sorts]="c.sort"
                [mat-sort-header]="c.sort ? c.key : ''"
                [disabled]="!c.sort"
                [class.figure]="c.figure"
                [attr.title]="c.help"
                [arrowPosition]="c.figure ? 'before' : 'after'"
              >
                <span [class.visually-hidden]="c.silent">{{ c.name }}</span>
              </th>
              <td
                mat-cell
                *matCellDef="let r; let i = index"
                [class.figure]="c.figure"
                [attr.role]="first ? 'rowheader' : 'cell'"
                [attr.data-name]="first || c.silent ? null : c.name"
              >
                @if (cell(c.key); as drawn) {
                  <ng-container
                    [ngTemplateOutlet]="drawn"
                    [ngTemplateOutletContext]="{ $implicit: r, index: i }"
                  />
                } @else {
                  {{ c.text?.(r) }}
                }
              </td>
            </ng-container>
          }
          <tr mat-header-row role="row" *matHeaderRowDef="keys()"></tr>
          <tr
            mat-row
            role="row"
            *matRowDef="let r; columns: keys()"
            [class.marked]="marked()(r)"
            [attr.aria-current]="marked()(r) ? 'true' : null"
          ></tr>
        </table>
      }
      @if (rows()?.length === 0) {
        <ng-content select="[none]" />
      }
    </div>
  `,
  styleUrl: './rows.scss',
})
export class Rows<T> {
  /** Accessible name. */
  readonly label = input.required<string>();
  readonly columns = input.required<readonly ShortColumn<NoInfer<T>>[]>();
  /** Null before they are read. */
  readonly rows = input.required<readonly T[] | null>();
  /** The row that is chosen, or the one that counts. */
  readonly marked = input<(row: T) => boolean>(() => false);
  readonly sort = signal<Sort>({ active: '', direction: '' });
  readonly beside = BESIDE;
  readonly cells = contentChildren<Cell<T>>(Cell);
  readonly keys = computed(() => this.columns().map((c) => c.key));
  readonly ordered = computed(() => sortedRows(this.rows() ?? [], this.columns(), this.sort()));

  cell(key: string): Cell<T>['template'] | null {
    return this.cells().find((c) => c.rbCell() === key)?.template ?? null;
  }
}
