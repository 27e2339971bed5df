import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';
import { CatalogueData } from '../parts/catalogue';
import { download } from '../platform/shared/download';

export interface ShareInput {
  id: string;
  name: string;
}

/** What leaves with a share file and what stays here, before the act. */
@Component({
  imports: [MatDialogModule, MatButtonModule, MatCheckboxModule, State],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Share {{ data.name }}</h2>
    <mat-dialog-content>
      <rb-state [of]="asked" what="what the setup holds" />
      @if (report(); as r) {
        <h3>Leaves with the file: {{ leaves() }}</h3>
        <ul>
          @for (l of r.leaves; track l.what) {
            <li>{{ l.n }} {{ l.what }}</li>
          }
        </ul>
        <h3>Stays here: {{ stays() }}</h3>
        <ul>
          @for (l of r.stays; track l.what) {
            <li>{{ l.n }} {{ l.what }}</li>
          }
        </ul>
        <mat-checkbox [checked]="prices()" (change)="prices.set($event.checked)">
          Include prices offered and what was said of the cost
        </mat-checkbox>
        <p class="hint">
          The file is JSON in the format of the export; another workshop opens it on its Setups
          page.
        </p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-flat-button type="button" [disabled]="report() === null" (click)="save()">
        Download share file
      </button>
      <button mat-button type="button" mat-dialog-close>Cancel</button>
    </mat-dialog-actions>
  `,
  styles: `
    ul {
      margin: 4px 0 12px;
      padding-left: 20px;
    }
    .hint {
      margin-top: 8px;
    }
  `,
})
export class ShareDialog {
  readonly #catalogue = inject(CatalogueData);
  readonly #acts = inject(Acts);
  readonly #ref = inject<MatDialogRef<ShareDialog, boolean>>(MatDialogRef);
  readonly data = inject<ShareInput>(MAT_DIALOG_DATA);
  readonly asked = ask(() => this.#catalogue.shareReport(this.data.id));
  readonly report = computed(() => valueOf(this.asked) ?? null);
  readonly prices = signal(false);
  readonly leaves = computed(() => (this.report()?.leaves ?? []).filter((l) => l.n > 0).length);
  readonly stays = computed(() => (this.report()?.stays ?? []).filter((l) => l.n > 0).length);

  save(): void {
    this.#acts.run(this.#catalogue.shareFile(this.data.id, this.prices()), {
      failed: 'Not downloaded.',
      then: (bundle) => {
        const words = this.data.name.split(/[^A-Za-z0-9]+/).filter((x) => x !== '');
        const name = words.join('-') || 'setup';
        download(`${name}.json`, 'application/json', JSON.stringify(bundle, null, 1));
        this.#ref.close(true);
      },
    });
  }
}
