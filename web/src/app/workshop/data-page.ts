import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import type { DemoReport } from '@ruddy/core/workshop/contract';
import type { ApiError } from '../platform/api/api-client';
import { BundleFile } from './bundle-file';
import { WorkshopData } from './workshop';
import { download } from '../platform/shared/download';
import { pluralize } from '../platform/shared/format';
import { WorkshopNav } from './workshop-nav';

/** The demo data and how to remove it; everything as one file, out and in. */
@Component({
  imports: [WorkshopNav, MatButtonModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './data-page.html',
  styleUrl: './data-page.scss',
})
export class DataPage {
  readonly #data = inject(WorkshopData);
  readonly #files = inject(BundleFile);
  readonly demo = signal<DemoReport | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly asking = signal(false);
  readonly working = signal(false);
  readonly left = computed(() => {
    const d = this.demo();
    return d ? d.parts + d.setups + d.outcomes : 0;
  });
  readonly headline = computed(() => {
    const d = this.demo();
    if (!d) return 'Reading what is stored …';
    if (this.left() === 0) return '0 examples are stored; everything here is yours.';
    return `${pluralize(d.setups, 'example setup')}, ${pluralize(d.parts, 'part')} and ${pluralize(d.outcomes, 'outcome')} of the examples can go.`;
  });

  constructor() {
    this.#look();
  }

  remove(): void {
    this.working.set(true);
    this.#data.removeDemo().subscribe({
      next: (d) => {
        this.working.set(false);
        this.asking.set(false);
        this.said.set(
          `Removed ${pluralize(d.setups, 'setup')}, ${pluralize(d.parts, 'part')}, ${pluralize(d.outcomes, 'outcome')}; ${d.adopted.length} kept because yours need them.`,
        );
        this.#look();
      },
      error: (e: ApiError) => this.#failed(`Nothing was removed: ${e.message}`),
    });
  }

  save(): void {
    this.#data.exportAll().subscribe({
      next: (bundle) => {
        download('ruddy-bridge.json', 'application/json', JSON.stringify(bundle, null, 1));
        this.said.set(
          `Saved ${pluralize(bundle.parts.length, 'part')}, ${pluralize(bundle.setups.length, 'setup')} and ${pluralize(bundle.outcomes.length, 'outcome')}.`,
        );
      },
      error: (e: ApiError) => this.#failed(`Nothing was saved: ${e.message}`),
    });
  }

  async load(box: HTMLInputElement): Promise<void> {
    const file = box.files?.[0];
    box.value = '';
    if (!file) return;
    this.problem.set(null);
    this.said.set(null);
    this.working.set(true);
    const read = await this.#files.load(file);
    if (!read.ok) {
      this.#failed(read.why);
      return;
    }
    this.working.set(false);
    this.said.set(read.words);
    this.#look();
  }

  #failed(why: string): void {
    this.working.set(false);
    this.said.set(null);
    this.problem.set(why);
  }

  #look(): void {
    this.#data.demo().subscribe({
      next: (d) => this.demo.set(d),
      error: (e: ApiError) => this.#failed(e.message),
    });
  }
}
