import {
  ChangeDetectionStrategy,
  Component,
  computed,
  effect,
  inject,
  input,
  signal,
} from '@angular/core';
import { FormControl, FormGroup } from '@angular/forms';
import { MatButtonModule } from '@angular/material/button';
import { Router, RouterLink } from '@angular/router';
import type { BenchRow } from '@ruddy/core/bench/contract';
import { STAGE_WORDS } from '@ruddy/core/bench/text';
import { BenchesData } from '../setups/benches';
import { SetupsData } from '../setups/setups';
import { pluralize } from '../platform/shared/format';
import { Rows } from '../platform/kit/rows';
import { Cell } from '../platform/kit/cell';
import type { ShortColumn } from '../platform/kit/columns';
import { Field } from '../platform/kit/field';
import type { FieldMeta } from '../platform/kit/meta';
import { readyToSend, zodForm } from '../platform/kit/problems';
import { Acts, ask, State, valueOf } from '../platform/kit/ask';
import { seedMeta, seedSchema } from './seed';
import { Confirm } from '../platform/kit/confirm';

/** Benches as they stand, and the place to lay another one out. */
@Component({
  imports: [Cell, Field, MatButtonModule, RouterLink, Rows, State],
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
    { key: 'clearAway', name: 'Delete', silent: true },
  ];
  readonly #data = inject(BenchesData);
  readonly #setups = inject(SetupsData);
  readonly #router = inject(Router);
  readonly #acts = inject(Acts);
  readonly #confirm = inject(Confirm);
  /** A setup to make a bench of, when its pages led here. */
  readonly of = input<string>();
  readonly list = ask(() => this.#data.list());
  readonly benches = computed(() => valueOf(this.list)?.items ?? null);
  readonly named = ask(() => this.#setups.list({}));
  readonly setups = computed(() => valueOf(this.named)?.items ?? []);
  readonly laying = signal(false);
  readonly stages = STAGE_WORDS;
  readonly headline = computed(() => {
    const list = this.benches();
    if (!list) return 'Reading the benches …';
    const up = list.filter((b) => b.state.stage === 'bound' || b.state.stage === 'in-use').length;
    return list.length === 0
      ? '0 benches. A bench stands in for hardware: plug, switch and break what you like.'
      : `${pluralize(list.length, 'bench', 'benches')}, ${up} with a card up.`;
  });
  readonly form = new FormGroup(
    {
      setupId: new FormControl<string | null>(null),
      name: new FormControl('', { nonNullable: true }),
      seed: new FormControl<number | null>(null),
    },
    { validators: zodForm(seedSchema(2_147_483_647)) },
  );
  readonly setupMeta = computed<FieldMeta>(() => ({
    label: 'With the parts of',
    input: 'choice',
    placeholder: 'nothing: an empty table',
    options: this.setups().map((s) => ({ value: s.id, label: s.name })),
  }));
  readonly nameMeta: FieldMeta = {
    label: 'Name',
    input: 'text',
    max: 80,
    placeholder: 'as the setup',
  };
  readonly seedMeta = seedMeta('The same parts, seed and acts give the same bench.');

  constructor() {
    effect(() => this.form.controls.setupId.setValue(this.of() ?? null));
  }

  lay(box: HTMLElement): void {
    if (!readyToSend(this.form, box)) return;
    const { setupId, name, seed } = this.form.getRawValue();
    const setup = this.setups().find((s) => s.id === setupId);
    this.laying.set(true);
    const title = name.trim() || (setup ? `${setup.name}, bench` : 'Empty bench');
    const body = { name: title.slice(0, 80), setupId, ...(seed !== null && { seed }) };
    this.#acts.run(this.#data.lay(body), {
      failed: 'Not created.',
      then: (b) => void this.#router.navigate(['/bench', b.id]),
      otherwise: () => this.laying.set(false),
    });
  }

  askDelete(b: BenchRow): void {
    this.#confirm.before(
      {
        title: `Delete ${b.name}?`,
        loses: 'It cannot be undone.',
        more: 'What was read off it and saved in a setup stays.',
        act: 'Delete it',
      },
      () => this.#delete(b),
    );
  }

  #delete(b: BenchRow): void {
    this.#acts.run(this.#data.clear(b.id), {
      done: `${b.name} deleted.`,
      failed: 'Not deleted.',
      then: () => this.list.reload(),
    });
  }
}
