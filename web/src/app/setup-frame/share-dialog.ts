import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MAT_DIALOG_DATA, MatDialogModule, MatDialogRef } from '@angular/material/dialog';
import type { ShareReport } from '@ruddy/core/workshop/contract';
import type { ApiError } from '../platform/api/api-client';
import { CatalogueData } from '../parts/catalogue';
import { download } from '../platform/shared/download';

export interface ShareInput {
  id: string;
  name: string;
}

/** What leaves with a share file and what stays here, before the act. */
@Component({
  imports: [MatDialogModule, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  template: `
    <h2 mat-dialog-title>Share {{ data.name }}</h2>
    <mat-dialog-content>
      @if (problem(); as why) {
        <p class="problem" role="alert">{{ why }}</p>
      }
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
        <label
          ><input type="checkbox" #box [checked]="prices()" (change)="prices.set(box.checked)" />
          prices offered and what was said of the money leave too</label
        >
        <p class="hint">
          The file is JSON in the format of the export; another workshop opens it on its Setups
          page.
        </p>
      } @else {
        <p>Looking at what the setup holds …</p>
      }
    </mat-dialog-content>
    <mat-dialog-actions>
      <button mat-flat-button type="button" [disabled]="report() === null" (click)="save()">
        Save the share file
      </button>
      <button mat-button type="button" mat-dialog-close>Keep it here</button>
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
  readonly #ref = inject<MatDialogRef<ShareDialog, boolean>>(MatDialogRef);
  readonly data = inject<ShareInput>(MAT_DIALOG_DATA);
  readonly report = signal<ShareReport | null>(null);
  readonly prices = signal(false);
  readonly problem = signal<string | null>(null);
  readonly leaves = computed(() => (this.report()?.leaves ?? []).filter((l) => l.n > 0).length);
  readonly stays = computed(() => (this.report()?.stays ?? []).filter((l) => l.n > 0).length);

  constructor() {
    this.#catalogue.shareReport(this.data.id).subscribe({
      next: (r) => this.report.set(r),
      error: (e: ApiError) => this.problem.set(`Nothing left: ${e.message}`),
    });
  }

  save(): void {
    this.#catalogue.shareFile(this.data.id, this.prices()).subscribe({
      next: (bundle) => {
        const name =
          this.data.name.replace(/[^A-Za-z0-9]+/g, '-').replace(/^-+|-+$/g, '') || 'setup';
        download(`${name}.json`, 'application/json', JSON.stringify(bundle, null, 1));
        this.#ref.close(true);
      },
      error: (e: ApiError) => this.problem.set(`Nothing left: ${e.message}`),
    });
  }
}
