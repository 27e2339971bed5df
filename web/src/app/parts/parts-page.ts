import { ChangeDetectionStrategy, Component, computed, effect, inject, input, signal, untracked } from '@angular/core';
import { MatButtonModule } from '@angular/material/button';
import { MatCheckboxModule } from '@angular/material/checkbox';
import { Router, RouterLink } from '@angular/router';
import { v7 } from 'uuid';
import type { Part, PartBody, PartPatch } from '@ruddy/core/api';
import { PART_KINDS, type AnySpec, type PartKind } from '@ruddy/core/schema';
import { ApiProblem } from '../data/api';
import { PagedList } from '../data/paged-list';
import { PartsData, type PartFilter } from '../data/parts';
import { partName } from '@ruddy/core/setup';
import { Keys } from '../shell/keys';
import { counted, orEmpty } from '../shared/format';
import type { Errors } from './form-model';
import { facts, KIND_WORDS } from './part-facts';
import { PartForm } from './part-form';
import { TouchedSetups } from './touched-setups';

/** The catalogue: kinds, list, editor. */
@Component({
  imports: [PartForm, TouchedSetups, RouterLink, MatButtonModule, MatCheckboxModule],
  changeDetection: ChangeDetectionStrategy.OnPush,
  templateUrl: './parts-page.html',
  styleUrl: './parts-page.scss',
})
export class PartsPage {
  readonly #data = inject(PartsData);
  readonly #router = inject(Router);

  /** What the page that opens next says and shows: navigation opens it anew. */
  #sayNext: string | null = null;
  #draftNext: Partial<AnySpec> = {};

  readonly kind = input.required<PartKind>();
  readonly id = input<string>();
  readonly q = input('', { transform: orEmpty });
  readonly retired = input('', { transform: orEmpty });

  readonly kinds = PART_KINDS;
  readonly words = KIND_WORDS;
  readonly name = partName;
  readonly facts = facts;
  readonly list = new PagedList<Part, PartFilter>((f) => this.#data.list(f));
  readonly openProblem = signal<string | null>(null);
  readonly problem = computed(() => this.openProblem() ?? this.list.problem());
  readonly part = signal<Part | null>(null);
  readonly draft = signal<Partial<AnySpec>>({});
  readonly refused = signal<Errors>(new Map());
  readonly said = signal<string | null>(null);
  readonly stale = signal<Part | null>(null);
  readonly isNew = computed(() => this.id() === 'new');
  readonly headline = computed(() => {
    const list = this.list.rows();
    if (!list) return 'Reading the catalogue …';
    const word = KIND_WORDS[this.kind()];
    const more = this.list.next() ? ' or more' : '';
    const found = this.q() ? ` called "${this.q()}"` : '';
    return list.length === 0 && !this.q()
      ? `0 ${word.many} in the catalogue yet. Add the first one.`
      : `${counted(list.length, word.one, word.many)}${more}${found} in the catalogue.`;
  });

  constructor() {
    inject(Keys).bind([{ key: 'n', what: 'New part of this kind', run: () => this.create() }]);
    effect(() => this.list.load({ kind: this.kind(), q: this.q(), retired: this.retired() === '1', limit: 100 }));
    effect(() => {
      const id = this.id();
      untracked(() => this.#open(id));
    });
  }

  filter(q: string): void {
    void this.#router.navigate([], { queryParams: { q: q.trim() || null }, queryParamsHandling: 'merge', replaceUrl: true });
  }

  showRetired(on: boolean): void {
    void this.#router.navigate([], { queryParams: { retired: on ? '1' : null }, queryParamsHandling: 'merge', replaceUrl: true });
  }

  create(): void {
    void this.#router.navigate(['/parts', this.kind(), 'new'], { queryParamsHandling: 'preserve' });
  }

  /** A copy in the form, not stored until saved; its variant says that it is one. */
  copy(): void {
    const p = this.part();
    if (!p) return;
    const spec = { ...structuredClone(p.spec), variant: `${p.spec.variant} copy`.trim() };
    this.#draftNext = spec;
    void this.#router.navigate(['/parts', p.kind, 'new']);
  }

  save(spec: AnySpec): void {
    const p = this.part();
    this.refused.set(new Map());
    this.said.set(null);
    if (p) this.#patch(p, { spec: spec as unknown as Record<string, unknown> });
    else
      this.#data.create({ id: v7(), kind: this.kind(), spec } as PartBody).subscribe({
        next: (made) => {
          this.list.load();
          this.#sayNext = 'Stored.';
          void this.#router.navigate(['/parts', made.kind, made.id]);
        },
        error: (e: ApiProblem) => this.#refuse(e),
      });
  }

  retire(retired: boolean): void {
    const p = this.part();
    if (p) this.#patch(p, { retired });
  }

  /** Changed elsewhere: take the stored values, or put these over them. */
  takeStored(): void {
    const stored = this.stale();
    if (stored) this.#show(stored);
  }
  overwrite(spec: AnySpec | null | undefined): void {
    const stored = this.stale();
    if (stored && spec) this.#patch(stored, { spec: spec as unknown as Record<string, unknown> });
  }

  #patch(p: Part, patch: PartPatch): void {
    this.#data.patch(p.id, patch, p.rev).subscribe({
      next: (now) => {
        this.#show(now);
        this.list.load();
        this.said.set(
          patch.retired === undefined
            ? 'Stored.'
            : patch.retired
              ? 'Retired: it leaves the lists, what uses it keeps it.'
              : 'Back in the lists.',
        );
      },
      error: (e: ApiProblem) => this.#refuse(e),
    });
  }

  #refuse(e: ApiProblem): void {
    if (e.problem.status === 412) {
      this.stale.set(e.problem.current as Part);
      return;
    }
    const errors = e.problem.errors?.map((x) => [x.path.replace(/^spec\//, ''), x.message] as const);
    this.refused.set(new Map(errors ?? [['', e.message]]));
  }

  #open(id: string | undefined): void {
    this.said.set(this.#sayNext);
    this.#sayNext = null;
    if (!id || id === 'new') {
      this.part.set(null);
      this.stale.set(null);
      this.refused.set(new Map());
      this.draft.set(this.#draftNext);
      this.#draftNext = {};
      return;
    }
    this.#data.one(id).subscribe({ next: (p) => this.#show(p), error: (e: ApiProblem) => this.openProblem.set(e.message) });
  }

  #show(p: Part): void {
    this.part.set(p);
    this.draft.set(p.spec);
    this.stale.set(null);
    this.refused.set(new Map());
  }
}
