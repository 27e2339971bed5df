import { ChangeDetectionStrategy, Component, computed, inject, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatProgressBarModule } from '@angular/material/progress-bar';
import type { Encoding } from '@ruddy/core/base/contract';
import type { DemoReport } from '@ruddy/core/workshop/contract';
import { BundleFile } from './bundle-file';
import { WorkshopData } from './workshop';
import { download } from '../platform/shared/download';
import { pluralize } from '../platform/shared/format';
import { WorkshopNav } from './workshop-nav';
import { Acts } from '../platform/kit/ask';
import { Confirm } from '../platform/kit/confirm';
import { EncodingChoice } from '../platform/kit/encoding-choice';

/** The demo data and how to remove it; everything as one file, out and in. */
@Component({
  imports: [WorkshopNav, MatButtonModule, MatProgressBarModule, EncodingChoice],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './data-page.html',
  styleUrl: './data-page.scss',
})
export class DataPage {
  readonly #acts = inject(Acts);
  readonly #data = inject(WorkshopData);
  readonly #confirm = inject(Confirm);
  readonly files = inject(BundleFile);
  readonly demo = signal<DemoReport | null>(null);
  readonly problem = signal<string | null>(null);
  readonly said = signal<string | null>(null);
  readonly working = signal(false);
  /** A file whose encoding the server could not tell. */
  readonly asked = signal<File | null>(null);
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

  askRemove(d: DemoReport): void {
    const setups = pluralize(d.setups, 'setup');
    this.#confirm.before(
      {
        title: 'Remove the examples?',
        loses: 'Removing cannot be undone.',
        more: `${setups}, ${pluralize(d.parts, 'part')} and ${pluralize(d.outcomes, 'outcome')} of the examples go; what you made or changed stays.`,
        act: 'Remove the examples',
      },
      () => this.#remove(),
    );
  }

  #remove(): void {
    this.said.set(null);
    this.#acts.run(this.#data.removeDemo(), {
      line: this.problem,
      running: this.working,
      failed: 'Nothing was removed:',
      then: (d) => {
        this.said.set(
          `Removed ${pluralize(d.setups, 'setup')}, ${pluralize(d.parts, 'part')}, ${pluralize(d.outcomes, 'outcome')}; ${d.adopted.length} kept because yours need them.`,
        );
        this.#look();
      },
    });
  }

  save(): void {
    this.said.set(null);
    this.#acts.run(this.#data.exportAll(), {
      line: this.problem,
      running: this.working,
      failed: 'Nothing was saved:',
      then: (bundle) => {
        download('ruddy-bridge.json', 'application/json', JSON.stringify(bundle, null, 1));
        this.said.set(
          `Saved ${pluralize(bundle.parts.length, 'part')}, ${pluralize(bundle.setups.length, 'setup')} and ${pluralize(bundle.outcomes.length, 'outcome')}.`,
        );
      },
    });
  }

  load(box: HTMLInputElement): void {
    const file = box.files?.[0];
    box.value = '';
    if (file) void this.loadFile(file, null);
  }

  readAs(encoding: Encoding): void {
    const file = this.asked();
    if (file) void this.loadFile(file, encoding);
  }

  async loadFile(file: File, encoding: Encoding | null): Promise<void> {
    this.asked.set(null);
    this.problem.set(null);
    this.said.set(null);
    this.working.set(true);
    const read = await this.files.load(file, encoding);
    if (!read.ok) {
      if (read.asksEncoding) this.asked.set(file);
      this.#failed(read.why);
      return;
    }
    this.working.set(false);
    this.said.set(read.words);
    this.#look();
  }

  stop(job: string): void {
    this.#acts.run(this.#data.cancel(job), { line: this.problem, failed: 'Not stopped.' });
  }

  #failed(why: string): void {
    this.working.set(false);
    this.said.set(null);
    this.problem.set(why);
  }

  #look(): void {
    this.#acts.read(this.#data.demo(), { line: this.problem, then: (d) => this.demo.set(d) });
  }
}
