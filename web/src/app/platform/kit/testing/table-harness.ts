import { ComponentHarness } from '@angular/cdk/testing';
import { MatCheckboxHarness } from '@angular/material/checkbox/testing';
import { MatMenuHarness } from '@angular/material/menu/testing';
import { MatSortHarness } from '@angular/material/sort/testing';
import { MatTableHarness } from '@angular/material/table/testing';

/** An `rb-table` as a test uses it. */
export class TableHarness extends ComponentHarness {
  static readonly hostSelector = 'rb-table';

  readonly #table = this.locatorFor(MatTableHarness);
  readonly #sort = this.locatorFor(MatSortHarness);
  readonly #boxes = this.locatorForAll(MatCheckboxHarness);
  readonly #menus = this.locatorForAll(MatMenuHarness);

  /** Texts of the rows in view, a list of cells each. */
  async rows(): Promise<string[][]> {
    const rows = await (await this.#table()).getRows();
    return Promise.all(rows.map((r) => r.getCellTextByIndex()));
  }

  async sortBy(column: string): Promise<void> {
    await (await (await this.#sort()).getSortHeaders({ label: column }))[0]?.click();
  }

  /** Selects rows by the accessible name of their boxes. */
  async select(...names: string[]): Promise<void> {
    for (const box of await this.#boxes())
      if (names.includes((await box.getAriaLabel()) ?? '')) await box.check();
  }

  /** Presses an act in the menu of the n-th row in view. */
  async act(row: number, name: string): Promise<void> {
    const menus = await this.#rowMenus();
    await menus[row]?.open();
    await menus[row]?.clickItem({ text: new RegExp(name) });
  }

  /** Shows or hides a column. */
  async column(name: string): Promise<void> {
    const menus = await this.#menus();
    await menus[0]?.open();
    await menus[0]?.clickItem({ text: new RegExp(name) });
  }

  async #rowMenus(): Promise<MatMenuHarness[]> {
    return this.locatorForAll(MatMenuHarness.with({ ancestor: 'td' }))();
  }
}
