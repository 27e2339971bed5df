import { Directive, inject, input, TemplateRef } from '@angular/core';

/** How one column of an `rb-table` is drawn: `<ng-template rbCell="seen" [rbCellOf]="rows()" let-r>`. Other columns show their text. */
@Directive({ selector: 'ng-template[rbCell]' })
export class Cell<T> {
  /** Key of the column. */
  readonly rbCell = input.required<string>();
  /** Gives the type of the row to the template; not read. */
  readonly rbCellOf = input<readonly T[] | null>(null);
  readonly template = inject<TemplateRef<{ $implicit: T; index?: number }>>(TemplateRef);

  static ngTemplateContextGuard<T>(
    _of: Cell<T>,
    context: unknown,
  ): context is { $implicit: T; index: number } {
    return context !== null;
  }
}
