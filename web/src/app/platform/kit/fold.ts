import { ChangeDetectionStrategy, Component, input, model, viewChild } from '@angular/core';
import { MatExpansionModule, MatExpansionPanelHeader } from '@angular/material/expansion';

/** A section that folds to one line: how many, and the worst of them. Markup of the line goes into the slot `[foldName]`. */
@Component({
  selector: 'rb-fold',
  imports: [MatExpansionModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <mat-expansion-panel [(expanded)]="open">
      <mat-expansion-panel-header>
        <mat-panel-title>{{ name() }}<ng-content select="[foldName]" /></mat-panel-title>
      </mat-expansion-panel-header>
      <ng-content />
    </mat-expansion-panel>
  `,
  styleUrl: './fold.scss',
  host: { '[class.inner]': 'inner()' },
})
export class Fold {
  readonly name = input('');
  readonly open = model(false);
  /** Inside a section: no border, a lower line. */
  readonly inner = input(false);
  readonly header = viewChild.required(MatExpansionPanelHeader);

  /** Opens it and puts the focus on its line. */
  show(): void {
    this.open.set(true);
    this.header().focus();
  }
}
