import { ChangeDetectionStrategy, Component, computed, inject, input, signal } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import type { BenchRow } from '@ruddy/core/bench/contract';
import { STAGE_WORDS } from '@ruddy/core/bench/text';
import type { SetupRow } from '@ruddy/core/plan/contract';
import type { ApiError } from '../platform/api/api-client';
import { BenchesData } from '../setups/benches';
import { SetupsData } from '../setups/setups';
import { pluralize } from '../platform/shared/format';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';

/** Benches as they stand, and the place to lay another one out. */
@Component({
  imports: [Cell, Rows, MatButtonModule, RouterLink],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './bench-list-page.html',
  styleUrl: './bench-list-page.scss',
})
export class BenchListPage {
  readonly listOfBenchesColumns: readonly ShortColumn[] = [
    { key: 'bench', name: 'Bench' },
    { key: 'setup', name: 'Setup' },
    { key: 'hostDockCard', name: 'Host, dock, card' },
    { key: 'link', name: 'Link' },
    { key: 'clearAway', name: 'Clear away', silent: true },
  ];
  readonly #data = inject(BenchesData);
  readonly #setups = inject(SetupsData);
  readonly #router = inject(Router);
  /** A setup to lay out, when its pages led here. */
  readonly of = input<string>();
  readonly benches = signal<BenchRow[] | null>(null);
  readonly setups = signal<SetupRow[]>([]);
  readonly problem = signal<string | null>(null);
  readonly laying = signal(false);
  readonly asked = signal<string | null>(null);
  /** The bench that is about to be cleared away, until it is said again. */
  readonly going = signal<string | null>(null);
  readonly stages = STAGE_WORDS;
  readonly headline = computed(() => {
    const list = this.benches();
    if (!list) return 'Reading the benches …';
    const up = list.filter((b) => b.state.stage === 'bound' || b.state.stage === 'in-use').length;
    return list.length === 0
      ? '0 benches laid out. A bench is a stand-in for hardware: plug, switch and break what you like.'
      : `${pluralize(list.length, 'bench', 'benches')} laid out, ${up} with a card up.`;
  });
  readonly chosen = computed(() => this.asked() ?? this.of() ?? '');

  constructor() {
    this.#read();
    this.#setups.list({}).subscribe({
      next: ({ items }) => this.setups.set(items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }

  lay(name: string, setupId: string, seed: string, event: Event): void {
    event.preventDefault();
    const setup = this.setups().find((s) => s.id === setupId);
    const n = seed.trim() === '' ? undefined : Number(seed);
    if (n !== undefined && !(Number.isInteger(n) && n >= 0 && n <= 2_147_483_647))
      return this.problem.set(
        `Nothing laid out. Seed: "${seed}" is not a whole number from 0 to 2147483647.`,
      );
    this.laying.set(true);
    const title = name.trim() || (setup ? `${setup.name}, bench` : 'Empty bench');
    const body = {
      name: title.slice(0, 80),
      setupId: setupId || null,
      ...(n !== undefined && { seed: n }),
    };
    this.#data.lay(body).subscribe({
      next: (b) => void this.#router.navigate(['/bench', b.id]),
      error: (e: ApiError) => {
        this.laying.set(false);
        this.problem.set(`Nothing laid out. ${e.message}`);
      },
    });
  }

  clear(b: BenchRow): void {
    if (this.going() !== b.id) return this.going.set(b.id);
    this.going.set(null);
    this.#data.clear(b.id).subscribe({
      next: () => this.#read(),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }

  #read(): void {
    this.#data.list().subscribe({
      next: ({ items }) => this.benches.set(items),
      error: (e: ApiError) => this.problem.set(e.message),
    });
  }
}
